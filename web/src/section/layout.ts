import type { Schemas } from "../api/client";

// Geometry of the drawing only: layers, thicknesses and bonds come from the server.

type Section = Schemas["Section"];
export type Layer = Schemas["Layer"];
export type Holds = "well" | "barely" | "not" | "meant";

const SUBSTRATE = 74;
const LEAST = 17; // the thinnest coat that can still be clicked
const PER_MICRON = 0.34;
const MOST = 46;
const TOP = 12;
const FOOT = 2;
const SEEN = 0.5; // a stain fainter than this is drawn as ending in its layer
const STRETCH = 2.1;

export type Band = {
  key: string;
  l: Layer;
  planned: boolean; // a coat that is still to be laid, where others were
  top: number;
  bottom: number;
  x0: number;
  x1: number;
  shape: string;
  under: string; // backing where the layer is only on spots
  sheen: string;
  holds: Holds | undefined;
  gap: string; // where it lifts off what is below
  seam: string;
  dirt: { x: number; y: number; r: number }[];
  driven: string;
  scratches: string;
};

export type Stain = { key: string; d: string; colour: string; opacity: number };
export type Drawing = { height: number; bands: Band[]; stains: Stain[] };

const natural = (l: Layer) =>
  l.kind === "substrate" ? SUBSTRATE : l.spots ? LEAST : Math.min(MOST, LEAST + l.microns * PER_MICRON);

/**
 * layCut places the layers from the substrate up, in a cross-section of a width and about a height: it is stretched
 * to it as far as that looks good, and compressed only where it must fit. Stains are those of a moment of the
 * section's faces, otherwise the final ones.
 */
export function layCut(s: Section, width: number, wish: number, fit?: "must fit", moment?: number): Drawing {
  const sum = s.layers.reduce((h, l) => h + natural(l), 0);
  const k = Math.min(STRETCH, Math.max(fit ? 0.3 : 1, (wish - TOP - FOOT) / sum));
  const height = Math.round(sum * k + TOP + FOOT);
  let y = height - FOOT;
  const begun = s.layers.some((l) => l.done) || s.marks.some((m) => m.done);
  const bands = s.layers.map((l, i): Band => {
    const bottom = y;
    y = Math.round(y - natural(l) * k);
    const above = s.layers[i + 1];
    return { ...band(l, `${i}`, y, bottom, width, above), planned: begun && l.kind === "coat" && !l.done };
  });
  return { height, bands, stains: stains(s, bands, width, moment) };
}

function band(
  l: Layer,
  key: string,
  top: number,
  bottom: number,
  width: number,
  above: Layer | undefined,
): Omit<Band, "planned"> {
  const x0 = l.spots ? width * 0.34 : 0;
  const x1 = l.spots ? width * 0.64 : width;
  const holds = l.joint?.holds;
  const shape = l.spots
    ? `M${x0} ${bottom}C${x0 + 12} ${top} ${x1 - 12} ${top} ${x1} ${bottom}Z`
    : `M0 ${top}${edge(0, width, l)}V${bottom}H0Z`;
  return {
    key,
    l,
    top,
    bottom,
    x0,
    x1,
    shape,
    under: l.spots && above ? `M0 ${top}H${width}V${bottom}H0Z` : "",
    sheen: `M${x0 + 5} ${top + 3.5}H${x1 - 5}`,
    holds,
    gap: holds && holds !== "well" ? lift(x0, x1, bottom, holds) : "",
    seam: holds ? `M${x0} ${bottom}H${x1}` : "",
    dirt: (l.soils ?? []).flatMap((_, n) => dots(x0, x1, bottom, n)),
    driven: l.driven?.length ? streaks(x0, x1, bottom) : "",
    scratches: l.grit || l.padded ? scratched(l, width, top) : "",
  };
}

/** A coat's face is never quite level; a substrate's or an old film's is. */
function edge(x0: number, x1: number, l: Layer): string {
  if (l.kind !== "coat") return `H${x1}`;
  const n = 6;
  const w = (x1 - x0) / n;
  const seed = (l.step ?? 1) * 7 + (l.coat ?? 1) * 3;
  let d = "";
  for (let i = 0; i < n; i++) d += `q${w / 2} ${((seed + i * 5) % 3) - 1} ${w} 0`;
  return d;
}

/** The wedge of air where a layer comes off, from its right end inward; the same sign as the verdict's. */
function lift(x0: number, x1: number, y: number, holds: Holds): string {
  const [from, by] = holds === "not" ? [0.35, 9] : holds === "meant" ? [0.55, 5] : [0.68, 4];
  const start = x0 + (x1 - x0) * from;
  return `M${start} ${y}Q${(start + x1) / 2} ${y - 1} ${x1} ${y - by}V${y}Z`;
}

