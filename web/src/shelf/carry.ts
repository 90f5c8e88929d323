import type { Can, Piece, Schemas } from "../api/client";

// The cans that the page has seen, by their ids: a plan that names one gets a copy of it into its piece.
const seen = new Map<string, Can>();

/** remember keeps cans for pieces whose plans name them. */
export function remember(cans: Can[]) {
  for (const c of cans) seen.set(c.id, c);
}

/** bare is a can of the shelf as a file has it. */
export function bare(c: Schemas["ShelfCan"] | Can): Can {
  const { id, kind, name, colour, sheen, size_l, left_l, opened, bought, batch, label } = c;
  const { mixed_from, mixed, reserved_id, reserved_for } = c;
  const all = { id, kind, name, colour, sheen, size_l, left_l, opened, bought, batch, label };
  return { ...all, mixed_from, mixed, reserved_id, reserved_for };
}

/**
 * carried is a piece with a copy of every can that its plans name, and of the bonding additive where a coat takes it,
 * and with no others. It is the same piece where nothing is missing.
 */
export function carried(piece: Piece): Piece {
  const steps = (piece.zones ?? []).flatMap((z) => z.steps ?? []);
  const named = new Set(steps.flatMap((s) => s.can ?? []));
  const additive = steps.some((s) => s.additive);
  const have = piece.cans ?? [];
  if (!named.size && !have.length) return piece;
  const keep = (c: Can) => named.has(c.id) || (c.kind === ADDITIVE && additive && named.size > 0);
  const kept = have.filter(keep);
  const more = [...seen.values()].filter((c) => keep(c) && !have.some((h) => h.id === c.id)).map(bare);
  if (kept.length === have.length && !more.length) return piece;
  const cans = [...kept, ...more];
  return { ...piece, cans: cans.length ? cans : undefined };
}

/** ADDITIVE is the kind of the bonding additive. */
export const ADDITIVE = "bonding_additive";
