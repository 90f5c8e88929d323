type Props = { left: number; total: number; ends?: boolean; size: number };

/** Dial shows how far a clock has run: a ring that empties; what is over is a square, what may go on a full disc. */
export function Dial({ left, total, ends, size }: Props) {
  const share = Math.min(1, Math.max(0, left / Math.max(1, total)));
  const r = 15;
  const round = 2 * Math.PI * r;
  return (
    <svg viewBox="0 0 36 36" width={size} height={size} className="shrink-0" aria-hidden="true">
      {left > 0 ? (
        <>
          <circle cx="18" cy="18" r={r} fill="none" stroke="currentColor" strokeOpacity="0.25" strokeWidth="5" />
          <circle
            cx="18"
            cy="18"
            r={r}
            fill="none"
            stroke="currentColor"
            strokeWidth="5"
            strokeDasharray={`${share * round} ${round}`}
            transform="rotate(-90 18 18)"
          />
        </>
      ) : ends ? (
        <path d="M5 5h26v26H5Z M12 12l12 12M24 12L12 24" fill="none" stroke="currentColor" strokeWidth="4" />
      ) : (
        <>
          <circle cx="18" cy="18" r="16" fill="currentColor" />
          <path d="M10 18l6 6 10-12" fill="none" className="stroke-base-100" strokeWidth="4" />
        </>
      )}
    </svg>
  );
}
