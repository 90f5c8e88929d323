import { useState } from "react";

/** stored is a text that was kept for this tab; empty where there is none. */
export function stored(key: string): string {
  try {
    return sessionStorage.getItem(key) ?? "";
  } catch {
    return "";
  }
}

/** store keeps a text for this tab; undefined deletes it. */
export function store(key: string, text: string | undefined) {
  try {
    if (text) sessionStorage.setItem(key, text);
    else sessionStorage.removeItem(key);
  } catch {
    // Without storage it lasts as long as the screen.
  }
}

/** useKeptText is a text that survives a reload of its tab until it is used: undefined deletes it. */
export function useKeptText(key: string): [string, (text: string | undefined) => void] {
  const [text, setText] = useState(() => stored(key));
  const keep = (next: string | undefined) => {
    setText(next ?? "");
    store(key, next);
  };
  return [text, keep];
}
