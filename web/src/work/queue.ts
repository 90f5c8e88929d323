import { answer, api, Refused, type Schemas } from "../api/client";

// What was logged and not yet acknowledged by the server. It stays in the browser until it is: a tap is never lost.

export type Entry = Schemas["Entry"];
export type Waiting = { piece: number; entry: Entry; refused?: string };

/** LOG_KEY is where the browser keeps it. */
export const LOG_KEY = "rutile.log";
let memory: Waiting[] | undefined; // where the browser keeps nothing
const heard = new Set<() => void>();
let shown: Waiting[] = read();

function read(): Waiting[] {
  if (memory) return memory;
  try {
    const all: unknown = JSON.parse(localStorage.getItem(LOG_KEY) ?? "[]");
    return Array.isArray(all) ? (all as Waiting[]).filter((w) => w?.entry?.id && w.piece) : [];
  } catch {
    return [];
  }
}

function write(all: Waiting[]) {
  try {
    localStorage.setItem(LOG_KEY, JSON.stringify(all));
    memory = undefined;
  } catch {
    memory = all;
  }
  shown = all;
  for (const f of heard) f();
}

addEventListener("storage", (e) => {
  if (e.key !== LOG_KEY) return;
  shown = read();
  for (const f of heard) f();
});

export const subscribe = (f: () => void) => {
  heard.add(f);
  return () => heard.delete(f);
};
export const waiting = () => shown;

/** put keeps entries until they are acknowledged. */
export function put(piece: number, entries: Entry[]) {
  write([...read(), ...entries.map((entry) => ({ piece, entry }))]);
}

/** drop forgets entries, by their ids: the server has them, or the painter gives them up. */
export function drop(ids: string[]) {
  write(read().filter((w) => !ids.includes(w.entry.id)));
}

const MOST = 200; // entries in one request

/**
 * send sends what waits, piece by piece, and returns the last answer. What the server refuses stays, marked with the
 * reason; without a server it throws, and everything stays.
 */
export async function send(): Promise<Schemas["Logged"] | undefined> {
  let last: Schemas["Logged"] | undefined;
  for (const piece of new Set(read().map((w) => w.piece))) {
    const those = () => read().filter((w) => w.piece === piece && !w.refused);
    while (those().length) {
      const entries = those()
        .slice(0, MOST)
        .map((w) => w.entry);
      try {
        last = await post(piece, entries);
        drop(entries.map((e) => e.id));
      } catch (e) {
        if (!(e instanceof Refused) || e.status >= 500) throw e;
        if (entries.length === 1) refuse(entries, e.message);
        else last = (await oneByOne(piece, entries)) ?? last;
      }
    }
  }
  return last;
}

/** oneByOne sends entries of which the server refuses some, so that the others get through. */
async function oneByOne(piece: number, entries: Entry[]) {
  let last: Schemas["Logged"] | undefined;
  for (const e of entries) {
    try {
      last = await post(piece, [e]);
      drop([e.id]);
    } catch (x) {
      if (!(x instanceof Refused) || x.status >= 500) throw x;
      refuse([e], x.message);
    }
  }
  return last;
}

function refuse(entries: Entry[], why: string) {
  const ids = entries.map((e) => e.id);
  write(read().map((w) => (ids.includes(w.entry.id) ? { ...w, refused: why } : w)));
}

const post = (id: number, entries: Entry[]) =>
  answer(
    api.POST("/api/pieces/{id}/log", {
      params: { path: { id }, query: { sent: new Date().toISOString(), today: true } },
      body: { entries },
    }),
  );
