import { useId } from "react";
import type { Schemas } from "../api/client";
import { PLANNED } from "../section/Cut";
import { layCut } from "../section/layout";
import { Texture } from "../section/texture";

const WIDTH = 132;
const HEIGHT = 92;

/** Block is a zone as a sample block: a small cross-section without words. */
export function Block({ zone }: { zone: Schemas["ZoneSummary"] }) {
  const id = useId().replaceAll(":", "");
  const d = layCut({ layers: zone.layers, marks: [], source: ["stain"], worn: [] }, WIDTH, HEIGHT, "must fit");
  return (
    <svg
      viewBox={`0 0 ${WIDTH} ${d.height}`}
      className="block w-full"
      preserveAspectRatio="xMidYMax meet"
      aria-hidden="true"
    >
      <defs>
        <Texture id={id} mark={zone.layers[0]?.mark ?? "wood"} />
      </defs>
      {d.bands.map((b) => (
        <g key={b.key}>
          {b.under && <path d={b.under} fill="#f3f1ea" />}
          <path
            d={b.shape}
            fill={b.l.colour ?? (b.l.clear ? "#efe6cf" : "#f3f1ea")}
            fillOpacity={b.planned ? PLANNED : undefined}
            stroke="#2b2620"
            strokeOpacity="0.35"
            strokeDasharray={b.planned ? "4 3" : undefined}
          />
          {b.l.kind === "substrate" && <path d={b.shape} fill={`url(#${id})`} />}
        </g>
      ))}
      {d.stains.map((s) => (
        <path key={s.key} d={s.d} fill={s.colour} fillOpacity={s.opacity} />
      ))}
      {d.bands.map((b) =>
        b.gap ? (
          <path
            key={b.key}
            d={b.gap}
            className={`fill-base-100 ${b.holds === "not" ? "stroke-error" : "stroke-warning"}`}
            strokeWidth="1.600"
          />
        ) : null,
      )}
    </svg>
  );
}
