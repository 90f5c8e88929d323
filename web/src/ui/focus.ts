import { type RefCallback, useCallback, useEffect } from "react";
import { useStable } from "./stable";

// The focus moves by names: an element registers its name, and others move the focus there. An element that is not on
// the screen yet gets it when it appears.

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

/** useName is a ref that gives an element a name for the focus; undefined for none. */
export function useName<E extends HTMLElement | SVGElement>(name: string | undefined): RefCallback<E> {
  return useCallback(
    (element: E | null) =>
      name && element ? put(name, { focus: () => element.focus({ preventScroll: true }), element }) : undefined,
    [name],
  );
}

/** useTakes runs something when a name gets the focus, such as opening its container. */
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

// A requested field is scrolled to the middle; moving through fields scrolls as little as possible.
const NEAR = /^(?!field )/;

/**
 * focusOn moves the focus to a name, once the page is drawn, and never while the key that caused it is still down: a
 * key held a little long must not press what it has just reached. after is what has to happen first.
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

/** showOn scrolls a name into view. */
export function showOn(name: string) {
  named.get(name)?.element?.scrollIntoView({ block: "nearest" });
}
