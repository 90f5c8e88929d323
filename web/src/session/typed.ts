import type { Part, Piece } from "../api/client";
import { withPart, withZone } from "../piece/edit";

// Sizes are typed as people write them and read by the server. In between, the server may be unreachable, the field
// closed or the page reloaded: the text waits in the session, and goes to its place once it has been read.

/** Place is where a size is typed: at a part, or as the area of a zone. */
export type Place = { part: number; kind: string } | { zone: string };

/** Typed is a size as it was typed. It counts while the value it replaced, or its own value, is in its place. */
export type Typed = {
  place: Place;
  text: string;
  stands: string | undefined;
  before: string | undefined; // the value when typing began
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

/** spelledSizes and spelledArea serialize a place's value, for comparing. */
export const spelledSizes = (p: Partial<Part>) => JSON.stringify(SIZES.map((s) => p[s] ?? 0));
export const spelledArea = (m2: number | undefined) => (m2 ? JSON.stringify(m2) : undefined);

/** sizesOf are serialized sizes by their fields. */
export function sizesOf(spelled: string): Partial<Part> {
  const all = JSON.parse(spelled) as number[];
  return Object.fromEntries(SIZES.map((s, i) => [s, all[i] || undefined]));
}

/** spelled is the serialized value of a place; undefined for none. */
export function spelled(piece: Piece, at: Place): string | undefined {
  if ("zone" in at) return spelledArea(piece.zones?.find((z) => z.id === at.zone)?.area_m2);
  const p = piece.parts?.[at.part];
  return p?.kind === at.kind ? spelledSizes(p) : undefined;
}

/** withSpelled is a piece with another value in a place. */
export function withSpelled(piece: Piece, at: Place, to: string | undefined): Piece {
  if ("part" in at) return to === undefined ? piece : withPart(piece, at.part, sizesOf(to));
  const zone = piece.zones?.find((z) => z.id === at.zone);
  return zone ? withZone(piece, { ...zone, area_m2: to === undefined ? undefined : Number(to) }) : piece;
}

/** keyOf identifies places. */
export const keyOf = (at: Place) => ("part" in at ? `part ${at.part}` : `zone ${at.zone}`);
