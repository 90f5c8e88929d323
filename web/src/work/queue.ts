import { answer, api, Refused, type Schemas } from "../api/client";
import { reach } from "../api/reach";
import { type About, type Entry, opened, type Waiting } from "../offline/kept";
import { sendPhoto } from "../overview/sendPhoto";
import { askToday } from "../today/useToday";
import { shared, useShared } from "../ui/shared";
import { inTouch, lastContact, righted } from "./times";

// What was logged and not yet acknowledged by the server. It stays in the browser until it is: a tap is never lost.

export type { About, Entry, Waiting };

const BEFORE = "rutile.log"; // where earlier versions kept it

/** waiting is what waits, in its order; noRoom that the browser keeps no more: it is lost when the page is closed. */
export const waiting = shared<Waiting[]>([]);
export const noRoom = shared(false);

const nothing = shared<Waiting[]>([]);

/** useWaitingIf is what waits, where that matters; elsewhere nothing is drawn again when it changes. */
export const useWaitingIf = (matters: boolean) => useShared(matters ? waiting : nothing);

const unstored = new Set<string>(); // what this page alone knows of yet
const dropped = new Set<string>(); // what is still stored, and is being forgotten
const others = new BroadcastChannel("rutile.log");

const shown = waiting.now;
const show = (all: Waiting[]) => waiting.set(all.sort((a, b) => a.n - b.n));

/** load reads what is kept; what this page alone knows of stays. */
async function load() {
  try {
    const db = await opened;
    for (const w of before()) await db.put("log", w);
    localStorage.removeItem(BEFORE);
    const all = await db.getAll("log");
    const mine = shown().filter((w) => unstored.has(w.entry.id));
    show([...all.filter((w) => !unstored.has(w.entry.id) && !dropped.has(w.entry.id)), ...mine]);
  } catch {
    // Then it lasts as long as the page.
  }
}

function before(): Waiting[] {
  let all: unknown;
  try {
    all = JSON.parse(localStorage.getItem(BEFORE) ?? "[]");
  } catch {
    return []; // nothing that could be read
  }
  if (!Array.isArray(all)) return [];
  return (all as Waiting[])
    .filter((w) => w?.entry?.id && w.piece)
    .map((w, n) => ({ ...w, written: Date.parse(w.entry.at), n }));
}

/** ready is when what is kept was read. */
export const ready = load();

// What other tabs do with what waits: keep it, or forget it once the server has it.
type Told = "kept" | "sent";
others.addEventListener("message", () => void load());
const tellOthers = (told: Told) => others.postMessage(told);

/** whenOthersSend calls a function when another tab has sent something, until the function that it returns is called. */
export function whenOthersSend(f: () => void) {
  const heard = (e: MessageEvent<Told>) => e.data === "sent" && f();
  others.addEventListener("message", heard);
  return () => others.removeEventListener("message", heard);
}

/** store keeps something that waits. A full browser gives up pictures and answers that were taken along before. */
async function store(all: Waiting[]) {
  for (const w of all) unstored.add(w.entry.id);
  for (const room of [async () => undefined, giveRoom]) {
    try {
      await room();
      const tx = (await opened).transaction("log", "readwrite", { durability: "strict" });
      await Promise.all([...all.map((w) => tx.store.put(w)), tx.done]);
      for (const w of all) unstored.delete(w.entry.id);
      noRoom.set(false);
      tellOthers("kept");
      return;
    } catch {
      // No room, or nothing is kept at all.
    }
  }
  noRoom.set(true);
}

async function giveRoom() {
  for (const name of await caches.keys()) if (!name.includes("precache")) await caches.delete(name);
}

let last = 0; // the order of the last entry

/** add keeps entries, and then shows that they are kept: the page may be closed once it says so. */
async function add(fresh: Omit<Waiting, "n">[]) {
  await ready;
  last = Math.max(last, shown().at(-1)?.n ?? 0);
  const all = fresh.map((w): Waiting => ({ ...w, n: ++last }));
  await store(all);
  show([...shown().filter((w) => !all.some((x) => x.entry.id === w.entry.id)), ...all]);
}

/** put keeps entries until they are acknowledged. */
export function put(about: About, says: string | undefined, entries: Entry[], pictures?: Blob[]) {
  return add(
    entries.map((entry, i) => {
      const w = { ...about, entry, says, written: Date.now(), known: lastContact() };
      return i === 0 && pictures?.length ? { ...w, pictures } : w;
    }),
  );
}

