import { useSyncExternalStore } from "react";

/** Shared is a value outside of React that components follow. */
export type Shared<T> = { now: () => T; set: (next: T) => void; follow: (f: () => void) => () => void };

/** shared makes one. */
export function shared<T>(start: T): Shared<T> {
  let value = start;
  const heard = new Set<() => void>();
  return {
    now: () => value,
    set: (next) => {
      value = next;
      for (const f of heard) f();
    },
    follow: (f) => {
      heard.add(f);
      return () => heard.delete(f);
    },
  };
}

/** useShared is what it is now. */
export const useShared = <T>(s: Shared<T>): T => useSyncExternalStore(s.follow, s.now);
