import type { Piece } from "../api/client";
import { type History, written } from "./history";
import type { Draft } from "./session";
import type { Typed } from "./typed";

// What the browser stores: a draft for each tab and piece, the undo history, and sizes not read yet.

const DRAFT = "rutile.draft.";
const UNDO = "rutile.undo.";
const LETTERS = 1_200_000; // of a history, about

/** store is a browser's storage that may be full, or not there at all. */
function put(store: () => Storage, key: string, value: string | undefined): boolean {
  try {
    if (value === undefined) store().removeItem(key);
    else store().setItem(key, value);
    return true;
  } catch {
    return false;
  }
}

function get<T>(store: () => Storage, key: string): T | undefined {
  try {
    return (JSON.parse(store().getItem(key) ?? "null") as T | null) ?? undefined;
  } catch {
    return undefined;
  }
}

function keys(prefix: string): string[] {
  try {
    return Object.keys(localStorage).filter((k) => k.startsWith(prefix));
  } catch {
    return [];
  }
}

const local = () => localStorage;
const tabs = () => sessionStorage;

const TAB = "rutile.tab";
const lockOf = (tab: string) => `rutile.tab.${tab}`;
const HANDOVER = 400; // ms that a reloaded tab waits for its former self to release its name

/** hold locks a tab's name while the page lives; false if another tab has it. */
function hold(tab: string): Promise<boolean> {
  const locks = navigator.locks;
  if (!locks) return Promise.resolve(true);
  return new Promise((held) => {
    const stop = new AbortController();
    const late = setTimeout(() => stop.abort(), HANDOVER);
    locks
      .request(lockOf(tab), { signal: stop.signal }, () => {
        clearTimeout(late);
        held(true);
        return new Promise(() => {});
      })
      .catch(() => held(false));
  });
}

let named: Promise<string> | undefined;

/**
 * tabName is the name of this browser tab, which identifies its drafts. It survives a reload; a duplicated tab gets a
 * name of its own.
 */
export function tabName(): Promise<string> {
  named ??= (async () => {
    const before = get<string>(tabs, TAB);
    if (before && (await hold(before))) return before;
    const fresh = Math.random().toString(36).slice(2, 10);
    await hold(fresh);
    put(tabs, TAB, JSON.stringify(fresh));
    return fresh;
  })();
  return named;
}

// A piece of another data folder may have the same number: the time it was created distinguishes them.
const draftKey = (id: number, tab: string, created: string) => `${DRAFT}${id}.${tab}.${created}`;

/** keepDraft stores a tab's draft of a piece; false if this browser stores nothing. */
export function keepDraft(id: number, tab: string, draft: Draft): boolean {
  const [key, text] = [draftKey(id, tab, draft.created), JSON.stringify(draft)];
  if (put(local, key, text)) return true;
  // A full storage drops undo histories before it drops a draft.
  for (const k of keys(UNDO)) put(local, k, undefined);
  return put(local, key, text);
}

export function forgetDraft(id: number, tab: string, created: string) {
  put(local, draftKey(id, tab, created), undefined);
}

/** Left is a draft, with its key in the storage and its tab. */
export type Left = { key: string; id: number; tab: string; draft: Draft };

/** keptDrafts are the drafts of all tabs. */
export function keptDrafts(): Left[] {
  return keys(DRAFT).flatMap((key) => {
    const [id, tab] = key.slice(DRAFT.length).split(".");
    const draft = get<Draft>(local, key);
    return draft?.piece ? [{ key, id: Number(id), tab: tab ?? "", draft }] : [];
  });
}

/** forget deletes a draft, unless it has changed in the meantime. */
export function forget(l: Left) {
  if (JSON.stringify(get(local, l.key)) === JSON.stringify(l.draft)) put(local, l.key, undefined);
}

/**
 * alone does something with the drafts of a tab while nobody else can: of this tab, or of a closed one. It is not
 * done for a tab that is open.
 */
