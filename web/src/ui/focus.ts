/**
 * focusSoon moves the focus once the page is drawn anew, and never while the key that asked for it is still down: a key
 * held a little long must not press what it has just reached.
 */
export function focusSoon(find: () => HTMLElement | null | undefined) {
  const focus = () => requestAnimationFrame(() => find()?.focus());
  const by = (globalThis as { event?: Event }).event;
  if (by instanceof KeyboardEvent && by.type === "keydown") {
    window.addEventListener("keyup", focus, { once: true });
  } else {
    focus();
  }
}
