import { memo, type ReactNode, useState } from "react";
import type { ZoneResult } from "../api/client";
import { useName } from "../ui/focus";
import { Joint, toneOf } from "../ui/Mark";
import { small, unbroken, useUnits } from "../ui/units";
import { type Asked, FigureDetails } from "./FigureDetails";

type Props = {
  judged: ZoneResult;
  planned: boolean;
  trial?: string; // the previewed fix
  stale: boolean; // from before the last change
  said: string;
};

const WORD = { sound: "Sound", watch: "Watch", fails: "Fails" };

/** word is the verdict, or that nothing is planned yet. */
function word(z: ZoneResult) {
  return !z.adhesion && z.verdict === "watch" ? "Not planned yet" : WORD[z.verdict];
}

/** Verdict is the verdict in a sentence, with words for its figures. */
export const Verdict = memo(function Verdict({ judged, planned, trial, stale, said }: Props) {
  const a = judged.adhesion;
  const u = useUnits();
  const [asked, setAsked] = useState<Asked>();
  const name = useName<HTMLDivElement>("verdict");
  return (
    <section
      aria-label="Verdict"
      className={`flex flex-wrap items-center gap-x-6 gap-y-1 border-base-300 border-b px-3 py-2 sm:px-5 lg:min-h-16 ${trial ? "bg-base-200" : ""}`}
    >
      <div
        className="flex min-w-0 flex-1 basis-80 items-center gap-3 lg:basis-96"
        ref={name}
        role="status"
        data-verdict={judged.verdict}
        data-trial={trial ? "" : undefined}
        data-stale={stale ? "" : undefined}
      >
        <Joint verdict={judged.verdict} className="size-11" />
        <div className="min-w-0">
          <h2
            // While a fix is pointed at, nothing may move away from under the pointer.
            className={`font-semibold text-xl leading-tight ${trial ? "lg:truncate" : ""} ${toneOf[judged.verdict]}`}
          >
            {trial ? `${word(judged)} with this fix: ${trial[0]?.toLowerCase()}${trial.slice(1)}` : word(judged)}
          </h2>
          <p className="leading-tight lg:truncate" title={judged.says}>
            {unbroken(judged.says)}
          </p>
        </div>
      </div>
      <div className="flex min-w-0 max-w-full gap-x-5 gap-y-1 leading-tight max-lg:flex-wrap">
        {a && (
          <Figure of="Adhesion" onPress={() => setAsked("peeling")}>
            <b className="font-semibold">{a.holds}</b>
            {a.worst_words && <span className="block max-w-64 truncate text-sm">{a.worst_words}</span>}
          </Figure>
        )}
        {judged.chips && (
          <Figure of="Chipping" onPress={() => setAsked("chips")}>
            <b className="font-semibold">{judged.chips.words}</b> of it
          </Figure>
        )}
        {judged.crack_mm !== undefined && (
          <Figure of="Cracks" onPress={() => setAsked("cracks")}>
            about <b className="font-semibold">{small(judged.crack_mm, u)}</b> wide
          </Figure>
        )}
        {judged.bleed.length > 0 && (
          <Figure of="Stain" onPress={() => setAsked("stain")}>
            {stains(judged.bleed).map((b, i) => (
              <span key={b.id}>
                {i > 0 && ", "}
                <b className="font-semibold">{b.words}</b>
              </span>
            ))}
          </Figure>
        )}
        {planned && (
          <Figure of="Time" onPress={() => setAsked("time")}>
            {judged.hours.work && (
              <>
                <b className="font-semibold">{judged.hours.work}</b> of work,{" "}
              </>
            )}
            {judged.hours.takes} in all
          </Figure>
        )}
      </div>
      {asked && <FigureDetails judged={judged} of={asked} onClose={() => setAsked(undefined)} />}
      {stale && (
        <p role="alert" className="basis-full font-medium text-warning">
          This verdict is from before your last change. It is updated as soon as the server answers.
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

/** stains are the two worst visible stains that look different; if none is visible, the first. */
function stains(bleed: ZoneResult["bleed"]) {
  const seen = bleed.filter((b, i) => b.visible && bleed.findIndex((o) => o.words === b.words) === i);
  return seen.length ? seen.slice(0, 2) : bleed.slice(0, 1);
}

type FigureProps = { of: string; onPress: () => void; children: ReactNode };

/** Figure is one figure of the verdict in words; clicked, it opens the figures behind it. */
function Figure({ of, onPress, children }: FigureProps) {
  return (
    <button
      type="button"
      data-figure={of}
      className="min-h-11 min-w-0 rounded px-1.5 text-left leading-tight hover:bg-base-200"
      title="The figures"
      onClick={onPress}
    >
      <span className="block text-secondary text-sm">{of}</span>{" "}
      <span className="tabular-nums underline decoration-dotted underline-offset-2">{children}</span>
    </button>
  );
}
