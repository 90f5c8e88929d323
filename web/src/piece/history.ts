import type { Piece } from "../api/client";

/**
 * History is what undo goes back to and redo forth to: whole states of a piece, written out. It is kept in the browser
 * beside the state it belongs to, so that it outlives a reload and is dropped where another tab has gone on.
 */
export type History = { past: string[]; future: string[]; last?: { leaf: string; at: number } };

export const NO_HISTORY: History = { past: [], future: [] };

const STEPS = 100;
const LETTERS = 1_200_000; // kept in the browser, about
const TYPING = 1500; // ms within which changes of one field are one change

const key = (id: number) => `rutile.undo.${id}`;

export const same = (a: unknown, b: unknown) => a === b || JSON.stringify(a) === JSON.stringify(b);

// Lists that say something by being empty.
const TELLING = ["soils", "bleeders", "faces"];

/**
 * written is a piece in the one way that does not depend on who wrote it: the server leaves out what is empty, and has
 * an order of its own.
 */
export function written(piece: unknown): string {
  return JSON.stringify(piece, (key, v) => {
    if (v === "" || v === false || v === 0) return undefined;
    if (Array.isArray(v)) return v.length || TELLING.includes(key) ? v : undefined;
    if (v === null || typeof v !== "object") return v;
    return Object.fromEntries(Object.entries(v).sort(([a], [b]) => (a < b ? -1 : 1)));
  });
}

/** leaf names the one place where two states differ; undefined where they differ in more, or in their shape. */
export function leaf(a: unknown, b: unknown, path = ""): string | undefined {
  if (typeof a !== "object" || typeof b !== "object" || a === null || b === null) return path;
  if (Array.isArray(a) && Array.isArray(b) && a.length !== b.length) return undefined;
  const [x, y] = [a as Record<string, unknown>, b as Record<string, unknown>];
  const differing = [...new Set([...Object.keys(x), ...Object.keys(y)])].filter((k) => !same(x[k], y[k]));
  const [k] = differing;
  if (differing.length !== 1 || k === undefined) return undefined;
  return leaf(x[k], y[k], `${path}.${k}`);
}

/** withChange remembers a change; the letters typed into one field are one. */
export function withChange(h: History, before: Piece, next: Piece, now = Date.now()): History {
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

let waiting: (() => void) | undefined;

/** writeHistory keeps a history in the browser, a moment later: it must not hold up the drawing. */
export function writeHistory(id: number, h: History, now: Piece) {
  const first = waiting === undefined;
  waiting = () => {
    let past = h.past;
    let size = past.reduce((n, s) => n + s.length, 0);
    while (size > LETTERS && past.length > 1) {
      size -= past[0]?.length ?? 0;
      past = past.slice(1);
    }
    try {
      localStorage.setItem(key(id), JSON.stringify({ head: written(now), past, future: h.future }));
    } catch {
      try {
        localStorage.removeItem(key(id));
      } catch {
        // Without storage, undo ends with a reload.
      }
    }
  };
  if (first) setTimeout(flush, 250);
}

function flush() {
  const write = waiting;
  waiting = undefined;
  write?.();
}

if (typeof window !== "undefined") window.addEventListener("pagehide", flush);

export function readHistory(id: number, now: Piece | undefined): History {
  try {
    const kept = JSON.parse(localStorage.getItem(key(id)) ?? "null") as (History & { head: string }) | null;
    if (kept && now && kept.head === written(now)) return { past: kept.past, future: kept.future };
  } catch {
    // A history that cannot be read is none.
  }
  return NO_HISTORY;
}
