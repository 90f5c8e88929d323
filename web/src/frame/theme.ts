import { useSyncExternalStore } from "react";

export type Theme = "light" | "dark";

const KEY = "rutile.theme";
const heard = new Set<() => void>();

const now = (): Theme => (document.documentElement.dataset.theme === "dark" ? "dark" : "light");

/** turnTheme switches between the light and the dark theme, and remembers it in this browser. */
export function turnTheme() {
  const next: Theme = now() === "dark" ? "light" : "dark";
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