export async function alone<T>(tab: string, todo: () => T | Promise<T>): Promise<T | undefined> {
  if (tab === (await tabName()) || !navigator.locks) return todo();
  return navigator.locks.request(lockOf(tab), { ifAvailable: true }, (lock) => (lock ? todo() : undefined));
}

/**
 * adopted is the draft of a piece from this tab, or the newest one of a closed tab, which then becomes this tab's. If
 * created is given, a piece created at another time is another piece. free tells, at that moment, whether this tab
 * has no draft of its own; taken is called with it before anything else can happen.
 */
export async function adopted(
  id: number,
  created?: string,
  free: () => boolean = () => true,
  taken?: (d: Draft) => void,
): Promise<Draft | undefined> {
  const mine = await tabName();
  const all = leftOf(id, created);
  const own = all.find((l) => l.tab === mine);
  if (own) return own.draft;
  for (const l of all) {
    const got = await alone(l.tab, () => {
      const draft = get<Draft>(local, l.key);
      if (!draft || !free() || !keepDraft(id, mine, draft)) return undefined;
      put(local, l.key, undefined);
      taken?.(draft);
      return draft;
    });
    if (got) return got;
  }
  return undefined;
}

/** leftOf are the drafts of a piece, the newest first. */
export const leftOf = (id: number, created?: string): Left[] =>
  keptDrafts()
    .filter((l) => l.id === id && (created === undefined || l.draft.created === created))
    .sort((a, b) => b.draft.rev - a.draft.rev);

let waiting: (() => void) | undefined;

const undoKey = (id: number, tab: string) => `${UNDO}${id}.${tab}`;

/** keepHistory stores a tab's undo history a moment later: it must not delay the drawing. */
export function keepHistory(id: number, tab: string, h: History, now: Piece) {
  const first = waiting === undefined;
  waiting = () => {
    let past = h.past;
    let size = past.reduce((n, s) => n + s.length, 0);
    while (size > LETTERS && past.length > 1) {
      size -= past[0]?.length ?? 0;
      past = past.slice(1);
    }
    const kept = JSON.stringify({ head: written(now), past, future: h.future });
    // Without room for it, undo ends with a reload.
    if (!put(local, undoKey(id, tab), kept)) put(local, undoKey(id, tab), undefined);
  };
  if (first) setTimeout(flush, 250);
}

function flush() {
  const write = waiting;
  waiting = undefined;
  write?.();
}

if (typeof window !== "undefined") window.addEventListener("pagehide", flush);

/**
 * keptHistory is the undo history of a piece: this tab's, or that of a closed one, which is then deleted. There is
 * none if another version of the piece was changed since.
 */
export async function keptHistory(id: number, now: Piece): Promise<History | undefined> {
  const mine = await tabName();
  const head = written(now);
  const tabOf = (key: string) => key.slice(`${UNDO}${id}.`.length);
  const all = keys(`${UNDO}${id}.`).sort((a, b) => Number(tabOf(b) === mine) - Number(tabOf(a) === mine));
  let found: History | undefined;
  for (const key of all) {
    const take = () => {
      const kept = get<History & { head: string }>(local, key);
      if (kept?.head === head) found ??= { past: kept.past, future: kept.future };
      if (tabOf(key) !== mine) put(local, key, undefined);
    };
    await alone(tabOf(key), take);
  }
  return found;
}

const typedKey = (id: number) => `rutile.asked.${id}`;

/** keepTyped stores sizes that are not read yet, in this tab. */
export function keepTyped(id: number, created: string, all: Typed[]) {
  put(tabs, typedKey(id), all.length ? JSON.stringify({ created, all }) : undefined);
}

export function keptTyped(id: number, created: string): Typed[] {
  const kept = get<{ created: string; all: Typed[] }>(tabs, typedKey(id));
  return kept?.created === created ? kept.all : [];
}
