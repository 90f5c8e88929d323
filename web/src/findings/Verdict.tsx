import { memo } from "react";
import type { ZoneResult } from "../api/client";
import { hours } from "../piece/vocab";
import { Joint, toneOf } from "../ui/Mark";

type Props = {
  judged: ZoneResult;
  planned: boolean;
  trial?: string; // the repair that is looked at
  stale: boolean; // judged before the last change
  said: string;
};

const WORD = { sound: "Sound", watch: "Watch", fails: "Fails" };

/** word is the verdict's, or that there is nothing to judge yet. */
function word(z: ZoneResult) {
  return !z.adhesion && z.verdict === "watch" ? "Not planned yet" : WORD[z.verdict];
}

/** Verdict is the answer in a sentence, with its figures after it. */
export const Verdict = memo(function Verdict({ judged, planned, trial, stale, said }: Props) {
  const a = judged.adhesion;
  return (
    <section
      aria-label="Will it hold"
      className={`flex flex-wrap items-center gap-x-6 gap-y-1 border-base-300 border-b px-3 py-2 sm:px-5 lg:min-h-16 ${trial ? "bg-base-200" : ""}`}
    >
      <div
        className="flex min-w-0 flex-1 basis-80 items-center gap-3 lg:basis-96"
        role="status"
        data-verdict={judged.verdict}
        data-trial={trial ? "" : undefined}
      >
        <Joint verdict={judged.verdict} className="size-11" />
        <div className="min-w-0">
          <h2
            // While a repair is pointed at, nothing may move away from under the pointer.
            className={`font-semibold text-xl leading-tight ${trial ? "lg:truncate" : ""} ${toneOf[judged.verdict]}`}
          >
            {trial ? `If you ${trial[0]?.toLowerCase()}${trial.slice(1)}: ${word(judged).toLowerCase()}` : word(judged)}
          </h2>
          <p className="leading-tight lg:truncate" title={judged.says}>
            {judged.says}
          </p>
        </div>
      </div>
      <dl className="flex min-w-0 max-w-full gap-x-6 gap-y-1 leading-tight max-lg:flex-wrap">
        {a && (
          <div>
            <dt className="text-secondary text-sm">Risk of peeling</dt>
            <dd className="font-semibold tabular-nums">{a.risk_words}</dd>
          </div>
        )}
        {judged.bleed.length > 0 && (
          <div className="min-w-0" title="The eye sees 1, anyone sees 3 (ΔE)">
            <dt className="text-secondary text-sm">Stain to come</dt>
            <dd>
              {judged.bleed.slice(0, 2).map((b) => (
                <span key={b.id} className="mr-3 inline-block">
                  {b.name} <b className="font-semibold tabular-nums">{b.delta_e.toFixed(1)} ΔE</b>
                </span>
              ))}
            </dd>
          </div>
        )}
        {planned && (
          <div>
            <dt className="text-secondary text-sm">Time</dt>
            <dd className="tabular-nums">
              {typeof judged.hours.hands_on === "number" && (
                <>
                  <b className="font-semibold">{hours(judged.hours.hands_on)}</b> of work,{" "}
                </>
              )}
              {hours(judged.hours.elapsed)} in all
            </dd>
          </div>
        )}
      </dl>
      {stale && (
        <p role="alert" className="basis-full font-medium text-warning">
          This was judged before your last change. It is judged again as soon as the server answers.
        </p>
      )}
      {said && !trial && (
        <p role="status" className="basis-full text-secondary text-sm">
          {said}
        </p>
      )}
    </section>
  );
});
