import type { ReactNode } from "react";

// Every icon shows the same block of material and what the step does to its face.
const BLOCK = "M3 16.5h18V21H3z";

const SIGNS: Record<string, ReactNode> = {
  clean: (
    <>
      <path d="M8.5 3.5c2 2.6 3 4.2 3 5.6a3 3 0 0 1-6 0c0-1.400 1-3 3-5.600Z" />
      <path d="M14 13.500c1.500-1.500 3 1 4.500 0s1.500-1 2.500-1M15.500 8.500h.01M18.500 5.500h.01" />
    </>
  ),
  abrade: (
    <path d="M4 6.500 16 4l1 4.500L5 11zM7 13.500l1.500 3M11 13l1.500 3.500M15 12.500l1.500 4M19 12l1.200 4.500" />
  ),
  dust: (
    <path d="M6 13.500h.01M10 11h.01M14 12.500h.01M8 7.500h.01M13 6.500h.01M18 10h.01M17 4.500h.01M4 4c4 2 7-1 10 1s5 0 6-1" />
  ),
  raise_grain: (
    <path d="M4 16.500c0-3 1-5 2-7M8 16.500c0-4 1-6 3-9M13 16.500c0-3 1-6 2-8M18 16.500c0-3 1-4 2-6M12 3.500h.01M6 5h.01M18 4.500h.01" />
  ),
  coat: (
    <>
      <path d="M3 12.500h11c3 0 4-1 7-1v5H3z" fill="currentColor" />
      <path d="M13 9.500 19.500 3l2 2L15 11.500" />
    </>
  ),
  wait: <path d="M7 3h10M7 14h10M8 3c0 4 3 4 3 5.500S8 10 8 14M16 3c0 4-3 4-3 5.500S16 10 16 14" />,
  strip: <path d="M3 13h7c4 0 7-1 7-5 0-3-4-3-4-.500 0 2 3 2 5 .500M3 10h5" />,
  fill: <path d="M3 16.500h5l2 3h4l2-3h5M7 12l8-8 3 3-7 6z" />,
  repair: <path d="M5 13c4-6 10-6 14 0M8 13v-3M12 13V9M16 13v-3" />,
  mask: <path d="M3 13.500h9V9H3zM15 13.500h6M15 9V4" strokeDasharray="2.500 1.500" />,
  remove: <path d="M7 12.500V7h10v5.500M12 10V3M9 5l3-3 3 3" />,
  reassemble: <path d="M7 12.500V7h10v5.500M12 2v7M9 6.500l3 3 3-3" />,
  effect: <path d="M4 12.500 8 5l3 6 4-8 2 7 4-4M5 8h.01M19 12.500h.01" />,
  test: <path d="M5 4h14v9H5zM9.500 4v9M14.500 4v9M5 8.500h14" />,
};

/** StepIcon is the icon of a kind of step. */
export function StepIcon({ kind, className = "size-6" }: { kind: string; className?: string }) {
  return (
    <svg
      viewBox="0 0 24 24"
      className={`${className} shrink-0`}
      fill="none"
      stroke="currentColor"
      strokeWidth="1.7"
      strokeLinecap="round"
      strokeLinejoin="round"
      aria-hidden="true"
    >
      <path d={BLOCK} fill="currentColor" fillOpacity="0.16" />
      {SIGNS[kind] ?? SIGNS.coat}
    </svg>
  );
}
