import { FlaskConical } from "lucide-react";
import { createContext, type ReactNode, useContext, useState } from "react";
import { Estimate } from "../piece/Estimate";
import { type StageView, useWorkspace } from "../piece/workspace";
import { Beliefs } from "./Beliefs";
import { FindOut } from "./FindOut";
import { FindRail } from "./FindRail";
import { LeadView } from "./LeadView";
import { PatchesView } from "./PatchesView";
import { taken, useIdentify } from "./useIdentify";

/** Asked is the test that the painter has gone back to; both halves of the screen use it. */
const Asked = createContext<[string | undefined, (test: string | undefined) => void]>([undefined, () => {}]);

function Around({ children }: { children: ReactNode }) {
  const asked = useState<string>();
  return <Asked value={asked}>{children}</Asked>;
}

function Dialogue() {
  const { piece, zone, change } = useWorkspace();
  const { found, silent, refused } = useIdentify(piece, zone);
  const [asked, ask] = useContext(Asked);
  return (
    <>
      <FindRail at="identify" />
      {refused && (
        <p role="alert" className="mb-2 text-warning">
          The answers could not be evaluated: {refused}
        </p>
      )}
      <FindOut piece={piece} zone={zone} found={found} silent={silent} asked={asked} onAsk={ask} onZone={change} />
    </>
  );
}

/** Believed is the half with the probabilities. Nothing is drawn before there are any, so that nothing moves. */
function Believed() {
  const { piece, zone, change } = useWorkspace();
  const { found, silent } = useIdentify(piece, zone);
  const [, ask] = useContext(Asked);
  if (!found && !silent) return null;
  return (
    <section
      aria-label="What it probably is"
      className="wash border-base-300 px-3 py-4 max-lg:border-t sm:px-5 lg:overflow-y-auto lg:border-l lg:contain-content"
    >
      {silent && (
        <p role="alert" data-silent className="mb-2 flex items-center gap-2 text-warning">
          <FlaskConical className="size-5 shrink-0" aria-hidden="true" />
          {found
            ? "The server does not answer: this is from before your last answer."
            : "The server does not answer. Your answers are kept and will be evaluated when it is back."}
        </p>
      )}
      {found && (
        <Beliefs
          found={found}
          zone={zone}
          onAnswer={ask}
          onTake={() => found.take && change(taken(zone, found.take))}
        />
      )}
      <Estimate />
    </section>
  );
}

export const identify: StageView = {
  id: "identify",
  name: "Identify",
  key: "2",
  Main: Dialogue,
  Around,
  Aside: Believed,
};

export const lead: StageView = {
  id: "lead",
  name: "Lead",
  of: "identify",
  Main: () => (
    <>
      <FindRail at="lead" />
      <LeadView />
    </>
  ),
};

export const patches: StageView = {
  id: "patches",
  name: "Patch tests",
  of: "identify",
  Main: () => (
    <>
      <FindRail at="patches" />
      <PatchesView />
    </>
  ),
};
