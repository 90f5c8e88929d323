import { useCallback, useRef } from "react";

/** useStable is a function that stays the same from drawing to drawing while what it does follows the latest one. */
export function useStable<A extends unknown[], R>(f: (...a: A) => R): (...a: A) => R {
  const latest = useRef(f);
  latest.current = f;
  return useCallback((...a: A) => latest.current(...a), []);
}
