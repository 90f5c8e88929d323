import { type RefCallback, useCallback, useEffect } from "react";
import { useStable } from "./stable";

// The focus moves by names: what may take it says its name, whoever moves it says where to. What is not on the screen
// yet takes it when it comes.

const PATIENCE = 2000; // ms that a name is waited for

type Takes = { focus: () => void; element?: HTMLElement | SVGElement };

const named = new Map<string, Takes>();
let wanted: { name: string; until: number } | undefined;

function put(name: string, t: Takes) {
  named.set(name, t);
  if (wanted?.name === name) give(name);
  return () => {
    if (named.get(name) === t) named.delete(name);
  };
}

/** useName is a ref by which an element has a name for the focus; undefined for none. */
export function useName<E extends HTMLElement | SVGElement>(name: string | undefined): RefCallback<E> {
  return useCallback(
    (element: E | null) =>
      name && element ? put(name, { focus: () => element.focus({ preventScroll: true }), element }) : undefined,
    [name],
  );
}

/** useTakes has something done where a name gets the focus, as opening what will take it. */
export function useTakes(name: string, focus: () => void) {
  const steady = useStable(focus);
  useEffect(() => put(name, { focus: steady }), [name, steady]);
}

function give(name: string) {
  const until = performance.now() + PATIENCE;
  wanted = { name, until };
  requestAnimationFrame(() => {
    const t = named.get(name);
    if (!t || wanted?.name !== name || performance.now() > wanted.until) return;
    wanted = undefined;
    t.element?.scrollIntoView({ block: NEAR.test(name) ? "nearest" : "center" });
    t.focus();
  });
}

// A field that was asked for stands in the middle; what is walked through moves no more than it must.
const NEAR = /^(?!field )/;

/**
 * focusOn moves the focus to what has a name, once the page is drawn anew, and never while the key that asked for it is
 * still down: a key held a little long must not press what it has just reached. after is what has to happen first.
 */
export function focusOn(name: string, after?: Promise<void>) {
  const by = (globalThis as { event?: Event }).event;
  const keyUp =
    by instanceof KeyboardEvent && by.type === "keydown"
      ? new Promise<unknown>((up) => window.addEventListener("keyup", up, { once: true }))
      : undefined;
  if (keyUp || after) void Promise.all([keyUp, after]).then(() => give(name));
  else give(name);
}

/** showOn brings what has a name into view. */
export function showOn(name: string) {
  named.get(name)?.element?.scrollIntoView({ block: "nearest" });
}
