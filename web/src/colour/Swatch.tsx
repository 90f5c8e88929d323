/** Swatch is a patch of a colour; what it is called stands beside it. */
export function Swatch({ colour, size = 44, title }: { colour: string | undefined; size?: number; title?: string }) {
  return (
    <span
      className="inline-block shrink-0 rounded-sm border border-base-content/40 [print-color-adjust:exact]"
      style={{ background: colour ?? "transparent", width: size, height: size }}
      data-swatch={colour}
      title={title}
      aria-hidden="true"
    />
  );
}

/** Beside shows two colours edge to edge, as one would hold two boards together. */
export function Beside({
  left,
  right,
  height = 72,
}: {
  left: string | undefined;
  right: string | undefined;
  height?: number;
}) {
  return (
    <span
      className="flex w-full overflow-hidden rounded-sm border border-base-content/40"
      style={{ height }}
      aria-hidden="true"
    >
      <span className="flex-1" style={{ background: left }} />
      <span className="flex-1" style={{ background: right }} />
    </span>
  );
}
