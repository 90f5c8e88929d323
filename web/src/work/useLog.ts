import { type QueryClient, useQueryClient } from "@tanstack/react-query";
import { useEffect, useMemo, useRef, useState } from "react";
import { RETRY } from "../api/client";
import { keep } from "../api/reach";
import { newClockID } from "../clocks/useClocks";
import { TODAY_KEY, took } from "../today/useToday";
import { useShared } from "../ui/shared";
import { useStable } from "../ui/stable";
import { type About, type Entry, put, send, waiting, whenOthersSend } from "./queue";

const DRAWN = 60; // ms until what comes next is drawn, before anything else is asked for

/** newEntry is an entry with an id made here, so that it counts once however often it is sent. */
export const newEntry = (e: Omit<Entry, "id" | "at"> & { at?: string }): Entry => ({
  id: newClockID(),
  at: new Date().toISOString(),
  ...e,
});

/** logChanged has everything that follows from a log asked for again. */
export function logChanged(queries: QueryClient) {
  for (const key of ["log", "back", "check", "clocks", "pieces", "shelf", "needs", "cards", "like"]) {
    void queries.invalidateQueries({ queryKey: [key] });
  }
}

/** useOtherTabs follows what another tab has logged. */
export function useOtherTabs() {
  const queries = useQueryClient();
  useEffect(
    () =>
      whenOthersSend(() => {
        void queries.invalidateQueries({ queryKey: TODAY_KEY });
        logChanged(queries);
      }),
    [queries],
  );
}

/** What was logged last, and what came of it. */
type Said = { about: About; entries: Entry[]; notes: string[] };

/** Tap is what is logged with something: the piece it is about, what it is in words, and pictures that are not sent. */
export type Tap = About & { says?: string; pictures?: Blob[] };

export type Log = {
  log: (about: Tap, ...entries: Entry[]) => void;
  again: () => void; // sends what waits
  failed: boolean; // the server does not answer, and everything waits
  said: Said | undefined;
};

/**
 * useLog logs what was done: it is kept in the browser, sent, and what comes next is drawn with the answer. Nothing is
 * drawn before: a tap is answered by what it leads to. While the server does not answer, the page says what waits.
 */
export function useLog(): Log {
  const queries = useQueryClient();
  const [failed, setFailed] = useState(false);
  const [said, setSaid] = useState<Said>();
  const pressed = useRef<{ key: string; at: number }>(undefined);
  return useMemo(() => {
    const run = async (x?: Omit<Said, "notes">) => {
      try {
        const { last, notes } = await send();
        if (last?.today) {
          // One that is under way knows less.
          await queries.cancelQueries({ queryKey: TODAY_KEY });
          queries.setQueryData(TODAY_KEY, took(last.today));
          keep("/api/today", last.today);
        }
        if (x) setSaid({ ...x, notes });
        else if (notes.length) setSaid((was) => ({ about: { piece: 0 }, entries: [], ...was, notes }));
        setFailed(false);
        if (!last) return;
        setTimeout(() => logChanged(queries), DRAWN);
      } catch {
        setFailed(true);
      }
    };
    return {
      failed,
      said,
      again: () => void run(),
      log: ({ says, pictures, ...about }, ...entries) => {
        // A knuckle presses twice.
        const key = JSON.stringify(entries.map(({ id: _, at: __, ...e }) => e));
        if (pressed.current?.key === key && performance.now() - pressed.current.at < TWICE) return;
        pressed.current = { key, at: performance.now() };
        void put(about, says, entries, pictures).then(() => run({ about, entries }));
      },
    };
  }, [queries, failed, said]);
}

const TWICE = 700; // ms within which the same tap counts once

/** useWaiting is what was not acknowledged yet; while something is, it is sent again and again. */
export function useWaiting(again: () => void) {
  const all = useShared(waiting);
  const open = all.some((w) => !w.refused);
  const steady = useStable(again);
  useEffect(() => {
    if (!open) return;
    // Of an earlier visit.
    const old = waiting.now().some((w) => Date.now() - w.written > RETRY);
    const first = old ? setTimeout(steady) : undefined;
    const t = setInterval(steady, RETRY);
    window.addEventListener("online", steady);
    return () => {
      clearTimeout(first);
      clearInterval(t);
      window.removeEventListener("online", steady);
    };
  }, [open, steady]);
  return all;
}
