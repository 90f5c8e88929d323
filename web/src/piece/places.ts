import type { PieceView } from "../overview/PieceOverview";
import type { FieldName } from "./workspace";

/** Place is where a field is filled in: a view of the zone, or of the whole piece. */
type Place = { view: string } | { piece: PieceView };

/**
 * PLACES has a place for every field that the server may ask for. There, the element named after the field gets the
 * focus.
 */
export const PLACES: Record<FieldName, Place> = {
  substrate: { view: "survey" },
  veneer: { view: "survey" },
  prepared: { view: "survey" },
  finish: { view: "survey" },
  gloss: { view: "survey" },
  area_m2: { view: "survey" },
  moisture_pct: { view: "survey" },
  age_days: { view: "survey" },
  colour: { view: "survey" },
  soils: { view: "survey" },
  bleeders: { view: "survey" },
  defects: { view: "survey" },
  target: { view: "survey" },
  look: { view: "survey" },
  sheen: { view: "survey" },
  wear: { view: "survey" },
  use: { view: "survey" },
  site: { view: "survey" },
  parts: { piece: "parts" },
  take_apart: { piece: "disassembly" },
  identify: { view: "identify" },
  evidence: { view: "identify" },
  lead_test: { view: "lead" },
  test: { view: "patches" },
  steps: { view: "plan" },
  way: { view: "compare" },
  shelf: { view: "compare" },
  kit: { view: "compare" },
  can: { view: "amounts" },
};

/** placeOf is the address where a field of a zone is filled in. */
export function placeOf(piece: number, zone: string, field: FieldName): string {
  const at = PLACES[field];
  return "piece" in at ? `/pieces/${piece}/-/${at.piece}#${field}` : `/pieces/${piece}/${zone}/${at.view}#${field}`;
}
