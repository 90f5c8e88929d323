import { shared, useShared } from "../ui/shared";

// Whether the computer that Rutile runs on answers this device, as its last answers tell.

/** Denied is why the computer does not let this device in. */
export type Denied = "unpaired" | "revoked" | "held";

/** Reach is how the computer is reached: kept is when an answer was taken along that stands in for one now. */
export type Reach = { kept?: number; denied?: Denied };

// Headers that tell so: the service worker's, and the server's.
const KEPT = "X-Kept-At";
const DENIED = "X-Rutile-Device";

const now = shared<Reach>({});

function set(next: Reach) {
  if (next.kept !== reach().kept || next.denied !== reach().denied) now.set(next);
}

/** keptAt is when an answer was taken along, by this device's clock; undefined for one from the computer. */
export function keptAt(r: Response): number | undefined {
  const at = r.headers.get(KEPT);
  return at === null ? undefined : Number(at);
}

/** answered takes note of an answer. */
export function answered(r: Response) {
  const denied = r.status === 401 ? (r.headers.get(DENIED) as Denied | null) : null;
  if (denied) set({ denied });
  else set({ kept: keptAt(r) });
}

export const reach = () => now.now();

export const useReach = () => useShared(now);

/** keep has the service worker take an answer along that came with another, so that what it has is never older. */
export function keep(path: string, is: unknown) {
  navigator.serviceWorker?.controller?.postMessage({ path, is: JSON.stringify(is) });
}
