import { type Ref, useId, useMemo } from "react";
import type { Schemas } from "../api/client";
import { Cut, CutList } from "../section/Cut";
import { layCut } from "../section/layout";
import { FACE, faceShape, type Gauge, gaugesOf, spotsOn, wornDown } from "./geometry";

type Props = {
  section: Schemas["Section"];
  moment: number; // index of the section's faces
  wear: number; // of an edge, 0 to 1
  small?: boolean; // one of two side by side
  title: string;
  ref?: Ref<SVGSVGElement>;
};

const INK = "#2b2620";
const FOOT = 6;

/** BigCut is the large cross-section: its face as it ages, an edge as it wears, and the recoat windows. */
export function BigCut({ section, moment, wear, small, title, ref }: Props) {
  const id = useId().replaceAll(":", "");
  const width = small ? 176 : 360;
  const gauge = small ? 92 : 170;
  const names = small ? 118 : 210;
  const d = useMemo(
    () => layCut(section, width, small ? 235 : 285, "must fit", moment),
    [section, width, small, moment],
  );
  const worn = useMemo(() => wornDown(d, width, wear), [d, width, wear]);
  const face = section.faces?.[moment];
  const fresh = section.faces?.[0];
  const gauges = useMemo(() => gaugesOf(d, gauge - 14), [d, gauge]);
  const all = { w: gauge + width + FACE.along + 10 + names, h: d.height + FACE.up + FOOT };
  return (
    <>
      <svg
        ref={ref}
        viewBox={`0 0 ${all.w} ${all.h}`}
        width={all.w}
        height={all.h}
        className="h-auto max-w-full text-base-content"
        role="img"
        aria-label={title}
        fontSize="12"
      >
        <title>{title}</title>
        <defs>
          {worn && (
            <clipPath id={`w${id}`}>
              <path d={worn.clip} />
            </clipPath>
          )}
          <clipPath id={`f${id}`}>
            <path d={faceShape(d, width, wear)} />
          </clipPath>
        </defs>
        <g transform={`translate(0 ${FACE.up})`} className="font-sans">
          {gauges.map((g) => (
            <Window key={g.y} g={g} width={gauge - 14} small={small} />
          ))}
          <g transform={`translate(${gauge} 0)`}>
            {face && (
              <>
                <path
                  d={faceShape(d, width, wear)}
                  fill={face.spots ? fresh?.colour : face.colour}
                  stroke={INK}
                  strokeOpacity="0.35"
                />
                {face.spots && face.delta_e >= 0.5 && (
                  <g clipPath={`url(#f${id})`}>
                    {spotsOn(d, width).map((s) => (
                      <ellipse key={s.x} cx={s.x} cy={s.y} rx={s.r * 1.5} ry={s.r * 0.8} fill={face.colour} />
                    ))}
                  </g>
                )}
              </>
            )}
            {worn?.strips.map((s) => (
              <path key={s.key} d={s.d} fill={s.colour} stroke={INK} strokeOpacity="0.25" />
            ))}
            <g clipPath={worn && `url(#w${id})`}>
              <Cut section={section} drawing={d} width={width} />
            </g>
            {worn && <path d={worn.edge} stroke={INK} strokeOpacity="0.7" strokeWidth="1.6" fill="none" />}
          </g>
          <g transform={`translate(${gauge + width + FACE.along + 10} 0)`}>
            {d.bands.map((b) => (
              <text key={b.key} y={(b.top + b.bottom) / 2 + 4} fill="currentColor" fontSize={small ? 11 : 13}>
                {b.l.coat && b.l.coat > 1 ? `coat ${b.l.coat}` : short(b.l.name, small ? 20 : 32)}
              </text>
            ))}
          </g>
        </g>
      </svg>
      <CutList drawing={d} />
    </>
  );
}

const short = (s: string, n: number) => (s.length > n ? `${s.slice(0, n - 1)}…` : s);

/** Window is a recoat window: the bar from earliest to latest, and the mark of the plan. */
function Window({ g, width, small }: { g: Gauge; width: number; small?: boolean }) {
  const tone = g.inside ? "text-success" : "text-error";
  const y = g.y;
  return (
    <g className={tone}>
      <path d={`M0 ${y}H${width}`} stroke="currentColor" strokeOpacity="0.4" />
      <path d={`M${g.from} ${y}H${g.to}`} stroke="currentColor" strokeWidth="5" strokeOpacity={g.inside ? 0.55 : 0.3} />
      {g.open && <path d={`M${width - 7} ${y - 5}l7 5-7 5`} fill="none" stroke="currentColor" strokeWidth="1.4" />}
      <path d={`M${g.at - 5} ${y - 9}h10l-5 8z`} fill="currentColor" />
      <text x={0} y={y + 14} fill="currentColor" fontSize={small ? 10 : 11}>
        {small
          ? `${g.l.waits} of ${g.l.from}`
          : `${g.l.waits}; ${g.l.from_label ? "label" : "window"} ${g.l.from} to ${g.l.to ?? "any time"}`}
      </text>
    </g>
  );
}
