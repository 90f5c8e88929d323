import { type QueryClient, useMutation, useQueryClient } from "@tanstack/react-query";
import { useEffect, useState, useSyncExternalStore } from "react";
import { RETRY, type Schemas } from "../api/client";
import { newClockID } from "../clocks/useClocks";
import { TODAY_KEY, took } from "../today/useToday";
import { type Entry, LOG_KEY, put, send, subscribe, waiting } from "./queue";

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

/**
 * useLog logs what was done: it is kept in the browser, sent, and what comes next is drawn with the answer. Notes are
 * what the server found odd; failed tells that it does not answer, and everything waits.
 */
export function useLog() {
  const queries = useQueryClient();
  const [last, setLast] = useState<{ piece: number; entries: Entry[] }>();
  useEffect(() => {
    // Another tab has logged something.
    const told = (e: StorageEvent) => {
      if (e.key !== LOG_KEY) return;
      void queries.invalidateQueries({ queryKey: TODAY_KEY });
      logChanged(queries);
    };
    window.addEventListener("storage", told);
    return () => window.removeEventListener("storage", told);
  }, [queries]);
  const m = useMutation({
    mutationFn: async (x: { piece: number; entries: Entry[] } | undefined) => {
      if (x) put(x.piece, x.entries);
      return send();
    },
    onMutate: (x) => x && setLast(x),
    onSuccess: (l: Schemas["Logged"] | undefined) => {
      if (l?.today) queries.setQueryData(TODAY_KEY, took(l.today));
      if (l) logChanged(queries);
    },
  });
  return {
    log: (piece: number, ...entries: Entry[]) => m.mutate({ piece, entries }),
    again: () => m.mutate(undefined),
    busy: m.isPending,
    failed: m.isError,
    notes: m.data?.notes ?? [],
    last,
    forget: () => {
      setLast(undefined);
      m.reset();
    },
  };
}

/** useWaiting is what was not acknowledged yet; while something is, it is sent again and again. */
export function useWaiting(again: () => void) {
  const all = useSyncExternalStore(subscribe, waiting);
  const open = all.some((w) => !w.refused);
  useEffect(() => {
    if (!open) return;
    const t = setInterval(again, RETRY);
    return () => clearInterval(t);
  });
  return all;
}
