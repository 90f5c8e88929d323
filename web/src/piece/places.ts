import type { PieceView } from "../look/PieceLook";
import type { FieldName } from "./desk";

/** Place is where a field is filled in: a view of the zone, or of the whole piece. */
type Place = { view: string } | { piece: PieceView };

/** PLACES has a place for every field that the server may ask for. There, what is named after the field takes the focus. */
export const PLACES: Record<FieldName, Place> = {
  substrate: { view: "look-over" },
  veneer: { view: "look-over" },
  finish: { view: "look-over" },
  gloss: { view: "look-over" },
  area_m2: { view: "look-over" },
  moisture_pct: { view: "look-over" },
  age_days: { view: "look-over" },
  colour: { view: "look-over" },
  soils: { view: "look-over" },
  bleeders: { view: "look-over" },
  defects: { view: "look-over" },
  target: { view: "look-over" },
  look: { view: "look-over" },
  sheen: { view: "look-over" },
  wear: { view: "look-over" },
  use: { view: "look-over" },
  site: { view: "look-over" },
  parts: { piece: "parts" },
  take_apart: { piece: "apart" },
  identify: { view: "identify" },
  evidence: { view: "identify" },
  lead_test: { view: "lead" },
  test: { view: "patches" },
  steps: { view: "plan" },
  way: { view: "ways" },
  shelf: { view: "ways" },
};

/** placeOf is the address where a field of a zone is filled in. */
export function placeOf(piece: number, zone: string, field: FieldName): string {
  const at = PLACES[field];
  return "piece" in at ? `/pieces/${piece}/-/${at.piece}#${field}` : `/pieces/${piece}/${zone}/${at.view}#${field}`;
}
