import { createContext, useContext, useSyncExternalStore } from "react";
import { flushSync } from "react-dom";
import { answer, api, type Part, type Piece, RETRY, Refused } from "../api/client";
import { withPart, withZone } from "./edit";

// Sizes are typed as people write them and read by the server. Between the two the server may be away, the field shut or
// the page loaded anew: what was typed waits here, and goes to its place once it has been read.

/** Place is where a size is typed: at a part, or as the area of a zone. */
export type Place = { part: number; kind: string } | { zone: string };

/** Asked is a size as it was typed. It holds while what it was typed over, or what it came to, stands in its place. */
export type Asked = {
  place: Place;
  text: string;
  stands: string | undefined;
  before: string | undefined; // what stood there when the typing began
  is: "asked" | "away" | "refused" | "read";
  says?: string; // why it was refused
};

const SIZES = [
  "width_cm",
  "height_cm",
  "depth_cm",
  "thick_cm",
  "across_cm",
  "base_cm",
  "girth_cm",
  "member_cm",
] as const satisfies (keyof Part)[];

/** spelled is what stands in a place, written so that it can be compared: a part's sizes, or an area. */
export const spelledSizes = (p: Partial<Part>) => JSON.stringify(SIZES.map((s) => p[s] ?? 0));
export const spelledArea = (m2: number | undefined) => (m2 ? JSON.stringify(m2) : undefined);

/** sizesOf are spelled sizes by their fields. */
export function sizesOf(spelled: string): Partial<Part> {
  const all = JSON.parse(spelled) as number[];
  return Object.fromEntries(SIZES.map((s, i) => [s, all[i] || undefined]));
}

function spelled(piece: Piece, at: Place): string | undefined {
  if ("zone" in at) return spelledArea(piece.zones?.find((z) => z.id === at.zone)?.area_m2);
  const p = piece.parts?.[at.part];
  return p?.kind === at.kind ? spelledSizes(p) : undefined;
}

function put(piece: Piece, at: Place, to: string | undefined): Piece {
  if ("part" in at) return to === undefined ? piece : withPart(piece, at.part, sizesOf(to));
  const zone = piece.zones?.find((z) => z.id === at.zone);
  return zone ? withZone(piece, { ...zone, area_m2: to === undefined ? undefined : Number(to) }) : piece;
}

/** read has the server read it; what is left out of sizes stays as it was. */
function read({ place, text, before }: Asked, signal: AbortSignal): Promise<string | undefined> {
  if ("zone" in place) {
    return answer(api.GET("/api/area", { params: { query: { text } }, signal })).then((a) => spelledArea(a.area_m2));
  }
  const { thick_cm, girth_cm, member_cm } = before ? sizesOf(before) : ({} as Partial<Part>);
  const query = { kind: place.kind, text, thick_cm, girth_cm, member_cm };
  return answer(api.GET("/api/sizes", { params: { query }, signal })).then(spelledSizes);
}

const key = (at: Place) => ("part" in at ? `part ${at.part}` : `zone ${at.zone}`);

/** AskedSizes are the sizes typed into a piece that is open. */
export class AskedSizes {
  private all = new Map<string, Asked>();
  private stops = new Map<string, AbortController>();
  private listeners = new Set<() => void>();
  private created = "";

  constructor(
    private readonly id: number,
    private readonly latest: () => Piece | undefined,
    private readonly change: (p: Piece) => void,
  ) {}

  listen = (f: () => void) => {
    this.listeners.add(f);
    return () => void this.listeners.delete(f);
  };

  of(at: Place): Asked | undefined {
    return this.all.get(key(at));
  }

  /** type takes what was typed, and has it read. */
  type(at: Place, text: string, before: string | undefined) {
    const now = this.latest();
    if (!now) return;
    this.set({ place: at, text, stands: spelled(now, at), before, is: "asked" });
    this.ask(key(at));
  }

  /** empty takes away what stands in a place. */
  empty(at: Place) {
    this.stops.get(key(at))?.abort();
    this.all.delete(key(at));
    const now = this.latest();
    if (now) this.change(put(now, at, undefined));
    this.keep();
  }

  /** resume takes up what this tab has kept of a piece, known by its time of making. */
  resume(created: string) {
    this.created = created;
    try {
      const kept = JSON.parse(sessionStorage.getItem(this.drawer()) ?? "null") as {
        created: string;
        all: Asked[];
      } | null;
      if (kept?.created !== created) return;
      for (const a of kept.all) {
        this.set(a);
        if (a.is !== "refused") this.ask(key(a.place));
      }
    } catch {
      // What cannot be read is not there.
    }
  }

  /** pause lets everything rest; what is not read yet is kept. */
  pause() {
    for (const s of this.stops.values()) s.abort();
  }

  private drawer() {
    return `rutile.asked.${this.id}`;
  }

  private keep() {
    for (const f of this.listeners) f();
    try {
      const all = [...this.all.values()].filter((a) => a.is !== "read");
      if (all.length) sessionStorage.setItem(this.drawer(), JSON.stringify({ created: this.created, all }));
      else sessionStorage.removeItem(this.drawer());
    } catch {
      // Without storage it lasts as long as the page.
    }
  }

  private set(a: Asked) {
    this.all.set(key(a.place), a);
    this.keep();
  }

  private ask(k: string) {
    this.stops.get(k)?.abort();
    const a = this.all.get(k);
    if (!a) return;
    const stop = new AbortController();
    this.stops.set(k, stop);
    read(a, stop.signal).then(
      (v) => stop.signal.aborted || this.settle(a, v, { ...a, stands: v, is: "read", says: undefined }),
      (e) => {
        if (stop.signal.aborted) return;
        if (e instanceof Refused) {
          // What stands there is then not whatever the half-typed text happened to say.
          this.settle(a, a.before, { ...a, stands: a.before, is: "refused", says: e.message });
          return;
        }
        this.set({ ...a, is: "away" });
        setTimeout(() => stop.signal.aborted || this.ask(k), RETRY);
      },
    );
  }

  /** settle puts a value in its place, unless something else was put there meanwhile. */
  private settle(a: Asked, v: string | undefined, then: Asked) {
    const now = this.latest();
    // Drawn at once, so that the field never shows anything but what was typed.
    flushSync(() => {
      if (now && spelled(now, a.place) === a.stands) {
        this.change(put(now, a.place, v));
        this.all.set(key(a.place), then);
      } else {
        this.all.delete(key(a.place));
      }
      this.keep();
    });
  }
}

const none = new AskedSizes(
  0,
  () => undefined,
  () => {},
);
export const AskedContext = createContext(none);

/** useAsked is what was typed in a place, while it holds over what stands there; and the sizes it belongs to. */
export function useAsked(at: Place, stands: string | undefined): [Asked | undefined, AskedSizes] {
  const sizes = useContext(AskedContext);
  const a = useSyncExternalStore(sizes.listen, () => sizes.of(at));
  return [a && a.stands === stands ? a : undefined, sizes];
}
