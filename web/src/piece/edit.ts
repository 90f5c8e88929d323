import type { Part, Piece, Zone } from "../api/client";

/** zoneTitle is what a zone is called: its name, or its id written as words. */
export const zoneTitle = (z: { name?: string; id: string }): string => {
  const words = z.id.split(/[-_]+/).join(" ").trim();
  return z.name || words.charAt(0).toUpperCase() + words.slice(1);
};

// Changes to a piece that touch more than one of its lists and keep them consistent.

/** ofZones is a piece with only these zones and their parts, to be checked on its own. */
export function ofZones(piece: Piece, zones: Zone[]): Piece {
  return {
    ...piece,
    zones,
    parts: piece.parts?.filter((p) => zones.some((z) => z.id === p.zone)),
    take_apart: piece.take_apart?.filter((f) =>
      f.zone ? zones.some((z) => z.id === f.zone) : zones.length === piece.zones?.length,
    ),
    photos: undefined,
  };
}

/** withoutZone removes a zone; its parts and photographs stay, without a zone. */
export function withoutZone(piece: Piece, id: string): Piece {
  const gone = new Set(labels(piece.zones?.find((z) => z.id === id)));
  return unmarked(
    {
      ...piece,
      zones: (piece.zones ?? []).filter((z) => z.id !== id),
      parts: piece.parts?.map((p) => (p.zone === id ? { ...p, zone: undefined } : p)),
      photos: piece.photos?.map((f) => (f.zone === id ? { ...f, zone: undefined } : f)),
      take_apart: piece.take_apart?.map((f) => (f.zone === id ? { ...f, zone: undefined } : f)),
    },
    gone,
  );
}

/** joined moves a zone's parts, damage and photographs to another; its survey and plan are removed. */
export function joined(piece: Piece, id: string, to: string): Piece {
  const from = piece.zones?.find((z) => z.id === id);
  return {
    ...piece,
    zones: (piece.zones ?? [])
      .filter((z) => z.id !== id)
      .map((z) => (z.id === to && from?.defects ? { ...z, defects: [...(z.defects ?? []), ...from.defects] } : z)),
    parts: piece.parts?.map((p) => (p.zone === id ? { ...p, zone: to } : p)),
    photos: piece.photos?.map((f) => (f.zone === id ? { ...f, zone: to } : f)),
    take_apart: piece.take_apart?.map((f) => (f.zone === id ? { ...f, zone: to } : f)),
  };
}

/** split makes a zone of some parts of another: with the same survey, and no plan. */
export function split(piece: Piece, from: string, parts: number[]): { piece: Piece; id: string } {
  const zones = piece.zones ?? [];
  const old = zones.find((z) => z.id === from);
  if (!old) return { piece, id: from };
  const first = piece.parts?.[parts[0] ?? 0];
  const name = first?.name || `${zoneTitle(old)} 2`;
  const id = zoneID(
    name,
    zones.map((z) => z.id),
  );
  const own: Zone = { ...old, id, name, area_m2: undefined, defects: undefined, acknowledged: undefined, steps: [] };
  own.patches = undefined; // they stay where they were made
  own.readings = undefined;
  return { piece: assigned({ ...piece, zones: [...zones, own] }, parts, id), id };
}

/** assigned puts parts into a zone, or into none. */
export function assigned(piece: Piece, parts: number[], zone: string | undefined): Piece {
  return { ...piece, parts: piece.parts?.map((p, i) => (parts.includes(i) ? { ...p, zone } : p)) };
}

/** withPart changes some fields of a part. */
export function withPart(piece: Piece, n: number, change: Partial<Part>): Piece {
  return { ...piece, parts: piece.parts?.map((p, i) => (i === n ? { ...p, ...change } : p)) };
}

/** withZone changes a zone; markers whose damage is gone point at nothing. */
export function withZone(piece: Piece, zone: Zone): Piece {
  const before = labels(piece.zones?.find((z) => z.id === zone.id));
  const now = labels(zone);
  return unmarked(
    { ...piece, zones: (piece.zones ?? []).map((z) => (z.id === zone.id ? zone : z)) },
    new Set(before.filter((l) => !now.includes(l))),
  );
}

function labels(z: Zone | undefined): string[] {
  return (z?.defects ?? []).flatMap((d) => d.label ?? []);
}

function unmarked(piece: Piece, gone: Set<string>): Piece {
  if (!gone.size || !piece.photos?.some((f) => f.markers?.some((m) => m.defect && gone.has(m.defect)))) return piece;
  return {
    ...piece,
    photos: piece.photos.map((f) => ({
      ...f,
      markers: f.markers?.map((m) => (m.defect && gone.has(m.defect) ? { ...m, defect: undefined } : m)),
    })),
  };
}

/** nextLabel is the first letter, or two, that no damage of the piece has. */
export function nextLabel(piece: Piece): string {
  const taken = new Set((piece.zones ?? []).flatMap(labels));
  for (let n = 0; ; n++) {
    const letter = String.fromCharCode(65 + (n % 26));
    const label = n < 26 ? letter : `${letter}${Math.floor(n / 26) + 1}`;
    if (!taken.has(label)) return label;
  }
}

/** zoneID makes an id from a name, unique in the piece. */
export function zoneID(name: string, taken: string[]): string {
  const base =
    name
      .normalize("NFKD")
      .toLowerCase()
      .replace(/[^a-z0-9]+/g, "-")
      .replace(/^-+|-+$/g, "")
      .slice(0, 32) || "zone";
  let id = base;
  for (let n = 2; taken.includes(id); n++) id = `${base}-${n}`;
  return id;
}
