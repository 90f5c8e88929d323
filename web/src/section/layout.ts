import type { Schemas } from "../api/client";

// Geometry of the drawing only: what lies on what, how thick and how well it holds is the server's to say.

export const WIDTH = 460;
const CUT = 216; // width of the cut; labels stand to its right
const LABEL_X = 240;
const LABEL_STEP = 34;
const SUBSTRATE = 76;
const MIN = 20;
const PER_MICRON = 0.38;
const MAX = 48;
const TOP = 10;
const SEEN = 0.5; // a stain fainter than this is drawn as ending in its layer

export type LaidOut = {
  key: string;
  step: number;
  shape: string;
  sheen: string;
  fill: string;
  clear: boolean;
  texture: boolean;
  label: string;
  note: string;
  labelX: number;
  labelY: number;
  leader: string;
  seam: string;
  holds: "well" | "barely" | "not";
  dirt: { x: number; y: number; r: number }[];
};

type Layer = Schemas["Layer"];

const thickness = (l: Layer) => (l.kind === "substrate" ? SUBSTRATE : Math.min(MAX, MIN + l.microns * PER_MICRON));

/** layout places the layers from the substrate up, and their labels beside them without overlap. */
export function layout(s: Schemas["Section"]) {
  const total = s.layers.reduce((h, l) => h + thickness(l), 0);
  const height = Math.max(total, s.layers.length * LABEL_STEP) + TOP * 2;
  let y = height - TOP;
  const placed = s.layers.map((l) => {
    const h = thickness(l);
    y -= h;
    return { l, y, h };
  });
  // Labels from the bottom up, each at least a step above the one below.
  let floor = height - 8;
  const labels = placed.map(({ y: top, h }) => {
    const at = Math.min(top + h / 2 + 2, floor - 16);
    floor = at - LABEL_STEP + 16;
    return at;
  });
  // And down again where they have run out at the top.
  let ceiling = 13;
  for (let i = labels.length - 1; i >= 0; i--) {
    labels[i] = Math.max(labels[i] ?? 0, ceiling);
    ceiling = (labels[i] ?? 0) + LABEL_STEP;
  }
  const layers = placed.map(({ l, y: top, h }, i): LaidOut => {
    const lifted = l.joint?.holds === "not" ? 5 : 0;
    const x0 = l.spots ? CUT * 0.32 : 0;
    const x1 = l.spots ? CUT * 0.62 : CUT;
    const mid = top + h / 2;
    const at = labels[i] ?? mid;
    return {
      key: `${i}`,
      step: l.step ?? 0,
      shape: `M${x0} ${top}H${x1}V${top + h}H${x0}Z`,
      sheen: `M${x0 + 4} ${top + 3}H${x1 - 4}`,
      fill: l.colour ?? (l.clear ? "#efe6cf" : "#f3f1ea"),
      clear: !!l.clear,
      texture: l.kind === "substrate",
      label: l.coat && l.coat > 1 ? `${l.name}, coat ${l.coat}` : l.name,
      note: note(l),
      labelX: LABEL_X,
      labelY: at,
      leader: `M${x1} ${mid}L${LABEL_X - 6} ${at - 4}`,
      seam: l.joint ? wave(x0, x1, top + h, lifted) : "",
      holds: l.joint?.holds ?? "well",
      dirt: (l.soils ?? []).flatMap((_, n) => dots(x0, x1, top + h, n)),
    };
  });
  return { height, layers, stains: stains(s, placed), scratches: scratches(s, placed) };
}

function note(l: Layer): string {
  const out: string[] = [];
  if (l.microns > 0 && l.kind === "coat") out.push(`${l.microns} µm`);
  if (l.joint) {
    out.push(
      l.joint.holds === "well"
        ? `bond ${l.joint.strength.toFixed(2)}`
        : `bond ${l.joint.strength.toFixed(2)}, ${l.joint.holds === "not" ? "will let go" : "barely holds"}`,
    );
  }
  if (l.soils) out.push(`over ${l.soils.join(", ")}`);
  if (l.spots) out.push("spots only");
  if (l.kind === "finish") out.push("what is on it now");
  return out.join(" · ");
}

function wave(x0: number, x1: number, y: number, lift: number): string {
  if (!lift) return `M${x0} ${y}H${x1}`;
  const n = 6;
  const w = (x1 - x0) / n;
  let d = `M${x0} ${y}`;
  for (let i = 0; i < n; i++) d += `q${w / 2} ${i % 2 ? lift : -lift} ${w} 0`;
  return d;
}

function dots(x0: number, x1: number, y: number, seed: number) {
  const out = [];
  for (let i = 0; i < 14; i++) {
    const f = ((i * 37 + seed * 11) % 100) / 100;
    out.push({ x: Math.round(x0 + 6 + f * (x1 - x0 - 12)), y: y - 1 + ((i * 7 + seed) % 3), r: 1.4 + (i % 3) * 0.5 });
  }
  return out;
}

type Placed = { l: Layer; y: number; h: number }[];

/**
 * Stains creep up as stems, as thick in each layer as what gets that far. They end where a blocker stops them, and
 * spread where they reach the surface.
 */
function stains(s: Schemas["Section"], placed: Placed) {
  if (!s.source?.length) return [];
  const half = (deltaE: number) => Math.min(10, 3 * Math.sqrt(deltaE));
  const top = placed.length - 1;
  let entering = 0;
  return placed.flatMap(({ l, y, h }, i) => {
    if (l.kind !== "coat") return [];
    const stain = l.stain ?? 0;
    const from = half(entering || stain * 1.4);
    entering = stain;
    if (from < 1) return [];
    const faint = stain < SEEN;
    const to = faint ? 0.5 : half(stain);
    const end = faint ? y + h * 0.35 : y;
    let d = "";
    for (let k = 0; k < 5; k++) {
      const x = 24 + k * 42 + ((k * 29) % 11);
      const w = 0.75 + ((k * 13) % 5) / 10;
      const [a, b] = [from * w, to * w];
      if (i === top && !faint) {
        const spread = Math.min(20, b * 2.1);
        d += `M${x - a} ${y + h}C${x - a * 0.7} ${y + h * 0.4} ${x - b} ${y + h * 0.3} ${x - spread} ${y}H${x + spread}C${x + b} ${y + h * 0.3} ${x + a * 0.7} ${y + h * 0.4} ${x + a} ${y + h}Z`;
      } else {
        const bend = k % 2 ? 3 : -3;
        d += `M${x - a} ${y + h}Q${x - (a + b) / 2 + bend} ${(end + y + h) / 2} ${x - b} ${end}H${x + b}Q${x + (a + b) / 2 + bend} ${(end + y + h) / 2} ${x + a} ${y + h}Z`;
      }
    }
    return [{ key: `${i}`, d, colour: l.stain_colour ?? "#a6793f", opacity: 0.6 }];
  });
}

/** The scratches of the last grit before the first coat: the coarser, the deeper and wider apart. */
function scratches(s: Schemas["Section"], placed: Placed): string[] {
  if (!s.grit) return [];
  const below = placed.filter(({ l }) => l.kind !== "coat").at(-1);
  if (!below) return [];
  const gap = Math.max(5, Math.min(16, 1600 / s.grit));
  const deep = Math.max(2, Math.min(7, 700 / s.grit));
  let d = "";
  for (let x = gap; x < CUT - 2; x += gap) d += `M${x.toFixed(1)} ${below.y + 0.5}l2 ${deep.toFixed(1)}`;
  return [d];
}
