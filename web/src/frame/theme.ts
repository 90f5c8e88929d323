import { useSyncExternalStore } from "react";

export type Theme = "titanium" | "evening";

const KEY = "rutile.theme";
const heard = new Set<() => void>();

const now = (): Theme => (document.documentElement.dataset.theme === "evening" ? "evening" : "titanium");

/** turnTheme goes from the day's bench to the evening's and back, and remembers it in this browser. */
export function turnTheme() {
  const next: Theme = now() === "evening" ? "titanium" : "evening";
  document.documentElement.dataset.theme = next;
  try {
    localStorage.setItem(KEY, next);
  } catch {
    // Without storage it holds until the page is closed.
  }
  for (const f of heard) f();
}

export function useTheme(): Theme {
  return useSyncExternalStore((f) => {
    heard.add(f);
    return () => heard.delete(f);
  }, now);
}
