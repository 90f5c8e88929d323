import { useId, useRef, useState } from "react";
import type { Schemas, Verdict } from "../api/client";
import { JointSign } from "../ui/Mark";
import { film, type Units, useUnits } from "../ui/units";
import type { Band, Drawing, Layer } from "./layout";
import { lightOn, Texture } from "./texture";

type Props = {
  section: Schemas["Section"];
  drawing: Drawing;
  width: number;
  chosen?: number; // step, from 1
  faults?: { y: number; verdict: Verdict }[]; // where findings are
  onHover?: (band: Band | undefined) => void;
  onChoose?: (band: Band) => void;
};

/**
 * Cut draws the cross-section of a zone's coats. Its layers can be hovered, walked with the arrow keys and clicked.
 */
export function Cut({ section, drawing, width, chosen, faults, onHover, onChoose }: Props) {
  const id = useId().replaceAll(":", "");
  const u = useUnits();
  const [at, setAt] = useState(0);
  const cells = useRef(new Map<number, SVGGElement>());
  const bands = drawing.bands;
  const here = Math.min(at, bands.length - 1);
  const walk = (to: number) => {
    if (to < 0 || to >= bands.length) return;
    setAt(to);
    cells.current.get(to)?.focus();
  };
  return (
    // biome-ignore lint/a11y/useSemanticElements: a fieldset cannot stand in a drawing
    <svg
      width={width}
      height={drawing.height}
      viewBox={`0 0 ${width} ${drawing.height}`}
      className="block max-w-full overflow-hidden text-base-content"
      role="group"
      aria-label="Cross-section through the coats, from the bottom up"
    >
      <defs>
        <Texture id={`t${id}`} mark={section.layers[0]?.mark ?? "wood"} />
      </defs>
      {bands.map((b, i) => (
        // biome-ignore lint/a11y/noStaticElementInteractions: it is a button wherever it can be pressed
        <g
          key={b.key}
          ref={(e) => {
            if (e) cells.current.set(i, e);
            return () => void cells.current.delete(i);
          }}
          data-band={i}
          role={onChoose ? "button" : "img"}
          tabIndex={onChoose ? (i === here ? 0 : -1) : undefined}
          aria-label={bandSays(b, u)}
          className={`outline-none ${onChoose ? "cursor-pointer" : ""} focus-visible:[&>.rim]:stroke-accent focus-visible:[&>.rim]:opacity-100`}
          onPointerEnter={() => onHover?.(b)}
          onPointerLeave={() => onHover?.(undefined)}
          onFocus={() => {
            setAt(i);
            onHover?.(b);
          }}
          onBlur={() => onHover?.(undefined)}
          onClick={() => onChoose?.(b)}
          onKeyDown={(e) => {
            if (e.key === "Enter" || e.key === " ") onChoose?.(b);
            else if (e.key === "ArrowUp") walk(i + 1);
            else if (e.key === "ArrowDown") walk(i - 1);
            else return;
            e.preventDefault();
            e.stopPropagation();
          }}
        >
          <BandShape b={b} texture={b.l.kind === "substrate" ? `t${id}` : undefined} above={bands[i + 1]} />
          <path
            className={`rim ${chosen !== undefined && b.l.step === chosen ? "stroke-primary" : "opacity-0"}`}
            d={b.shape}
            fill="none"
            strokeWidth="3"
          />
        </g>
      ))}
      {/* biome-ignore lint/a11y/noAriaHiddenOnFocusable: nothing in it takes the focus */}
      <g pointerEvents="none" aria-hidden="true">
        {drawing.stains.map((s) => (
          <path key={s.key} d={s.d} fill={s.colour} fillOpacity={s.opacity} />
        ))}
        {bands.map((b) => (
          <g key={b.key}>
            <Seam b={b} />
            <Figures b={b} u={u} width={width} />
          </g>
        ))}
        {faults?.map((f) => (
          <g key={f.y} transform={`translate(${width / 2 - 12} ${Math.max(1, f.y - 12)})`}>
            <circle cx="12" cy="12" r="13" className="fill-base-100" stroke="#2b2620" strokeOpacity="0.35" />
            <g transform="translate(3.500 3.500) scale(0.71)">
              <JointSign verdict={f.verdict} />
            </g>
          </g>
        ))}
      </g>
    </svg>
  );
}

