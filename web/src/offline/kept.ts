import { type DBSchema, openDB } from "idb";
import type { Schemas } from "../api/client";
import type { Known } from "../work/times";

// What the browser keeps in IndexedDB until the server has it.

export type Entry = Schemas["Entry"];

/** About is which piece entries are about: another folder may have one of the same number, created at another time. */
export type About = { piece: number; created?: string; of?: string };

/** Waiting is an entry that waits, with pictures that are not sent yet, and what is known of the clock it was made by. */
export type Waiting = About & {
  n: number; // the order
  entry: Entry;
  says?: string; // what it is about, in words
  pictures?: Blob[];
  written: number;
  known?: Known;
  refused?: string;
};

interface Kept extends DBSchema {
  log: { key: string; value: Waiting };
  clocks: { key: number; value: ClockDoing };
}

/** ClockDoing is something done with a clock while the server did not answer. */
export type ClockDoing = { n: number; id: string; at: number; known?: Known } & (
  | { do: "start"; clock: Schemas["NewClock"]; name: string; seconds: number; refused?: string }
  | { do: "silence" | "stop" }
);

/** opened is where all this is kept; it fails where the browser keeps nothing. */
export const opened = openDB<Kept>("rutile", 1, {
  upgrade(db) {
    db.createObjectStore("log", { keyPath: "entry.id" });
    db.createObjectStore("clocks", { keyPath: "n" });
  },
});
opened.catch(() => undefined);
