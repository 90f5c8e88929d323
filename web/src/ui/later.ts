import { useEffect, useRef, useState } from "react";

/** useLater is a value once it has been stable for a while, in milliseconds; for requests that follow typing. */
export function useLater<T>(value: T, ms: number): T {
  const [later, setLater] = useState(value);
  useEffect(() => {
    const t = setTimeout(() => setLater(value), ms);
    return () => clearTimeout(t);
  }, [value, ms]);
  return later;
}

/** useLast is the last defined value. */
export function useLast<T>(value: T | undefined): T | undefined {
  const last = useRef(value);
  if (value !== undefined) last.current = value;
  return last.current;
}
