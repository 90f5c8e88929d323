import { type Waiting, waiting } from "../work/queue";

// The address of the computer may change, and for a browser another address is another place: what waits at the old one
// is carried to the new one in the address, which never leaves the device.

/** NEW, OLD and TAKEN say in the address what it is about. */
const OLD = "before";
const NEW = "to";
const TAKEN = "taken";

/** Move is a step of a move: the old address to fetch from, the new one to take to, or what was taken. */
export type Move = { before?: string; to?: string; taken?: Waiting[]; from?: string };

const origin = (text: string | null) => {
  try {
    const u = new URL(text ?? "");
    return u.protocol === "https:" && u.origin === text && u.origin !== location.origin ? u.origin : undefined;
  } catch {
    return undefined;
  }
};

/** moveIn reads the step of a move out of the address. */
export function moveIn(hash: string): Move {
  const q = new URLSearchParams(hash.slice(1));
  const [before, to, from] = [origin(q.get(OLD)), origin(q.get(NEW)), origin(q.get("from"))];
  return { before, to, from, taken: from ? listed(q.get(TAKEN)) : undefined };
}

function listed(text: string | null): Waiting[] | undefined {
  if (!text) return undefined;
  try {
    const all: unknown = JSON.parse(text);
    return Array.isArray(all)
      ? (all as Waiting[]).filter((w) => Number.isInteger(w?.piece) && typeof w.entry?.id === "string" && !!w.entry.at)
      : undefined;
  } catch {
    return undefined;
  }
}

/** fetchFrom is the address at which what waits under an old address can be fetched. */
export const fetchFrom = (old: string) => `${old}/phone#${new URLSearchParams({ [NEW]: location.origin })}`;

const LONG = 1_500_000; // letters of an address that every browser takes

/** carried is what waits here without pictures, and how much of it fits into an address. */
export function carried(): Waiting[] {
  let left = LONG;
  return waiting.now().filter((w) => {
    left -= encodeURIComponent(JSON.stringify(w)).length;
    return !w.pictures?.length && left > 0;
  });
}

/** takeTo is the new address, with what waits here. */
export const takeTo = (to: string, all: Waiting[]) =>
  `${to}/phone#${new URLSearchParams({ from: location.origin, [TAKEN]: JSON.stringify(all) })}`;
