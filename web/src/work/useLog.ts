import { type QueryClient, useQueryClient } from "@tanstack/react-query";
import { useEffect, useMemo, useRef, useState, useSyncExternalStore } from "react";
import { RETRY } from "../api/client";
import { newClockID } from "../clocks/useClocks";
import { TODAY_KEY, took } from "../today/useToday";
import { useStable } from "../ui/stable";
import { type Entry, LOG_KEY, put, send, subscribe, waiting } from "./queue";

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
  useEffect(() => {
    const told = (e: StorageEvent) => {
      if (e.key !== LOG_KEY) return;
      void queries.invalidateQueries({ queryKey: TODAY_KEY });
      logChanged(queries);
    };
    window.addEventListener("storage", told);
    return () => window.removeEventListener("storage", told);
  }, [queries]);
}

/** What was logged last, and what came of it. */
type Said = { piece: number; entries: Entry[]; notes: string[] };

export type Log = {
  log: (piece: number, ...entries: Entry[]) => void;
  again: () => void; // sends what waits
  failed: boolean; // the server does not answer, and everything waits
  said: Said | undefined;
};

/**
 * useLog logs what was done: it is kept in the browser, sent, and what comes next is drawn with the answer. Nothing is
 * drawn before: a tap is answered by what it leads to.
 */
export function useLog(): Log {
  const queries = useQueryClient();
  const [failed, setFailed] = useState(false);
  const [said, setSaid] = useState<Said>();
  const pressed = useRef<{ key: string; at: number }>(undefined);
  return useMemo(() => {
    const run = async (x?: { piece: number; entries: Entry[] }) => {
      try {
        const l = await send();
        if (l?.today) queries.setQueryData(TODAY_KEY, took(l.today));
        if (x) setSaid({ ...x, notes: l?.notes ?? [] });
        setFailed(false);
        if (l) setTimeout(() => logChanged(queries), DRAWN);
      } catch {
        setFailed(true);
      }
    };
    return {
      failed,
      said,
      again: () => void run(),
      log: (piece, ...entries) => {
        // A knuckle presses twice.
        const key = JSON.stringify(entries.map(({ id: _, at: __, ...e }) => e));
        if (pressed.current?.key === key && performance.now() - pressed.current.at < TWICE) return;
        pressed.current = { key, at: performance.now() };
        put(piece, entries);
        void run({ piece, entries });
      },
    };
  }, [queries, failed, said]);
}

const TWICE = 700; // ms within which the same tap counts once

/** useWaiting is what was not acknowledged yet; while something is, it is sent again and again. */
export function useWaiting(again: () => void) {
  const all = useSyncExternalStore(subscribe, waiting);
  const open = all.some((w) => !w.refused);
  const steady = useStable(again);
  useEffect(() => {
    if (!open) return;
    const t = setInterval(steady, RETRY);
    return () => clearInterval(t);
  }, [open, steady]);
  return all;
}
