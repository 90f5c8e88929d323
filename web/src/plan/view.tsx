import { Copy, CopyCheck, Droplets, GitCompareArrows, Play } from "lucide-react";
import { lazy, Suspense, useState } from "react";
import { CopyPlan } from "../piece/CopyPlan";
import { type StageView, useWorkspace } from "../piece/workspace";
import { useTakes } from "../ui/focus";
import { count } from "../ui/units";
import { Sensitivities } from "../ways/Sensitivities";
import { useKept } from "../ways/useWays";
import { Plan } from "./Plan";

// Opened now and then: the first load is without it.
const LikeSheet = lazy(() => import("../work/LikeSheet"));

function Main() {
  const { piece, zone, judged, go, pick, say, changePiece, steps: setSteps } = useWorkspace();
  const [copying, setCopying] = useState(false);
  const [like, setLike] = useState(false);
  const steps = zone.steps ?? [];
  useTakes("field steps", () => pick(steps.length));
  const others = (piece.zones ?? []).length > 1;
  return (
    <>
      <div className="mb-2 flex min-h-10 flex-wrap items-center gap-x-2">
        <h2 className="font-semibold text-lg">The plan, bottom up</h2>
        <span className="flex-1" />
        {!judged?.log && (
          <button
            type="button"
            data-ways
            className={`btn ${steps.length ? "btn-ghost border-base-300 font-normal" : "btn-primary"}`}
            onClick={() => go("compare")}
          >
            <GitCompareArrows className="size-4" aria-hidden="true" /> {steps.length ? "Compare plans" : "Find plans"}
          </button>
        )}
        {steps.length > 0 && (
          <button
            data-do="cut"
            type="button"
            className="btn btn-ghost border-base-300 font-normal"
            onClick={() => go("section")}
          >
            <Play className="size-4" aria-hidden="true" /> Play over time
          </button>
        )}
        {steps.length > 0 && (
          <button
            data-do="amounts"
            type="button"
            className="btn btn-ghost border-base-300 font-normal"
            onClick={() => go("amounts")}
          >
            <Droplets className="size-4" aria-hidden="true" /> Colour and amounts
          </button>
        )}
        {steps.length > 0 && others && (
          <button
            data-do="copy"
            type="button"
            title="Copy to another zone"
            aria-label="Copy to another zone"
            className="btn btn-ghost border-base-300 font-normal"
            onClick={() => setCopying(true)}
          >
            <Copy className="size-4" aria-hidden="true" /> <span className="max-2xl:sr-only">Copy</span>
          </button>
        )}
        {!judged?.log && (
          <button
            data-do="like"
            type="button"
            title="Use the plan of a finished piece"
            aria-label={steps.length ? "Use the plan of a finished piece" : undefined}
            className="btn btn-ghost border-base-300 font-normal"
            onClick={() => setLike(true)}
          >
            <CopyCheck className="size-4" aria-hidden="true" /> {!steps.length && "Like a finished piece"}
          </button>
        )}
      </div>
      <Plan />
      <Suspense>
        {like && (
          <LikeSheet
            onClose={() => setLike(false)}
            onUse={(x) => {
              setLike(false);
              void setSteps(x.steps, () => say(`Planned like ${x.piece}. You can undo this.`));
            }}
          />
        )}
      </Suspense>
      {copying && (
        <CopyPlan
          piece={piece}
          from={zone}
          onClose={() => setCopying(false)}
          onCopy={(to) => {
            const given = (piece.zones ?? []).map((z) => (to.includes(z.id) ? { ...z, steps: zone.steps } : z));
            changePiece({ ...piece, zones: given });
            setCopying(false);
            say(`Copied to ${count(to.length, "zone", "zones")} and checked there.`);
          }}
        />
      )}
    </>
  );
}

function Below() {
  const { piece, zone, judged, toField } = useWorkspace();
  const [kept] = useKept();
  if (!zone.steps?.length || judged?.log) return null;
  return <Sensitivities piece={piece} zone={zone} weights={kept.weights} onField={toField} />;
}

export const plan: StageView = { id: "plan", name: "Plan", key: "3", Main, Below };