/** drop forgets entries, by their ids: the server has them, or the painter gives them up. */
export function drop(ids: string[]) {
  for (const id of ids) {
    unstored.delete(id);
    dropped.add(id);
  }
  show(shown().filter((w) => !ids.includes(w.entry.id)));
  void forget(ids);
}

// Nobody waits for this: what stays by mistake is sent again, and counts once.
async function forget(ids: string[]) {
  try {
    const tx = (await opened).transaction("log", "readwrite", { durability: "strict" });
    await Promise.all([...ids.map((id) => tx.store.delete(id)), tx.done]);
  } catch {
    // It was never kept.
  }
  for (const id of ids) dropped.delete(id);
  tellOthers("sent");
}

const MOST = 200; // entries in one request

/** Away tells that the computer does not answer. */
export class Away extends Error {}

/** turnedAway tells that an answer says nothing of what was sent: it is sent again later. */
const turnedAway = (e: unknown) => !(e instanceof Refused) || e.status >= 500 || e.status === 401;

/** Sent is the last answer, with what is odd about anything that was sent. */
export type Sent = { last?: Schemas["Logged"]; notes: string[] };

/**
 * send sends what waits, piece by piece, and returns the last answer. What the server refuses stays, marked with the
 * reason; without a server it throws, and everything stays.
 */
export async function send(): Promise<Sent> {
  await ready;
  const out: Sent = { notes: [] };
  const open = () => shown().filter((w) => !w.refused);
  if (open().length && !inTouch()) {
    await askToday();
    if (!inTouch()) throw new Away("the server does not answer.");
  }
  for (const w of open()) if (w.pictures?.length) await sendPictures(w);
  const keyOf = (w: About) => `${w.piece} ${w.created ?? ""}`;
  for (const key of new Set(open().map(keyOf))) {
    const those = () => open().filter((w) => keyOf(w) === key && !w.pictures?.length);
    while (those().length) {
      const some = those().slice(0, MOST);
      try {
        took(out, await post(some));
        drop(some.map((w) => w.entry.id));
      } catch (e) {
        if (turnedAway(e)) throw e;
        if (some.length === 1) await refuse(some, (e as Error).message);
        else await oneByOne(some, out);
      }
    }
  }
  return out;
}

function took(out: Sent, l: Schemas["Logged"]) {
  out.last = l;
  out.notes.push(...l.notes.filter((n) => !out.notes.includes(n)));
}

/** sendPictures sends the pictures of an entry; one that the server refuses refuses the entry. */
async function sendPictures(w: Waiting) {
  let now = w;
  try {
    for (const picture of w.pictures ?? []) {
      const { file } = await sendPhoto(picture);
      now = {
        ...now,
        entry: { ...now.entry, photos: [...(now.entry.photos ?? []), file] },
        pictures: now.pictures?.slice(1),
      };
      await change([now]);
    }
  } catch (e) {
    if (turnedAway(e)) throw e;
    await refuse([now], (e as Error).message);
  }
}

/** oneByOne sends entries of which the server refuses some, so that the others get through. */
async function oneByOne(some: Waiting[], out: Sent) {
  for (const w of some) {
    try {
      took(out, await post([w]));
      drop([w.entry.id]);
    } catch (x) {
      if (turnedAway(x)) throw x;
      await refuse([w], (x as Error).message);
    }
  }
}

async function change(some: Waiting[]) {
  const stored = store(some);
  show(shown().map((w) => some.find((x) => x.entry.id === w.entry.id) ?? w));
  await stored;
}

const refuse = (some: Waiting[], why: string) => change(some.map((w) => ({ ...w, refused: why })));

function post(some: Waiting[]) {
  const now = lastContact();
  const entries = some.map(({ entry, written, known }) =>
    now && !entry.corrects ? { ...entry, at: righted(entry.at, written, known, now) } : entry,
  );
  const { piece: id, created } = some[0] as Waiting;
  return answer(
    api.POST("/api/pieces/{id}/log", {
      params: { path: { id }, query: { sent: new Date().toISOString(), created, today: true } },
      body: { entries },
    }),
  );
}

/** takeOver keeps entries that this device had logged under another address of the computer. */
export async function takeOver(all: Waiting[]) {
  await ready;
  const has = (w: Waiting) => shown().some((x) => x.entry.id === w.entry.id);
  await add(all.filter((w) => !has(w)).map((w) => ({ ...w, refused: undefined })));
}

// A page that is closed loses what is not stored, for want of room or of time: it asks first.
addEventListener("beforeunload", (e) => {
  if (unstored.size && !reach().denied) e.preventDefault();
});
