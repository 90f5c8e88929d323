import { Check } from "lucide-react";
import type { ReactNode } from "react";
import type { FieldName } from "../piece/workspace";
import { Cut } from "../section/Cut";
import { layCut } from "../section/layout";
import { useName } from "../ui/focus";
import { Joint, toneOf } from "../ui/Mark";
import { FieldLink } from "./FieldLink";
import type { WayPlan } from "./useWays";

const WIDE = 168;
const HIGH = 180;
const WORD = { sound: "Sound", watch: "Watch", fails: "Fails" };

type Props = {
  plan: WayPlan;
  rank: number; // from 1
  best: boolean;
  perM2: boolean;
  onTake: () => void;
  onReach: () => void; // its button got the focus
  onField: (field: FieldName) => void;
};

/** WayCard is the best plan of one way of working: its cross-section, figures and steps; or why there is none. */
export function WayCard({ plan: p, rank, best, perM2, onTake, onReach, onField }: Props) {
  const take = useName<HTMLButtonElement>(`take ${rank}`);
  const verdict = p.verdict ?? "fails";
  return (
    <li
      data-way={p.own ? "own" : p.way}
      className={`flex min-w-0 flex-col rounded border p-3 ${best ? "border-2 border-primary" : "border-base-300"} ${p.own ? "wash" : ""}`}
    >
      <h3 className="font-semibold leading-tight">
        <span className="tabular-nums">{rank}.</span> {p.name}
      </h3>
      <p className="min-h-5 text-secondary text-sm leading-tight" data-differs>
        {best ? "Best, with the weights above" : among(p)}
      </p>
      {p.stuck && p.same ? (
        <p className="mt-1 flex items-center gap-1.5 font-semibold text-error text-sm" data-stuck>
          <Joint verdict="fails" /> No plan passes
        </p>
      ) : p.stuck ? (
        <Stuck plan={p} onField={onField} />
      ) : (
        <>
          {p.front && (
            <p className="mt-1 font-semibold text-warning leading-tight" data-front>
              {p.front}
            </p>
          )}
          <div className="mt-1 flex min-h-12 items-center justify-between gap-2">
            <p className={`flex items-center gap-1.5 font-semibold ${toneOf[verdict]}`}>
              <Joint verdict={verdict} /> {WORD[verdict]}
            </p>
            {!p.own && (
              <button
                ref={take}
                type="button"
                data-take={rank}
                onFocus={onReach}
                className={`btn px-3 ${best ? "btn-primary" : "border-primary bg-base-100 text-primary"}`}
                onClick={onTake}
              >
                <Check className="size-5" aria-hidden="true" /> Use this plan
                <span className="sr-only">: {p.name}</span>
              </button>
            )}
          </div>
          {p.section && (
            <div className="my-2 flex justify-center">
              <Cut section={p.section} drawing={layCut(p.section, WIDE, HIGH, "must fit")} width={WIDE} />
            </div>
          )}
          {p.buy_words && (
            <p className="mb-1 rounded bg-base-200 px-2 py-1 text-sm leading-tight" data-buys>
              <b className="font-semibold">{p.buy_words[0]?.toUpperCase() + p.buy_words.slice(1)}.</b> {p.gain}
            </p>
          )}
          <p className="mb-1 text-sm leading-tight">
            {p.ground && p.ground[0]?.toUpperCase() + p.ground.slice(1)}, then {p.finish}.
          </p>
          {p.shelf && (
            <p className="mb-1 text-secondary text-sm leading-tight" data-shelf>
              {p.shelf}
            </p>
          )}
          {!p.own && !p.proved && (
            <p className="mb-1 text-sm text-warning leading-tight" data-unproved>
              The search was stopped early: there may be a better plan.
            </p>
          )}
          {p.note && <p className="mb-1 text-secondary text-sm leading-tight">{p.note}</p>}
          <dl className="grid grid-cols-[auto_1fr] gap-x-2 text-sm leading-snug">
            <Figure of="Adhesion">{p.holds}</Figure>
            {p.chips && <Figure of="Flakes off">{p.chips} of it</Figure>}
            <Figure of="Stain">{p.stain?.words ?? "nothing bleeds"}</Figure>
            <Figure of="Time">{p.takes}</Figure>
            <Figure of="Work">{p.work}</Figure>
            <Figure of="Materials">
              about {p.cost.toFixed(0)} in your currency{perM2 && " per m²"}
            </Figure>
            <Figure of="Smell">{p.smell}</Figure>
          </dl>
          {(p.watches ?? []).map((w) => (
            <p key={w} className="mt-1 text-sm text-warning leading-tight">
              {w}
            </p>
          ))}
          {(p.leaves ?? []).map((w) => (
            <p key={w} className="mt-1 text-sm leading-tight" data-leaves>
              {w}
            </p>
          ))}
          {p.refit && <p className="mt-1 text-secondary text-sm leading-tight">{p.refit}</p>}
          <details className="mt-2 text-sm">
            <summary data-do="its-steps" className="min-h-8 py-1 font-medium">
              Steps
            </summary>
            <ol className="list-decimal pl-5">
              {(p.words ?? []).map((w, i) => (
                // biome-ignore lint/suspicious/noArrayIndexKey: steps have no other name, and the list is drawn anew
                <li key={i}>{w}</li>
              ))}
            </ol>
          </details>
          <details className="text-sm">
            <summary data-do="rests-on" className="min-h-8 py-1 font-medium">
              What it depends on
            </summary>
            <ul className="list-disc pl-5">
              {(p.depends ?? []).map((d) => (
                <li key={d}>{d}</li>
              ))}
            </ul>
            <p className="mt-1 text-secondary">
              Risk of peeling: {p.risk?.words}. {p.against && `${p.against} `}
              {(p.terms ?? []).map((t) => `${t.name} ${t.points.toFixed(0)} (${t.amount})`).join(", ")}: {p.points}{" "}
              points.
            </p>
          </details>
        </>
      )}
    </li>
  );
}

/** among says how a plan that is not the best compares. */
function among(p: WayPlan): string {
  if (p.same) return p.stuck ? `For the same reasons as “${p.same}”` : `The same as “${p.same}”`;
  if (p.stuck) return "";
  return p.differs ?? (p.own ? "Already in this zone" : "");
}

function Figure({ of, children }: { of: string; children: ReactNode }) {
  return (
    <>
      <dt className="text-secondary">{of}</dt>
      <dd className="tabular-nums">{children}</dd>
    </>
  );
}

/** Stuck says why there is no plan, and what would make one possible. */
export function Stuck({ plan, onField }: { plan: Pick<WayPlan, "stuck">; onField: (field: FieldName) => void }) {
  const s = plan.stuck;
  if (!s) return null;
  return (
    <div className="text-sm" data-stuck>
      <p className="mt-1 flex items-center gap-1.5 font-semibold text-error">
        <Joint verdict="fails" /> {s.stopped ? "Stopped" : "No plan passes"}
      </p>
      <ul className="mt-1 flex flex-col gap-1">
        {s.why.map((o) => (
          <li key={o.code ?? o.title}>
            <b className="font-semibold">{o.title}.</b> {o.why}
          </li>
        ))}
      </ul>
      {s.opens.length > 0 && (
        <>
          <p className="mt-2 font-medium">What would make a plan possible</p>
          <ul className="flex flex-col items-start gap-1">
            {s.opens.map((o) => (
              <li key={o.says} className="max-w-full">
                <FieldLink field={o.field} says={o.says} onPress={() => onField(o.field)} />
              </li>
            ))}
          </ul>
        </>
      )}
    </div>
  );
}
