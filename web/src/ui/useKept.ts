import { useEffect, useRef, useState } from "react";
import { store, stored } from "./typed";

/** useKept is what is being changed in a form: it survives a reload of its tab until it is forgotten. */
export function useKept<T>(key: string, start: () => T): [T, (change: (now: T) => T) => void, () => void] {
  const [x, setX] = useState<T>(() => parsed<T>(stored(key)) ?? start());
  const first = useRef(x);
  useEffect(() => {
    if (x !== first.current) store(key, JSON.stringify(x));
  }, [key, x]);
  return [x, setX, () => store(key, undefined)];
}

function parsed<T>(text: string): T | undefined {
  try {
    return text ? (JSON.parse(text) as T) : undefined;
  } catch {
    return undefined;
  }
}
