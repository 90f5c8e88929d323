import type { Zone, ZoneOverview } from "../api/client";
import { TypedField } from "../session/TypedField";
import { spelledArea } from "../session/typed";
import { area, useUnits } from "../ui/units";

type Props = {
  zone: Zone;
  overview: ZoneOverview | undefined; // the total of its parts
  onParts: () => void; // uses that
};

/**
 * AreaField takes an area as people write it: 120 x 45 cm, 4 ft 2 in by 18, 0.6. Empty, it is the total of the parts.
 */
export function AreaField({ zone, overview, onParts }: Props) {
  const u = useUnits();
  const how =
    u === "us" ? "For example 48 x 18, 4'2\" x 18 in, or 6 sq ft" : "For example 120 x 45 cm, 3 x 80 x 18, or 0.6 m²";
  const parts = overview?.parts ? `From its parts: ${area(overview.parts_m2, u)}` : undefined;
  return (
    <div>
      <TypedField
        label="Area"
        name="area_m2"
        at={{ zone: zone.id }}
        stands={spelledArea(zone.area_m2)}
        show={(m2) => area(Number(m2), u)}
        placeholder={overview?.parts ? area(overview.parts_m2, u) : undefined}
        hint={parts ? `${parts}; type to override it` : how}
      />
      {zone.area_m2 !== undefined && parts && (
        <button data-do="from-parts" type="button" className="link link-primary -mt-1 mb-2 text-sm" onClick={onParts}>
          {parts}. Use that
        </button>
      )}
    </div>
  );
}
