import type { Verdict } from "../api/client";

const WORDS: Record<Verdict, string> = { sound: "Sound", watch: "Watch", fails: "Fails" };
const TONE: Record<Verdict, string> = { sound: "text-success", watch: "text-warning", fails: "text-error" };

/**
 * Joint draws two layers: flush where the plan is sound, lifted at one end for a watch, curled away where it fails.
 * The shape tells the verdict without its colour.
 */
export function Joint({ verdict, className = "size-5" }: { verdict: Verdict; className?: string }) {
  return (
    <svg viewBox="0 0 24 24" className={`${className} shrink-0`} aria-hidden="true">
      <JointSign verdict={verdict} />
    </svg>
  );
}

/** JointSign is the same sign inside a drawing, 24 wide and high. */
export function JointSign({ verdict }: { verdict: Verdict }) {
  const top = {
    sound: "M3 8h18v4H3z",
    watch: "M3 8h11l7-3 .8 3.4L14 12H3z",
    fails: "M3 8h6c5 0 9-2 10-6l3 1.2C20.5 9 15 12 9 12H3z",
  }[verdict];
  return (
    <g className={TONE[verdict]}>
      <path d={top} fill="currentColor" />
      <path d="M3 14h18v6H3z" fill="none" stroke="currentColor" strokeWidth="2" />
      {verdict === "sound" && <path d="M3 12.9h18" stroke="currentColor" strokeWidth="1.6" />}
    </g>
  );
}

/** Mark is a verdict as word and shape. */
export function Mark({ verdict }: { verdict: Verdict }) {
  return (
    <span className={`inline-flex items-center gap-1.5 font-semibold ${TONE[verdict]}`}>
      <Joint verdict={verdict} />
      {WORDS[verdict]}
    </span>
  );
}

export const toneOf = TONE;
