import type { ZoneResult } from "../api/client";
import { HOLDS } from "../section/Cut";
import { Dialog } from "../ui/Dialog";
import { Figures } from "./Figures";

export type Asked = "peeling" | "stain" | "chips" | "cracks" | "time";

const TITLE: Record<Asked, string> = {
  peeling: "How the risk of peeling is calculated",
  stain: "How the stain is calculated",
  chips: "How the chipping is calculated",
  cracks: "How it cracks",
  time: "How the time is calculated",
};

/** FigureDetails shows the factors of one of the verdict's figures. */
export function FigureDetails({ judged, of, onClose }: { judged: ZoneResult; of: Asked; onClose: () => void }) {
  return (
    <Dialog title={TITLE[of]} onClose={onClose}>
      {of === "peeling" && <Bonds judged={judged} />}
      {of === "stain" &&
        judged.bleed.map((b) => (
          <section key={b.id} className="mb-3">
            <h3 className="font-semibold first-letter:uppercase">
              {b.name}: {b.words}
            </h3>
            <Figures factors={b.figures} />
          </section>
        ))}
      {of === "chips" && judged.chips && (
        <>
          <p>
            Typically <b className="font-semibold">{judged.chips.usual}</b> of it chips, and in eight cases of ten{" "}
            {judged.chips.words}. Nobody can promise it: a test board tells you more.
          </p>
          <Figures factors={judged.chips.figures} />
        </>
      )}
      {of === "cracks" && <p>{judged.cracks}</p>}
      {of === "time" && (
        <>
          <p>
            {judged.hours.work ? `${judged.hours.work} of work` : "The working time is not known without an area"},{" "}
            {judged.hours.takes} from the first step to the end.
          </p>
          <Figures factors={judged.hours.steps} />
          {judged.ready && <p className="mt-2">{judged.ready.says}</p>}
        </>
      )}
      <p className="mt-3 text-secondary text-sm">Every figure is an estimate from working defaults.</p>
    </Dialog>
  );
}

/** Bonds are the boundaries of a plan, the weakest opened: one that fails is enough. */
function Bonds({ judged }: { judged: ZoneResult }) {
  const joints = (judged.section?.layers ?? []).filter((l) => l.joint);
  const weakest = Math.min(...joints.map((l) => l.joint?.strength ?? 1));
  return (
    <>
      <p>
        Risk that at least one of these bonds is weaker than the wear needs (strength{" "}
        {judged.adhesion?.demand.toFixed(2)}):{" "}
        <b className="whitespace-nowrap font-semibold">{judged.adhesion?.risk_words}</b>
      </p>
      {joints.map((l) => (
        <details
          key={`${l.step}-${l.coat}`}
          open={l.joint?.strength === weakest}
          className="mt-1 border-base-300 border-t"
        >
          <summary className="min-h-9 py-1.5">
            <b className="font-semibold">{l.coat && l.coat > 1 ? `${l.name}, coat ${l.coat}` : l.name}</b>{" "}
            {HOLDS[l.joint?.holds ?? "well"]} (strength {l.joint?.strength.toFixed(2)})
          </summary>
          <Figures factors={l.joint?.figures ?? []} />
        </details>
      ))}
    </>
  );
}
