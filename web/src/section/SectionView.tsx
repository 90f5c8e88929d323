import type { Schemas } from "../api/client";
import { type LaidOut, layout, WIDTH } from "./layout";

type Props = { section: Schemas["Section"]; chosen?: number; onChoose: (step: number) => void };

const HOLDS: Record<"well" | "barely" | "not", string> = {
  well: "holds",
  barely: "holds barely",
  not: "will let go",
};

/** SectionView draws the cut through a zone's coats, and says the same as a list. */
export function SectionView({ section, chosen, onChoose }: Props) {
  const d = layout(section);
  return (
    <figure>
      <svg viewBox={`0 0 ${WIDTH} ${d.height}`} className="w-full" role="img" aria-label="Cut through the coats">
        <defs>
          <Textures group={section.layers[0]?.group ?? "wood"} />
          <linearGradient id="rise" x1="0" y1="1" x2="0" y2="0">
            <stop offset="0" stopColor="#fff" stopOpacity="1" />
            <stop offset="1" stopColor="#fff" stopOpacity="0.55" />
          </linearGradient>
        </defs>
        {d.layers.map((l) => (
          <LayerShape key={l.key} l={l} chosen={chosen !== undefined && l.step === chosen} onChoose={onChoose} />
        ))}
        {d.scratches.map((s) => (
          <path key={s} d={s} stroke="#2b3136" strokeOpacity="0.55" strokeWidth="1" fill="none" />
        ))}
        {d.stains.map((s) => (
          <path key={s.key} d={s.d} fill={s.colour} fillOpacity={s.opacity} />
        ))}
        {d.layers.map((l) => (
          <Seam key={l.key} l={l} />
        ))}
      </svg>
      <figcaption className="sr-only">
        <ol>
          {section.layers.map((l, i) => (
            // biome-ignore lint/suspicious/noArrayIndexKey: layers have no other identity than their place
            <li key={i}>
              {l.name}
              {l.microns > 0 && `, ${l.microns} micrometres`}
              {l.joint && `, ${HOLDS[l.joint.holds]} at ${l.joint.strength.toFixed(2)} of a full bond`}
              {l.soils && `, over ${l.soils.join(" and ")}`}
              {(l.stain ?? 0) >= 1 && `, stained through at ${l.stain?.toFixed(1)}`}
            </li>
          ))}
        </ol>
      </figcaption>
    </figure>
  );
}

function LayerShape({ l, chosen, onChoose }: { l: LaidOut; chosen: boolean; onChoose: (step: number) => void }) {
  const ink = chosen ? "#7d2f1c" : "#2b3136";
  return (
    // biome-ignore lint/a11y/noStaticElementInteractions: the list of steps offers the same by keyboard
    <g onClick={() => l.step && onChoose(l.step)} className={l.step ? "cursor-pointer" : ""}>
      <path d={l.shape} fill={l.fill} fillOpacity={l.clear ? 0.55 : 1} stroke={ink} strokeOpacity={chosen ? 1 : 0.35} />
      {l.texture && <path d={l.shape} fill="url(#texture)" />}
      {l.clear && <path d={l.sheen} stroke="#fff" strokeWidth="1.5" strokeOpacity="0.9" fill="none" />}
      <path d={l.leader} stroke={ink} strokeOpacity="0.5" fill="none" />
      <text x={l.labelX} y={l.labelY} fontSize="13" fill={ink} fontWeight={chosen ? 700 : 500}>
        {l.label}
      </text>
      {l.note && (
        <text x={l.labelX} y={l.labelY + 14} fontSize="11.5" fill="#43525b">
          {l.note}
        </text>
      )}
    </g>
  );
}

/** Seam is the boundary under a layer: a firm line, a broken one, or a gap. */
function Seam({ l }: { l: LaidOut }) {
  if (!l.seam) return null;
  return (
    <g>
      {l.holds === "not" && <path d={l.seam} stroke="#fbf8f2" strokeWidth="5" fill="none" />}
      <path
        d={l.seam}
        stroke={l.holds === "well" ? "#2b3136" : l.holds === "barely" ? "#8a5a06" : "#a3261b"}
        strokeWidth={l.holds === "well" ? 1.2 : 2.4}
        strokeDasharray={l.holds === "barely" ? "9 6" : undefined}
        fill="none"
      />
      {l.dirt.map((p) => (
        <circle key={`${p.x}-${p.y}`} cx={p.x} cy={p.y} r={p.r} fill="#4d4030" />
      ))}
    </g>
  );
}

/** Textures tell a material by its marks. */
function Textures({ group }: { group: string }) {
  const marks: Record<string, string> = {
    wood: "M0 6c12-4 24 4 40 0M0 16c10 4 28-5 40 1M0 26c14-3 22 5 40-1M0 35c12 3 26-3 40 1",
    board: "M4 4l6 3M20 2l5 6M33 9l5-4M8 18l7-2M24 17l4 6M3 30l6 4M18 29l7-3M32 27l4 6",
    cane: "M0 10h40M0 30h40M10 0v40M30 0v40M0 0l40 40M40 0L0 40",
    "laminate and vinyl": "M0 8h40M0 16h40M0 24h40M0 32h40",
    "cloth and leather": "M0 5q5-5 10 0t10 0 10 0 10 0M0 20q5-5 10 0t10 0 10 0 10 0M0 35q5-5 10 0t10 0 10 0 10 0",
    metal: "M0 40L40 0M-10 10L10-10M30 50L50 30M0 20L20 0M20 40L40 20",
    glass: "M4 36L20 4M14 38L30 6",
    mineral: "M6 8h.1M20 5h.1M33 12h.1M12 20h.1M27 22h.1M5 31h.1M18 34h.1M35 33h.1",
    plastic: "M0 20h40",
  };
  return (
    <pattern id="texture" width="40" height="40" patternUnits="userSpaceOnUse">
      <path
        d={marks[group] ?? marks.wood}
        stroke="#2b3136"
        strokeOpacity="0.28"
        strokeWidth={group === "mineral" ? 4 : 1.2}
        strokeLinecap="round"
        fill="none"
      />
    </pattern>
  );
}
