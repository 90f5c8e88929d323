// What this device's clock is worth: it may be a year off, and be put right before what was logged is sent.

/** Known is how far the server's clock was ahead of this device's at an answer, and what it showed then, in ms. */
export type Known = { off: number; at: number };

const KEY = "rutile.contact";
const FRESH = 90_000; // ms that an answer counts as one of now
const NEAR = 2 * 60_000; // ms by which clocks may differ

let known: Known | undefined;
let stamp = Number.NEGATIVE_INFINITY;

/** contact takes note of what the server's clock shows. */
export function contact(server: string) {
  const at = Date.parse(server);
  known = { off: at - Date.now(), at };
  stamp = performance.now();
  try {
    localStorage.setItem(KEY, JSON.stringify(known));
  } catch {
    // Without storage it is known until the page is closed.
  }
}

/** lastContact is what was known at the last answer. */
export function lastContact(): Known | undefined {
  if (known) return known;
  try {
    known = (JSON.parse(localStorage.getItem(KEY) ?? "null") as Known | null) ?? undefined;
  } catch {
    // It is not known.
  }
  return known;
}

/** inTouch tells that the server's clock was seen just now. */
export const inTouch = () => performance.now() - stamp < FRESH;

/**
 * righted is a time that was logged, by this device's clock as it shows now: written is what it showed when the entry
 * was made, then what was known of it at that moment, now what is known at this one. An entry was made after the answer
 * before it and before now: the clock that would have it otherwise was another one, put right since.
 */
export function righted(at: string, written: number, then: Known | undefined, now: Known): string {
  if (!then || Math.abs(then.off - now.off) < NEAR) return at;
  const fits = (off: number) => written + off >= then.at - NEAR && written + off <= now.at + NEAR;
  if (fits(now.off) || !fits(then.off)) return at;
  return new Date(Date.parse(at) + then.off - now.off).toISOString();
}
