import { ArrowDownToLine, Check, TriangleAlert } from "lucide-react";
import type { Identification, Schemas, Zone } from "../api/client";
import { Joint } from "../ui/Mark";

type Part = Schemas["Belief"];

const LEAST = 0.02; // probability that is worth a bar of its own
const WALKED = 6; // surfaces listed one by one
const SHOWN = 4; // probabilities in one question; the rest are summed up

type Props = {
  found: Identification;
  zone: Zone;
  onTake: () => void;
  onAnswer: (test: string) => void; // goes back to a test
};

/** Beliefs is the result of the answers, in words and bars, and what follows for the plan. */
export function Beliefs({ found, zone, onTake, onAnswer }: Props) {
  const t = found.take;
  const taken =
    t && zone.substrate === t.substrate && (zone.finish ?? "unknown") === t.finish && !!zone.veneer === !!t.veneer;
  return (
    <div aria-live="polite" data-made={found.made[0]?.id} data-on={found.on[0]?.id} data-taken={taken ? "" : undefined}>
      <h2 className="font-semibold text-lg leading-tight">What it probably is</h2>
      <p className="mt-1 mb-3" data-belief>
        {found.says}
      </p>
      {found.against.map((c) => (
        <div
          key={c.says}
          role="alert"
          data-against={c.tests.join(" ")}
          className="sheet mb-3 rounded-r bg-base-100 p-2.5"
        >
          <p className="flex gap-2">
            <TriangleAlert className="mt-0.5 size-5 shrink-0 text-warning" aria-hidden="true" />
            <span>
              <b className="font-semibold">Contradiction.</b> {c.says} Repeat one of these tests in another place.
            </span>
          </p>
          <p className="mt-1 flex flex-wrap gap-1.5">
            {c.tests.map((id) => (
              <button
                key={id}
                type="button"
                className="btn border-base-300 bg-base-100 font-normal"
                onClick={() => onAnswer(id)}
              >
                {found.answers.find((a) => a.test === id)?.name ?? id}
              </button>
            ))}
          </p>
        </div>
      ))}
      <Bars title="Material" parts={found.made} />
      <Bars title="Finish" parts={found.on} />
      {found.aside.map((a) => (
        <p key={a.test} className="mt-2 text-secondary text-sm">
          Not counted: {a.name} “{a.says}”. {a.why}
        </p>
      ))}
      {t &&
        (taken ? (
          <p className="mt-3 flex items-center gap-2 font-medium text-success">
            <Check className="size-5" aria-hidden="true" /> The survey agrees: {t.says} ({t.sure}).
          </p>
        ) : (
          <button
            data-do="take"
            type="button"
            className={`btn mt-3 h-auto min-h-12 w-full py-1.5 leading-tight ${found.done || t.sure === "tested" ? "btn-primary" : "border-base-300 bg-base-100 text-primary"}`}
            onClick={onTake}
          >
            <ArrowDownToLine className="size-5 shrink-0" aria-hidden="true" />
            <span>
              Enter in the survey: {t.says}, {t.sure} ({t.share})
            </span>
          </button>
        ))}
      {found.walked.length > 0 && (
        <section className="mt-4 border-base-300 border-t pt-2">
          <h3 className="font-semibold">
            {found.walked.some((w) => w.verdict) ? "The plan, for each possibility" : "The plan is checked for"}
          </h3>
          <ul className="mt-1 grid gap-1">
            {found.walked.slice(0, WALKED).map((w) => (
              <li key={w.name} className="flex items-center gap-2 leading-tight">
                {w.verdict ? <Joint verdict={w.verdict} /> : <span className="size-5 text-center">·</span>}
                <span className="flex-1">
                  {w.name}
                  {w.verdict && <span className="sr-only">: {w.verdict}</span>}
                </span>
                {w.share && <span className="text-secondary tabular-nums">{w.share}</span>}
              </li>
            ))}
          </ul>
          <Rest walked={found.walked.slice(WALKED)} />
        </section>
      )}
    </div>
  );
}

/** Rest sums up the less likely surfaces, with the worst verdict among them. */
function Rest({ walked }: { walked: Identification["walked"] }) {
  if (!walked.length) return null;
  const order = ["sound", "watch", "fails"] as const;
  const worst = order.findLast((v) => walked.some((w) => w.verdict === v));
  return (
    <p className="mt-1 flex items-center gap-2 text-secondary">
      {worst ? <Joint verdict={worst} /> : <span className="size-5" />}
      {walked.length} less likely{worst && `, at worst: ${worst}`}
    </p>
  );
}

function Bars({ title, parts }: { title: string; parts: Part[] }) {
  const few = parts.slice(0, SHOWN).filter((x, i) => i === 0 || x.p >= LEAST);
  const rest = parts.length - few.length;
  return (
    <section className="mb-3">
      <h3 className="font-medium text-secondary text-sm">{title}</h3>
      <ul>
        {few.map((x, i) => (
          <li key={x.id} className="mt-1">
            <span className="flex items-baseline gap-2 leading-tight">
              <span className={`flex-1 ${i === 0 ? "font-semibold" : ""}`}>{x.name}</span>
              <span className="whitespace-nowrap text-secondary text-sm">{x.words}</span>
              <span className="min-w-10 whitespace-nowrap text-right tabular-nums">{x.share}</span>
            </span>
            <span className="mt-0.5 block h-2 rounded-sm bg-base-300" aria-hidden="true">
              <span
                className={`block h-2 rounded-sm transition-[width] duration-300 ${i === 0 ? "bg-primary" : "bg-accent"}`}
                style={{ width: `${Math.max(1, x.p * 100)}%` }}
              />
            </span>
          </li>
        ))}
        {rest > 0 && (
          <li className="mt-1 text-secondary text-sm">
            {rest === 1 ? "One other is" : `${rest} others are`} less likely
          </li>
        )}
      </ul>
    </section>
  );
}
