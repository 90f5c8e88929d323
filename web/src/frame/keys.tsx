import { useEffect, useRef, useSyncExternalStore } from "react";

/** Shortcut is a key and its action; `key` is written as "n", "?" or "Ctrl+z". */
export type Shortcut = { key: string; says: string; run: () => void };

type Group = { title: string; keys: Shortcut[] };

/** ANYWHERE is the group of shortcuts that hold on every screen. */
export const ANYWHERE = "Anywhere";

const groups = new Map<object, Group>();
const heard = new Set<() => void>();
let shown: Group[] = [];

function tell() {
  shown = [...groups.values()];
  for (const f of heard) f();
}

const LETTERS = "rutile.letters";
let letters = true;
try {
  letters = localStorage.getItem(LETTERS) !== "off";
} catch {
  // Letters stay on.
}

/** setLetters turns shortcuts without Ctrl or Alt on or off, for voice input and accidental presses. */
export function setLetters(on: boolean) {
  letters = on;
  try {
    localStorage.setItem(LETTERS, on ? "on" : "off");
  } catch {
    // It holds until the page is closed.
  }
  tell();
}

const subscribe = (f: () => void) => {
  heard.add(f);
  return () => heard.delete(f);
};

export const useShortcuts = () => useSyncExternalStore(subscribe, () => shown);
export const useLetters = () => useSyncExternalStore(subscribe, () => letters);

/** useKeys registers the shortcuts of a screen while it is open, and lists them on the sheet of shortcuts. */
export function useKeys(title: string, keys: Shortcut[]) {
  const latest = useRef(keys);
  latest.current = keys;
  const says = keys.map((k) => `${k.key}=${k.says}`).join();
  useEffect(() => {
    const id = {};
    groups.set(id, {
      title,
      keys: says
        ? latest.current.map((k, i) => ({ key: k.key, says: k.says, run: () => latest.current[i]?.run() }))
        : [],
    });
    tell();
    return () => {
      groups.delete(id);
      tell();
    };
  }, [title, says]);
}

function pressed(e: KeyboardEvent): string {
  const key = e.key.length === 1 ? e.key.toLowerCase() : e.key;
  const shift = e.shiftKey && (e.ctrlKey || e.metaKey || e.altKey || e.key.length > 1) ? "Shift+" : "";
  return `${e.ctrlKey || e.metaKey ? "Ctrl+" : ""}${e.altKey ? "Alt+" : ""}${shift}${key}`;
}

const typing = (t: EventTarget | null) =>
  t instanceof HTMLTextAreaElement ||
  t instanceof HTMLSelectElement ||
  (t instanceof HTMLInputElement && !["checkbox", "radio", "color"].includes(t.type));

window.addEventListener("keydown", (e) => {
  if (e.defaultPrevented || document.querySelector("dialog[open]")) return;
  const key = pressed(e);
  const plain = !e.ctrlKey && !e.metaKey && !e.altKey;
  if (plain && (!letters || typing(e.target))) return;
  // A field undoes its own typing.
  if (key.toLowerCase().endsWith("+z") && typing(e.target)) return;
  // After a reload the frame registers after its screen; what holds anywhere gives way all the same.
  const order = [...groups.values()].reverse();
  for (const g of [...order.filter((g) => g.title !== ANYWHERE), ...order.filter((g) => g.title === ANYWHERE)]) {
    const k = g.keys.find((x) => x.key === key);
    if (k) {
      e.preventDefault();
      k.run();
      return;
    }
  }
});

const NAMES: Record<string, string> = {
  ArrowUp: "↑",
  ArrowDown: "↓",
  ArrowLeft: "←",
  ArrowRight: "→",
  Delete: "Del",
  Escape: "Esc",
};

/** KeyCap shows a key as it is on the keyboard. */
export function KeyCap({ of }: { of: string }) {
  return (
    <kbd className="key">
      {of
        .split(/\+(?=.)/)
        .map((k) => NAMES[k] ?? (k.length === 1 ? k.toUpperCase() : k))
        .join(" + ")}
    </kbd>
  );
}
