import type { Piece } from "../api/client";

/** History is the undo and redo history: whole states of a piece, serialized. */
export type History = { past: string[]; future: string[]; last?: { leaf: string; at: number } };

export const NO_HISTORY: History = { past: [], future: [] };

const STEPS = 100;
const TYPING = 1500; // ms within which changes of one field are one change

export const same = (a: unknown, b: unknown) => a === b || JSON.stringify(a) === JSON.stringify(b);

// Lists whose emptiness means something.
const TELLING = ["soils", "bleeders", "faces"];

/**
 * written is a piece in a canonical form: the server leaves out what is empty, and has an order of its own. A 0 is
 * not empty: a wait of 0 h is not an open wait.
 */
export function written(piece: unknown): string {
  return JSON.stringify(piece, (key, v) => {
    if (v === "" || v === false) return undefined;
    if (Array.isArray(v)) return v.length || TELLING.includes(key) ? v : undefined;
    if (v === null || typeof v !== "object") return v;
    return Object.fromEntries(Object.entries(v).sort(([a], [b]) => (a < b ? -1 : 1)));
  });
}

/** leaf names the one place where two states differ; undefined if they differ in more, or in their shape. */
export function leaf(a: unknown, b: unknown, path = ""): string | undefined {
  if (typeof a !== "object" || typeof b !== "object" || a === null || b === null) return path;
  if (Array.isArray(a) && Array.isArray(b) && a.length !== b.length) return undefined;
  const [x, y] = [a as Record<string, unknown>, b as Record<string, unknown>];
  const differing = [...new Set([...Object.keys(x), ...Object.keys(y)])].filter((k) => !same(x[k], y[k]));
  const [k] = differing;
  if (differing.length !== 1 || k === undefined) return undefined;
  return leaf(x[k], y[k], `${path}.${k}`);
}

/** withChange records a change made at a moment, in ms; letters typed into one field are one change. */
export function withChange(h: History, before: Piece, next: Piece, now: number): History {
  const where = leaf(before, next);
  const typed =
    where &&
    /name|what|colour|area|hours|wait_h|grit|coats|temp_c|rh_pct|pct|made|_cm|_mm|_minor|count|seen|where|note|found|place|label|year|caption|\.x|\.y$/.test(
      where,
    );
  if (typed && h.last?.leaf === where && now - h.last.at < TYPING && h.past.length) {
    return { past: h.past, future: [], last: { leaf: where, at: now } };
  }
  return {
    past: [...h.past.slice(1 - STEPS), JSON.stringify(before)],
    future: [],
    last: where ? { leaf: where, at: now } : undefined,
  };
}

/** branched records another version of the piece, so that undo goes back to it. */
export function branched(h: History, other: Piece): History {
  return { past: [...h.past.slice(1 - STEPS), JSON.stringify(other)], future: [] };
}

export function stepBack(h: History, now: Piece) {
  const before = h.past.at(-1);
  if (before === undefined) return undefined;
  return {
    piece: JSON.parse(before) as Piece,
    history: { past: h.past.slice(0, -1), future: [JSON.stringify(now), ...h.future] },
  };
}

export function stepForth(h: History, now: Piece) {
  const [next, ...rest] = h.future;
  if (next === undefined) return undefined;
  return { piece: JSON.parse(next) as Piece, history: { past: [...h.past, JSON.stringify(now)], future: rest } };
}
