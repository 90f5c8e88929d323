import { ArrowLeft, Paintbrush, Pencil, Plus, Square } from "lucide-react";
import { type MouseEvent, useState } from "react";
import { Link, useNavigate } from "react-router";
import type { Piece, Zone } from "../api/client";
import { useStudio } from "../api/studio";
import { useVocab } from "../api/vocab";
import { useKeys } from "../frame/keys";
import { Estimate } from "../piece/Estimate";
import type { FieldName } from "../piece/workspace";
import { focusOn, useName, useTakes } from "../ui/focus";
import { count } from "../ui/units";
import { OwnWay } from "./OwnWay";
import { Sensitivities } from "./Sensitivities";
import { type Kept, said, usePlans, type WayPlan } from "./useWays";
import { WayCard } from "./WayCard";
import { Weights } from "./Weights";

type Props = {
  piece: Piece;
  zone: Zone;
  kept: Kept;
  onKept: (k: Kept) => void;
  onTake: (p: WayPlan) => void;
  onBack: () => void;
  onField: (field: FieldName) => void;
};

/** WaysView compares two to five ways of working on one zone, and its current plan. */
export function WaysView({ piece, zone, kept: k, onKept: setK, onTake, onBack, onField }: Props) {
  const v = useVocab();
  const studio = useStudio();
  const [own, setOwn] = useState<string>(); // id of the studio's own way of working that is being edited, "" for a new one
  const mine = studio?.ways ?? [];
  const all = [...mine, ...v.ways.ways];
  const ways = k.ways.filter((id) => all.some((w) => w.id === id));
  const { plans, trouble, progress, stop } = usePlans(piece, zone, ways, said(k.weights));
  const [at, setAt] = useState(0); // the plan whose button has the focus, among those that can be used
  const cards = plans?.plans ?? [];
  const takes = cards.flatMap((p, i) => (p.own || p.stuck ? [] : [i + 1]));
  const go = (to: number) => {
    const n = Math.min(takes.length - 1, Math.max(0, to));
    if (takes[n] !== undefined) focusOn(`take ${takes[n]}`);
  };
  const chooser = useName<HTMLElement>("field way");
  const to = useNavigate();
  const kit = useName<HTMLAnchorElement>("field kit");
  useTakes("field shelf", () => setOwn(mine.some((m) => m.id === zone.way) ? (zone.way ?? "") : ""));
  useKeys("Compare plans", [
    { key: "t", says: "Go to the best plan", run: () => go(0) },
    { key: "ArrowRight", says: "Next plan", run: () => go(at + 1) },
    { key: "ArrowLeft", says: "Previous plan", run: () => go(at - 1) },
    { key: "k", says: "Kit and habits", run: () => void to("/kit") },
    { key: "Escape", says: "Back to the plan", run: onBack },
  ]);
  const toggle = (id: string) => {
    const next = ways.includes(id) ? ways.filter((w) => w !== id) : [...ways, id];
    if (next.length) setK({ ...k, ways: next });
  };
  // It is drawn once there is something to show, so that nothing moves.
  const searching = progress && progress.of > 0 && (
    // Over the page, so that nothing moves when it comes and goes.
    <p
      role="status"
      data-searching
      className="sheet fixed right-4 bottom-14 z-10 flex h-16 w-96 max-w-[calc(100vw-2rem)] items-center gap-3 rounded bg-base-100 px-3 shadow-lg"
    >
      <span className="w-64 flex-none leading-tight tabular-nums">
        Searching: {progress.done} of {count(progress.of, "way", "ways")} of working done.
      </span>
      <button data-do="stop-plan" type="button" className="btn px-3" onClick={stop}>
        <Square className="size-4" aria-hidden="true" /> Stop
      </button>
    </p>
  );
  if (!plans && !trouble) {
    return (
      <section aria-label="Compare plans" className="flex-1">
        {searching}
      </section>
    );
  }
  const edit = (e: MouseEvent<HTMLElement>, id: string) => {
    e.currentTarget.closest("details")?.removeAttribute("open");
    setOwn(id);
  };
  return (
    <section aria-label="Compare plans" className="min-h-0 flex-1 overflow-y-auto px-3 py-4 sm:px-5">
      <div className="mb-2 flex min-h-10 flex-wrap items-center gap-x-3">
        <button data-do="back" type="button" className="btn btn-ghost px-2" onClick={onBack}>
          <ArrowLeft className="size-5" aria-hidden="true" /> Back to the plan
        </button>
        <h2 className="font-semibold text-lg">Compare plans</h2>
        <span className="flex-1" />
        <Link ref={kit} data-do="to-kit" data-field="kit" to="/kit" className="btn btn-ghost px-2 font-normal">
          <Paintbrush className="size-5" aria-hidden="true" /> Kit and habits
        </Link>
        <details className="relative">
          <summary ref={chooser} data-field="way" className="btn btn-ghost border-base-300 font-normal">
            Selected: {ways.length} of {all.length} ways of working
          </summary>
          <div className="absolute right-0 z-10 max-h-[60vh] w-80 max-w-[90vw] overflow-y-auto rounded border border-base-300 bg-base-100 p-3 shadow-lg">
            <p className="mb-1 text-secondary text-sm">At most {v.ways.most} side by side.</p>
            {all.map((w) => (
              <div key={w.id} className="flex items-start gap-2">
                <label className="flex min-h-10 min-w-0 flex-1 cursor-pointer items-start gap-2 py-1" title={w.says}>
                  <input
                    type="checkbox"
                    data-choose={w.id}
                    className="checkbox checkbox-primary mt-0.5"
                    checked={ways.includes(w.id)}
                    disabled={!ways.includes(w.id) && ways.length >= v.ways.most}
                    onChange={() => toggle(w.id)}
                  />
                  <span className="min-w-0 leading-tight">
                    {w.name}
                    <span className="block text-secondary text-sm">{w.says}</span>
                  </span>
                </label>
                {mine.some((m) => m.id === w.id) && (
                  <button
                    data-change-way={w.id}
                    type="button"
                    className="btn btn-ghost btn-square"
                    aria-label={`Change ${w.name}`}
                    onClick={(e) => edit(e, w.id)}
                  >
                    <Pencil className="size-4" aria-hidden="true" />
                  </button>
                )}
              </div>
            ))}
            <button data-do="own-way" type="button" className="btn btn-ghost mt-1" onClick={(e) => edit(e, "")}>
              <Plus className="size-5" aria-hidden="true" /> New way of working
            </button>
          </div>
        </details>
      </div>
      {searching}
      <Weights weights={k.weights} onWeights={(weights) => setK({ ...k, weights })} />
      {trouble && (
        <p role="alert" className="mb-3 font-medium text-warning">
          {trouble} This may be older than your last change.
        </p>
      )}
      {plans && (
        <ol
          aria-label="Plans, the best first"
          className="grid grid-cols-[repeat(auto-fit,minmax(13.5rem,1fr))] items-stretch gap-3"
        >
          {cards.map((p, i) => (
            <WayCard
              key={p.own ? "own" : p.way}
              plan={p}
              rank={i + 1}
              best={i === 0 && !p.stuck}
              perM2={!!plans.per_m2}
              onTake={() => onTake(p)}
              onReach={() => setAt(takes.indexOf(i + 1))}
              onField={onField}
            />
          ))}
        </ol>
      )}
      {(zone.steps ?? []).length > 0 && (
        <Sensitivities piece={piece} zone={zone} weights={k.weights} onField={onField} />
      )}
      <Estimate
        more={`${plans?.per_m2 ? "The area is not known: hours and materials are for one square metre. " : ""}Materials are in your currency.`}
      />
      {own !== undefined && studio && (
        <OwnWay
          studio={studio}
          id={own}
          onClose={() => setOwn(undefined)}
          onSaved={(id) => {
            if (id && !ways.includes(id)) setK({ ...k, ways: [id, ...ways].slice(0, v.ways.most) });
            setOwn(undefined);
          }}
        />
      )}
    </section>
  );
}
