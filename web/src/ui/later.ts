import { useEffect, useRef, useState } from "react";

/** useLater is a value once it has stayed the same for a while, in milliseconds; what follows typing asks with it. */
export function useLater<T>(value: T, ms: number): T {
  const [later, setLater] = useState(value);
  useEffect(() => {
    const t = setTimeout(() => setLater(value), ms);
    return () => clearTimeout(t);
  }, [value, ms]);
  return later;
}

/** useLast is the last of a value that was there. */
export function useLast<T>(value: T | undefined): T | undefined {
  const last = useRef(value);
  if (value !== undefined) last.current = value;
  return last.current;
}
