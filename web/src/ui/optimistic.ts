import { useEffect, useState } from "react";

const HELD = 200; // ms after which the change has either happened or not

/**
 * useOptimisticValue is a value as the last press set it, until it is so, with its setter: a change is drawn a few
 * milliseconds later, and nothing may spring back in between.
 */
export function useOptimisticValue<T>(value: T, onChange: (to: T) => void): [T, (to: T) => void] {
  const [at, set] = useState({ value, shown: value });
  if (at.value !== value) set({ value, shown: value });
  const open = at.shown !== value;
  useEffect(() => {
    if (!open) return;
    const t = setTimeout(() => set({ value, shown: value }), HELD);
    return () => clearTimeout(t);
  }, [open, value]);
  const change = (shown: T) => {
    set({ value, shown });
    onChange(shown);
  };
  return [at.value === value ? at.shown : value, change];
}
