import type { Part, Piece } from "../api/client";
import { withPart, withZone } from "../piece/edit";

// Sizes are typed as people write them and read by the server. Between the two the server may be away, the field shut
// or the page loaded anew: what was typed waits in the session, and goes to its place once it has been read.

/** Place is where a size is typed: at a part, or as the area of a zone. */
export type Place = { part: number; kind: string } | { zone: string };

/** Typed is a size as it was typed. It holds while what it was typed over, or what it came to, stands in its place. */
export type Typed = {
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

/** spelledSizes and spelledArea write what stands in a place so that it can be compared. */
export const spelledSizes = (p: Partial<Part>) => JSON.stringify(SIZES.map((s) => p[s] ?? 0));
export const spelledArea = (m2: number | undefined) => (m2 ? JSON.stringify(m2) : undefined);

/** sizesOf are spelled sizes by their fields. */
export function sizesOf(spelled: string): Partial<Part> {
  const all = JSON.parse(spelled) as number[];
  return Object.fromEntries(SIZES.map((s, i) => [s, all[i] || undefined]));
}

/** spelled is what stands in a place of a piece; undefined for nothing. */
export function spelled(piece: Piece, at: Place): string | undefined {
  if ("zone" in at) return spelledArea(piece.zones?.find((z) => z.id === at.zone)?.area_m2);
  const p = piece.parts?.[at.part];
  return p?.kind === at.kind ? spelledSizes(p) : undefined;
}

/** withSpelled is a piece with something else in a place. */
export function withSpelled(piece: Piece, at: Place, to: string | undefined): Piece {
  if ("part" in at) return to === undefined ? piece : withPart(piece, at.part, sizesOf(to));
  const zone = piece.zones?.find((z) => z.id === at.zone);
  return zone ? withZone(piece, { ...zone, area_m2: to === undefined ? undefined : Number(to) }) : piece;
}

/** keyOf tells places apart. */
export const keyOf = (at: Place) => ("part" in at ? `part ${at.part}` : `zone ${at.zone}`);
