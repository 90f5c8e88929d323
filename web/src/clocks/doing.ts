import { useEffect } from "react";
import { again, answer, api, RETRY, type Refused, removed } from "../api/client";
import { type ClockDoing, opened } from "../offline/kept";
import { shared, useShared } from "../ui/shared";
import { lastContact, righted } from "../work/times";

// What was done with clocks while the server did not answer. Clocks that were started run here until it does.

const waiting = shared<ClockDoing[]>([]);
let last = 0; // the order of the last
const { now: all, set: show } = waiting;

const ready = opened
  .then((db) => db.getAll("clocks"))
  .then(
    (kept) => show([...kept, ...all()]),
    () => undefined,
  );

type Doing<T = ClockDoing> = T extends ClockDoing ? Omit<T, "n" | "at" | "known"> : never;

/** later keeps something done with a clock until the server answers. */
export async function later(x: Doing) {
  const at = Date.now();
  await ready;
  // A clock that is stopped before the server knew of it need not be started there.
  if (x.do === "stop") for (const s of all()) if (s.do === "start" && s.id === x.id) await drop(s);
  last = Math.max(last, all().at(-1)?.n ?? 0) + 1;
  const made = { ...x, n: last, at, known: lastContact() } as ClockDoing;
  // Shown once it is stored: the page may be closed then.
  await opened.then((db) => db.put("clocks", made)).catch(() => undefined);
  show([...all(), made]);
}

/** open tells whether something waits to be sent. */
const open = (x: ClockDoing) => x.do !== "start" || !x.refused;

async function keep(x: ClockDoing) {
  show(all().map((y) => (y.n === x.n ? x : y)));
  await opened.then((db) => db.put("clocks", x)).catch(() => undefined);
}

async function drop(x: ClockDoing) {
  show(all().filter((y) => y.n !== x.n));
  await opened.then((db) => db.delete("clocks", x.n)).catch(() => undefined);
}

let sending = false;

/** sendClocks sends what was done, in that order; true if the server has all of it. */
async function sendClocks(): Promise<boolean> {
  await ready;
  if (sending) return false;
  sending = true;
  try {
    for (const x of all().filter(open)) {
      try {
        await send(x);
      } catch (e) {
        if (again(e) || (e as Refused).status >= 500 || (e as Refused).status === 401) return false;
        if (x.do === "start") {
          await keep({ ...x, refused: (e as Error).message }); // it runs on here
          continue;
        }
      }
      await drop(x); // to silence or stop a clock that is not there is done
    }
    return true;
  } finally {
    sending = false;
  }
}

function send(x: ClockDoing): Promise<unknown> {
  const path = { id: x.id };
  switch (x.do) {
    case "start": {
      const now = lastContact();
      const at = new Date(x.at).toISOString();
      const began = Date.parse(now ? righted(at, x.at, x.known, now) : at);
      const body = { ...x.clock, ago_s: Math.max(0, (Date.now() - began) / 1000) };
      return answer(api.POST("/api/clocks", { body }));
    }
    case "silence":
      return answer(api.POST("/api/clocks/{id}/silence", { params: { path } }));
    case "stop":
      return removed(api.DELETE("/api/clocks/{id}", { params: { path } }));
  }
}

/** useDoing is what waits for the server; done is called once it has it. */
export function useDoing(done: () => void): readonly ClockDoing[] {
  const waits = useShared(waiting);
  const some = waits.some(open);
  useEffect(() => {
    if (!some) return;
    const t = setInterval(() => void sendClocks().then((sent) => sent && done()), RETRY);
    return () => clearInterval(t);
  }, [some, done]);
  return waits;
}
