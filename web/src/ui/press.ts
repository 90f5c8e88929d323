const LONG = 1500; // ms a press holds the drawing back at most: slow hands press for a second
const SLIP = 8; // px after which a press is a drag and not a click
const TAP = 50; // ms from the lifted finger to its click

let pressed = false;
let from = { x: 0, y: 0 };
let end: ReturnType<typeof setTimeout> | undefined;
let waiting: (() => void)[] = [];

function release() {
  clearTimeout(end);
  pressed = false;
  const now = waiting;
  waiting = [];
  for (const f of now) f();
}

function releaseIn(ms: number) {
  clearTimeout(end);
  end = setTimeout(release, ms);
}

addEventListener(
  "pointerdown",
  (e) => {
    pressed = true;
    from = { x: e.clientX, y: e.clientY };
    releaseIn(LONG);
  },
  { capture: true },
);
addEventListener(
  "pointermove",
  (e) => {
    if (pressed && Math.hypot(e.clientX - from.x, e.clientY - from.y) > SLIP) release();
  },
  { capture: true, passive: true },
);
for (const up of ["pointerup", "pointercancel"] as const) {
  addEventListener(up, (e) => releaseIn(e.pointerType === "touch" ? TAP : 0), { capture: true });
}

/**
 * whenReleased runs at once; while something is pressed it waits for the click, so that nothing moves away from under
 * a finger.
 */
export function whenReleased(f: () => void) {
  if (pressed) waiting.push(f);
  else f();
}