function dots(x0: number, x1: number, y: number, seed: number) {
  const out = [];
  for (let i = 0; i < 16; i++) {
    const f = ((i * 37 + seed * 11) % 100) / 100;
    out.push({ x: Math.round(x0 + 6 + f * (x1 - x0 - 12)), y: y - 1 + ((i * 7 + seed) % 3), r: 1.4 + (i % 3) * 0.5 });
  }
  return out;
}

function streaks(x0: number, x1: number, y: number): string {
  let d = "";
  for (let x = x0 + 9; x < x1 - 4; x += 13) d += `M${x} ${y}q1 4 ${((x * 7) % 5) - 2} ${5 + ((x * 3) % 4)}`;
  return d;
}

/** The scratches of the last grit on a face: the coarser, the deeper and wider apart. */
function scratched(l: Layer, width: number, y: number): string {
  const grit = l.grit || 800;
  const gap = Math.max(4, Math.min(16, 1600 / grit));
  const deep = Math.max(2, Math.min(8, 900 / grit));
  let d = "";
  for (let x = gap; x < width - 2; x += gap) d += `M${x.toFixed(1)} ${y + 0.5}l1.6 ${deep.toFixed(1)}`;
  return d;
}

/**
 * Stains creep up as stems, as thick in each layer as the share that gets there. They end at a blocking coat, and
 * spread where they reach the surface.
 */
function stains(s: Section, bands: Band[], width: number, moment: number | undefined): Stain[] {
  if (!s.source?.length) return [];
  const half = (deltaE: number) => Math.min(10, 3 * Math.sqrt(deltaE));
  const last = bands.length - 1;
  const side = width >= 150 ? 46 : 0; // the figures at both ends of a layer stay readable
  const stems = Math.max(3, Math.round((width - side) / 46));
  let entering = 0;
  return bands.flatMap(({ l, top: y, bottom }, i) => {
    if (l.kind !== "coat") return [];
    const h = bottom - y;
    const stain = (moment === undefined ? l.stain : l.stain_over?.[moment]) ?? 0;
    const from = half(entering || stain * 1.4);
    entering = stain;
    if (from < 1) return [];
    const faint = stain < SEEN;
    const to = faint ? 0.5 : half(stain);
    const end = faint ? y + h * 0.35 : y;
    let d = "";
    for (let k = 0; k < stems; k++) {
      const x = side + (width - 2 * side) * ((k + 0.5) / stems) + ((k * 29) % 9) - 4;
      const w = 0.75 + ((k * 13) % 5) / 10;
      const [a, b] = [from * w, to * w];
      if (i === last && !faint) {
        const spread = Math.min(20, b * 2.1);
        d += `M${x - a} ${bottom}C${x - a * 0.7} ${y + h * 0.4} ${x - b} ${y + h * 0.3} ${x - spread} ${y}H${x + spread}C${x + b} ${y + h * 0.3} ${x + a * 0.7} ${y + h * 0.4} ${x + a} ${bottom}Z`;
      } else {
        const bend = k % 2 ? 3 : -3;
        d += `M${x - a} ${bottom}Q${x - (a + b) / 2 + bend} ${(end + bottom) / 2} ${x - b} ${end}H${x + b}Q${x + (a + b) / 2 + bend} ${(end + bottom) / 2} ${x + a} ${bottom}Z`;
      }
    }
    return [{ key: `${i}`, d, colour: l.stain_colour ?? "#a6793f", opacity: 0.62 }];
  });
}

/**
 * faultsAt places findings in the cross-section: under the lowest coat of their step, or on the face it worked on.
 */
export function faultsAt(s: Section, d: Drawing, faults: Map<number, "watch" | "fails">) {
  const at = new Map<number, "watch" | "fails">();
  for (const [step, verdict] of faults) {
    const y = d.bands.find((b) => b.l.step === step)?.bottom ?? faceOf(s, d, step);
    if (y !== undefined && at.get(y) !== "fails") at.set(y, verdict);
  }
  return [...at].map(([y, verdict]) => ({ y, verdict }));
}

/** faceOf is where in the cross-section a step of the plan is: the middle of its coats, or the face it worked on. */
export function faceOf(s: Section, d: Drawing, step: number): number | undefined {
  const coats = d.bands.filter((b) => b.l.step === step);
  const [low, high] = [coats[0], coats.at(-1)];
  if (low && high) return (low.bottom + high.top) / 2;
  const mark = s.marks.find((m) => m.step === step);
  return mark && d.bands[mark.on]?.top;
}
