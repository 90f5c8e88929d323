import { useState } from "react";

/** useKeptText is a text that survives a reload of its tab until it is used: undefined deletes it. */
export function useKeptText(key: string): [string, (text: string | undefined) => void] {
  const [text, setText] = useState(() => {
    try {
      return sessionStorage.getItem(key) ?? "";
    } catch {
      return "";
    }
  });
  const keep = (next: string | undefined) => {
    setText(next ?? "");
    try {
      if (next) sessionStorage.setItem(key, next);
      else sessionStorage.removeItem(key);
    } catch {
      // Without storage it lasts as long as the screen.
    }
  };
  return [text, keep];
}
