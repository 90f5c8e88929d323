import { memo, useId, useRef } from "react";
import type { Overview, Piece } from "../api/client";
import { zoneTitle } from "../piece/edit";
import { Texture } from "../section/texture";

type Props = {
  overview: Overview;
  piece: Pick<Piece, "parts" | "zones">;
  width: number; // of the drawing, in pixels, at most
  height: number;
  chosen?: number[]; // indices of parts
  onPress?: (part: number, more: boolean) => void; // more: add to the selection
  onOpen?: (zone: string) => void; // double-clicked
};

const LOOSE = "#ece5d8"; // painted parts without a zone
const MARGIN = 4; // px

/**
 * Elevation is the front view to scale, each part in the colour and pattern of its zone. It is one stop of the Tab
 * key; arrow keys move between its parts.
 */
export const Elevation = memo(function Elevation({ overview, piece, width, height, chosen, onPress, onOpen }: Props) {
  const id = useId().replaceAll(":", "");
  const cells = useRef(new Map<number, SVGGElement>());
  const { w_cm: w, h_cm: h, shapes } = overview.elevation;
  if (!shapes.length) return null;
  const k = Math.min((width - 2 * MARGIN) / w, (height - 2 * MARGIN) / h);
  const size = { w: w * k + 2 * MARGIN, h: h * k + 2 * MARGIN };
  const parts = piece.parts ?? [];
  const zoneOf = (part: number) => overview.zones.findIndex((z) => z.id === parts[part]?.zone);
  const order = [...new Set(shapes.map((s) => s.part))].sort((a, b) => a - b);
  const stop = chosen?.find((c) => order.includes(c)) ?? order[0];
  // Painted parts without a zone are drawn with dashed lines where they can be put into one.
  const open = (part: number) => onPress && zoneOf(part) < 0 && !!overview.parts[part]?.painted.length;
  const says = (part: number) => {
    const z = piece.zones?.find((x) => x.id === parts[part]?.zone);
    const l = overview.parts[part];
    return `${l?.title}, ${l?.area}, ${z ? `zone ${zoneTitle(z)}` : "no zone yet"}`;
  };
  const walk = (from: number, by: number) => {
    const next = order[(order.indexOf(from) + by + order.length) % order.length];
    if (next !== undefined) cells.current.get(next)?.focus();
  };
  const drawn = (part: number) => {
    const z = zoneOf(part);
    const on = chosen?.includes(part);
    const painted = overview.parts[part]?.painted.length;
    return shapes
      .filter((s) => s.part === part)
      .map((s) => (
        <g key={s.n}>
          <path
            d={s.d}
            fillRule="evenodd"
            fill={overview.zones[z]?.colour ?? LOOSE}
            fillOpacity={painted || z >= 0 ? 1 : 0.55}
            stroke="#2b2620"
            strokeOpacity={open(part) ? 0.9 : 0.6}
            strokeDasharray={open(part) ? "5 4" : undefined}
            vectorEffect="non-scaling-stroke"
          />
          {z >= 0 && <path d={s.d} fillRule="evenodd" fill={`url(#${id}z${z})`} />}
          {s.recess && <path d={s.d} fillRule="evenodd" fill="#1a1510" fillOpacity="0.38" />}
          {s.lines && (
            <path d={s.lines} fill="none" stroke="#2b2620" strokeOpacity="0.45" vectorEffect="non-scaling-stroke" />
          )}
          {on && (
            <path
              d={s.d}
              fillRule="evenodd"
              fill="#8a6a1f"
              fillOpacity="0.16"
              className="stroke-primary"
              strokeWidth="3"
              vectorEffect="non-scaling-stroke"
            />
          )}
        </g>
      ));
  };
  // Drawn in the order of the shapes: those in front come last, and each part is one thing to click.
  const layers: number[] = [];
  for (const s of shapes) if (layers.at(-1) !== s.part) layers.push(s.part);
  const seen = new Set<number>();
  return (
    <svg
      viewBox={`${-MARGIN} ${-MARGIN} ${size.w} ${size.h}`}
      width={size.w}
      height={size.h}
      className="block max-w-full touch-manipulation"
      role={onPress ? "group" : "img"}
      aria-label={`Front view, ${overview.elevation.says}`}
    >
      <defs>
        {overview.zones.map((z, i) => (
          <Texture key={z.id} id={`${id}z${i}`} mark={z.mark} size={40 / k} />
        ))}
      </defs>
      <g transform={`scale(${k})`}>
        {layers.map((part) => {
          if (seen.has(part)) return null;
          seen.add(part);
          const zone = parts[part]?.zone;
          if (!onPress) return <g key={part}>{drawn(part)}</g>;
          return (
            // biome-ignore lint/a11y/useSemanticElements: a button cannot stand in a drawing
            <g
              key={part}
              ref={(e) => {
                if (e) cells.current.set(part, e);
                return () => void cells.current.delete(part);
              }}
              role="button"
              tabIndex={part === stop ? 0 : -1}
              data-part={part}
              aria-pressed={chosen?.includes(part) ?? false}
              aria-label={says(part)}
              className="cursor-pointer outline-none [&:focus-visible>g>path:first-child]:stroke-accent [&:focus-visible>g>path:first-child]:[stroke-width:4px]"
              onClick={(e) => onPress(part, e.shiftKey || e.ctrlKey || e.metaKey)}
              onDoubleClick={() => zone && onOpen?.(zone)}
              onKeyDown={(e) => {
                if (e.key === "Enter" || e.key === " ") onPress(part, e.shiftKey || e.ctrlKey);
                else if (e.key === "ArrowRight" || e.key === "ArrowDown") walk(part, 1);
                else if (e.key === "ArrowLeft" || e.key === "ArrowUp") walk(part, -1);
                else return;
                e.preventDefault();
                e.stopPropagation();
              }}
            >
              <title>{says(part)}</title>
              {drawn(part)}
            </g>
          );
        })}
      </g>
    </svg>
  );
}, alike);

const named = (p: Props["piece"]) => p.zones?.map((z) => `${z.id} ${z.name}`).join("\n");

/** Of the zones only their names are used. */
function alike({ piece: a, ...x }: Props, { piece: b, ...y }: Props): boolean {
  return (
    (Object.keys({ ...x, ...y }) as (keyof typeof x)[]).every((k) => x[k] === y[k]) &&
    a.parts === b.parts &&
    named(a) === named(b)
  );
}
