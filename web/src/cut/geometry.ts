import type { Drawing, Layer } from "../section/layout";

// Geometry of the large cross-section only: what shows, and when, comes from the server.

export const FACE = { up: 46, along: 34 }; // how the finished face leans back

export type Worn = { clip: string; strips: { key: number; d: string; colour: string }[]; edge: string };

/**
 * wornDown is the right end of a cross-section as it wears: a slope from the face down, deeper the more it is worn,
 * until the material is exposed; and on the face the strips of the layers that it cuts.
 */
export function wornDown(d: Drawing, width: number, wear: number): Worn | undefined {
  const top = d.bands.at(-1)?.top;
  const base = d.bands.find((b) => b.l.kind === "substrate");
  if (wear <= 0 || top === undefined || !base) return undefined;
  const deep = wear * (base.top + 12 - top);
  const from = width * (1 - 0.16 - 0.42 * wear);
  const x = (y: number) => Math.min(width, Math.max(from, from + ((y - top) / deep) * (width - from)));
  const y = (at: number) => top + ((at - from) / (width - from)) * deep;
  const strips = d.bands.flatMap((b, i) => {
    const [a, z] = [x(b.top), x(b.bottom)];
    if (z - a < 0.5) return [];
    const d = `M${a} ${y(a)}L${z} ${y(z)}L${z + FACE.along} ${y(z) - FACE.up}L${a + FACE.along} ${y(a) - FACE.up}Z`;
    return [{ key: i, d, colour: shown(b.l) }];
  });
  return {
    clip: `M-2 ${d.height}V${top - 3}H${from}L${from} ${top}L${width} ${top + deep}V${d.height}Z`,
    strips,
    edge: `M${from} ${top}L${width} ${top + deep}`,
  };
}

const shown = (l: Layer) => l.colour ?? "#e9e2d2";

/** faceOf is the finished face, leaning back from the upper edge of the cross-section to where wear begins. */
export function faceShape(d: Drawing, width: number, wear: number): string {
  const top = d.bands.at(-1)?.top ?? 0;
  const end = wear > 0 ? width * (1 - 0.16 - 0.42 * wear) : width;
  return `M0 ${top}H${end}L${end + FACE.along} ${top - FACE.up}H${FACE.along}Z`;
}

/** spotsOn are places on the face where a local stain shows, always the same. */
export function spotsOn(d: Drawing, width: number): { x: number; y: number; r: number }[] {
  const top = d.bands.at(-1)?.top ?? 0;
  return [0.16, 0.37, 0.52, 0.74].map((f, i) => {
    const back = [0.35, 0.7, 0.4, 0.6][i] ?? 0.5;
    return { x: f * width + back * FACE.along, y: top - back * FACE.up, r: 6 + (i % 3) * 2 };
  });
}

export type Gauge = { y: number; from: number; to: number; open: boolean; at: number; inside: boolean; l: Layer };

/** gaugesOf are the recoat windows, each on its own scale, in a column of a width. */
export function gaugesOf(d: Drawing, width: number): Gauge[] {
  return d.bands.flatMap(({ l, top }, i) => {
    if (l.from_h === undefined || l.waits_h === undefined || i === d.bands.length - 1) return [];
    const open = l.to_h === undefined;
    const most = Math.max(l.waits_h * 1.25, open ? l.from_h * 2.6 : (l.to_h ?? 0) * 1.12, 0.1);
    const x = (h: number) => Math.sqrt(h / most) * width; // long windows and short waits both stay readable
    return [
      { y: top, from: x(l.from_h), to: open ? width : x(l.to_h ?? 0), open, at: x(l.waits_h), inside: !!l.in_time, l },
    ];
  });
}
