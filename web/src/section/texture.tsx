// Patterns that distinguish materials: the same on tiles, in the cross-section and on paper.

const MARKS: Record<string, { d: string; w?: number; o?: number; box?: [number, number] }> = {
  wood: { d: "M0 6c12-4 24 4 40 0M0 16c10 4 28-5 40 1M0 26c14-3 22 5 40-1M0 35c12 3 26-3 40 1" },
  open: {
    d: "M0 5c12-4 24 4 40 0M0 13c10 4 28-5 40 1M0 22c14-3 22 5 40-1M0 31c12 3 26-3 40 1M4 9h5M18 18h6M30 27h5M9 36h6M27 8h4M2 27h4",
  },
  knotty: {
    d: "M0 7c24-4 56 4 88-1M0 16c18 0 26-5 38-7 10-2 16 1 24 4 9 3 16 4 26 3M0 25c16 1 24 0 30-2M66 23c7 2 14 3 22 2M0 34c16 0 26 5 38 7 10 2 16-1 24-4 9-3 16-4 26-3M0 43c24 4 56-4 88 1M48 17c6 0 11 3 11 7s-5 7-11 7-11-3-11-7 5-7 11-7M48 21c3 0 5 1 5 3s-2 3-5 3-5-1-5-3 2-3 5-3",
    box: [88, 48],
  },
  board: { d: "M4 4l6 3M20 2l5 6M33 9l5-4M8 18l7-2M24 17l4 6M3 30l6 4M18 29l7-3M32 27l4 6" },
  cane: { d: "M0 10h40M0 30h40M10 0v40M30 0v40M0 0l40 40M40 0L0 40" },
  "laminate and vinyl": { d: "M0 10h40M0 20h40M0 30h40M0 40h40", o: 0.2 },
  "cloth and leather": {
    d: "M0 5q5-5 10 0t10 0 10 0 10 0M0 15q5-5 10 0t10 0 10 0 10 0M0 25q5-5 10 0t10 0 10 0 10 0M0 35q5-5 10 0t10 0 10 0 10 0",
  },
  metal: { d: "M0 40L40 0M-10 10L10-10M30 50L50 30M0 20L20 0M20 40L40 20" },
  glass: { d: "M4 36L20 4M14 38L30 6M34 30l4-8", o: 0.35 },
  mineral: { d: "M6 8h.1M20 5h.1M33 12h.1M12 20h.1M27 22h.1M5 31h.1M18 34h.1M35 33h.1", w: 4 },
  plastic: { d: "M8 8h8M28 16h8M4 28h8M22 34h8", o: 0.22 },
};

/** Texture is a material's pattern, which the server names; none once it is painted. */
export function Texture({ id, mark, size = 40 }: { id: string; mark: string; size?: number }) {
  const m = mark ? (MARKS[mark] ?? MARKS.wood) : undefined; // none on paint
  const [w, h] = m?.box ?? [40, 40];
  const k = size / 40;
  return (
    <pattern id={id} width={w * k} height={h * k} patternUnits="userSpaceOnUse" viewBox={`0 0 ${w} ${h}`}>
      <path
        d={m?.d}
        stroke="#2b2620"
        strokeOpacity={m?.o ?? 0.34}
        strokeWidth={m?.w ?? 1.3}
        strokeLinecap="round"
        fill="none"
      />
    </pattern>
  );
}

/** lightOn tells whether light letters are more readable on a colour than dark ones. */
export function lightOn(hex: string): boolean {
  const n = Number.parseInt(hex.slice(1), 16);
  const lin = (v: number) => (v <= 0.04045 ? v / 12.92 : ((v + 0.055) / 1.055) ** 2.4);
  const [r, g, b] = [n >> 16, (n >> 8) & 255, n & 255].map((v) => lin(v / 255));
  return 0.2126 * (r ?? 0) + 0.7152 * (g ?? 0) + 0.0722 * (b ?? 0) < 0.2;
}
