import { useEffect } from "react";
import { type Clock, leftOf, useTick } from "./useClocks";

let audio: AudioContext | undefined;

/** wakeSound lets this page ring: browsers allow sound only after something was pressed. */
export function wakeSound() {
  audio ??= new AudioContext();
  void audio.resume();
}

// Two notes: up where work may go on, down where something is over.
const NOTES = { on: [523, 784], over: [587, 392] };
const NOTE = 0.22; // s

function sound(over: boolean) {
  if (audio?.state !== "running") return;
  const from = audio.currentTime;
  NOTES[over ? "over" : "on"].forEach((hz, i) => {
    if (!audio) return;
    const o = audio.createOscillator();
    const g = audio.createGain();
    const at = from + i * (NOTE + 0.04);
    o.frequency.value = hz;
    o.type = "triangle";
    g.gain.setValueAtTime(0, at);
    g.gain.linearRampToValueAtTime(0.4, at + 0.02);
    g.gain.linearRampToValueAtTime(0, at + NOTE);
    o.connect(g).connect(audio.destination);
    o.start(at);
    o.stop(at + NOTE);
  });
}

const EVERY = 4000; // ms between two rings
const LONG = 120; // s that it is heard; it is seen until it is stopped

/** rings tells that a clock rings: it has run out, and nobody has stopped it. */
export const rings = (c: Clock, left: number) => left <= 0 && !c.silent && c.state !== "past";

const told = new Set<string>();

/** notify shows a notification: through the service worker where there is one, since phones allow no other. */
async function notify(c: Clock) {
  const options = { body: [c.for, c.piece, c.zone].filter(Boolean).join(", "), tag: c.id, requireInteraction: true };
  const worker = await navigator.serviceWorker?.getRegistration();
  if (worker?.active) await worker.showNotification(c.rings, options);
  else new Notification(c.rings, options);
}

/** useRing rings for clocks that have run out: by sound, and by a notification where the page is not seen. */
export function useRing(clocks: Clock[], at: number) {
  useTick(500, clocks.length > 0);
  const due = clocks.filter((c) => rings(c, leftOf(c, at)));
  const heard = due.filter((c) => leftOf(c, at) > -LONG);
  const which = heard.map((c) => c.id).join(" ");
  const over = heard[0]?.ends ?? false;
  useEffect(() => {
    if (!which) return;
    // One tab rings, however many are open.
    const ring = () =>
      void navigator.locks.request("rutile-ring", { ifAvailable: true }, async (mine) => {
        if (!mine) return;
        sound(over);
        await new Promise((r) => setTimeout(r, EVERY - 200));
      });
    ring();
    const t = setInterval(ring, EVERY);
    return () => clearInterval(t);
  }, [which, over]);
  useEffect(() => {
    if (document.visibilityState === "visible" || !("Notification" in window) || Notification.permission !== "granted")
      return;
    // Also for one that began to ring while the page was seen, and that nobody has stopped.
    for (const c of due) {
      if (told.has(c.id)) continue;
      told.add(c.id);
      void notify(c);
    }
  });
  return due;
}