function BandShape({ b, texture, above }: { b: Band; texture?: string; above?: Band }) {
  const { l } = b;
  const fill = fillOf(b);
  const ink = inkOn(fill);
  return (
    <>
      {b.under && <path d={b.under} fill={above?.l.colour ?? "#f3f1ea"} />}
      <path
        d={b.shape}
        fill={fill}
        fillOpacity={b.planned ? PLANNED : undefined}
        stroke="#2b2620"
        strokeOpacity={b.planned ? 0.7 : 0.3}
        strokeDasharray={b.planned ? "5 4" : undefined}
      />
      {texture && <path d={b.shape} fill={`url(#${texture})`} />}
      {l.clear && <path d={b.sheen} stroke="#fff" strokeWidth="1.8" strokeOpacity="0.9" fill="none" />}
      {b.scratches && <path d={b.scratches} stroke={ink} strokeOpacity="0.6" strokeWidth="1" fill="none" />}
    </>
  );
}

/** PLANNED is how opaque a coat is drawn that is still to be laid, where others were. */
export const PLANNED = 0.35;

const fillOf = ({ l }: Band) => l.colour ?? (l.clear ? "#efe6cf" : "#f3f1ea");
const inkOn = (fill: string, pale = false) => (!pale && lightOn(fill) ? "#fdf8ec" : "#2b2620");

/** Figures are in a layer: its thickness, and its waiting time. */
function Figures({ b, u, width }: { b: Band; u: Units; width: number }) {
  const { l } = b;
  if (b.bottom - b.top < 14 || l.kind === "substrate" || l.spots || width <= 110) return null;
  const y = (b.top + b.bottom) / 2 + 4;
  return (
    <g fontSize="11" fill={inkOn(fillOf(b), b.planned)} className="font-sans">
      {l.microns > 0 && (
        <text x="7" y={y}>
          {film(l.microns, u)}
        </text>
      )}
      {l.waits_h ? (
        <text x={width - 7} y={y} textAnchor="end">
          {l.waits}
        </text>
      ) : null}
    </g>
  );
}

/** Seam is the boundary under a layer: a firm line, a broken one with one end lifted, or one that comes off. */
function Seam({ b }: { b: Band }) {
  if (!b.seam) return null;
  const tone = { well: "stroke-[#2b2620]", barely: "stroke-warning", not: "stroke-error", meant: "stroke-accent" }[
    b.holds ?? "well"
  ];
  return (
    <g>
      <path
        d={b.seam}
        className={tone}
        strokeWidth={b.holds === "well" ? 1.2 : 2.6}
        strokeDasharray={b.holds === "barely" ? "9 5" : b.holds === "meant" ? "3 3" : undefined}
        fill="none"
      />
      {b.gap && <path d={b.gap} className={`fill-base-100 ${tone}`} strokeWidth="1.6" />}
      {b.driven && <path d={b.driven} stroke="#3a3024" strokeWidth="1.6" strokeLinecap="round" fill="none" />}
      {b.dirt.map((p) => (
        <circle key={`${p.x}-${p.y}`} cx={p.x} cy={p.y} r={p.r} fill="#3a3024" />
      ))}
    </g>
  );
}

/** HOLDS says how a bond holds. */
export const HOLDS: Record<string, string> = {
  well: "holds",
  barely: "hardly holds",
  not: "will peel",
  meant: "is meant to flake",
};

/** byLabel marks a window that is from the label of a can. */
export const byLabel = (l: Layer) => (l.from_label ? ", from the label" : "");

/** bandSays is a layer in words: for screen readers and while it is pointed at. */
export function bandSays({ l, planned }: Band, u: Units): string {
  const out = [l.coat && l.coat > 1 ? `${l.name}, coat ${l.coat}` : l.name];
  if (l.kind === "finish") out.push("present finish");
  if (l.kind === "substrate") out.push("the material");
  if (l.microns > 0) out.push(film(l.microns, u));
  if (planned) out.push("still to be laid");
  if (l.spots) out.push("on the spots only");
  if (l.joint) out.push(HOLDS[l.joint.holds] ?? "");
  if (l.soils?.length) out.push(`over ${l.soils.join(" and ")}${l.driven?.length ? ", rubbed in" : ""}`);
  if (l.stain_words) out.push(l.stain_words);
  if (l.grit) out.push(`sanded with ${l.grit}`);
  if (l.waits_h) {
    const last = l.from_h === undefined;
    out.push(last ? `then ${l.waits} to the end` : `${l.waits} until the next coat`);
  }
  if (l.from) out.push((l.to ? `window ${l.from} to ${l.to}` : `window from ${l.from}`) + byLabel(l));
  return out.join("; ");
}

/** CutList lists all layers. */
export function CutList({ drawing }: { drawing: Drawing }) {
  const u = useUnits();
  return (
    <ol className="sr-only" aria-label="Layers as a list, from the bottom up">
      {drawing.bands.map((b) => (
        <li key={b.key}>{bandSays(b, u)}</li>
      ))}
    </ol>
  );
}
