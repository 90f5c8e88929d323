const LONG = 300; // ms after which a press is a drag and not a click
const TAP = 50; // ms from the lifted finger to its click

let pressed = false;
let end: ReturnType<typeof setTimeout> | undefined;
let waiting: (() => void)[] = [];

function release() {
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
  () => {
    pressed = true;
    releaseIn(LONG);
  },
  { capture: true },
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
