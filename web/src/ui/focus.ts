/**
 * focusSoon moves the focus once the page is drawn anew, and never while the key that asked for it is still down: a key
 * held a little long must not press what it has just reached. after is what has to happen first.
 */
export function focusSoon(find: () => HTMLElement | null | undefined, after?: Promise<void>) {
  const by = (globalThis as { event?: Event }).event;
  const keyUp =
    by instanceof KeyboardEvent && by.type === "keydown"
      ? new Promise<unknown>((up) => window.addEventListener("keyup", up, { once: true }))
      : undefined;
  const focus = () => requestAnimationFrame(() => find()?.focus());
  if (keyUp || after) void Promise.all([keyUp, after]).then(focus);
  else focus();
}
