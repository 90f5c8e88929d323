import { ArrowLeft, Download, Hammer, Pause, Play } from "lucide-react";
import { useEffect, useMemo, useRef, useState } from "react";
import type { Piece, Repair, Schemas, Zone, ZoneResult } from "../api/client";
import { useKeys } from "../frame/keys";
import { zoneTitle } from "../piece/edit";
import { usePreview } from "../piece/useCheck";
import { Choice } from "../ui/Choice";
import { Mark } from "../ui/Mark";
import { BigCut } from "./BigCut";
import { asPNG, keep, standalone } from "./save";

type Props = {
  piece: Piece;
  zone: Zone;
  judged: ZoneResult | undefined;
  onBack: () => void;
  onRepair: (r: Repair) => void;
};

const TICK = 900; // ms that a moment stays
const WEARING = 3500; // ms until an edge is worn through

/** CutView plays the cross-section: stains over a year, an edge as it wears; next to it the result of a fix. */
export function CutView({ piece, zone, judged, onBack, onRepair }: Props) {
  const [moment, setMoment] = useState(0);
  const [wear, setWear] = useState(0);
  const [playing, setPlaying] = useState<"time" | "wear">();
  const edits = useMemo(() => repairsOf(judged), [judged]);
  const [picked, setPicked] = useState<string>(); // title; empty for none
  const repair = picked === "" ? undefined : (edits.find((r) => r.title === picked) ?? edits[0]);
  const after = usePreview(piece, zone.id, repair?.steps ?? undefined);
  const now = useRef<SVGSVGElement>(null);
  const section = judged?.section;
  const faces = section?.faces ?? [];
  const last = Math.max(0, faces.length - 1);
  usePlay(playing === "time", () => {
    const t = setInterval(() => setMoment((m) => (m < last ? m + 1 : m)), TICK);
    return () => clearInterval(t);
  });
  useEffect(() => {
    if (playing === "time" && moment >= last) setPlaying(undefined);
  }, [playing, moment, last]);
  usePlay(playing === "wear", () => {
    const step = matchMedia("(prefers-reduced-motion: reduce)").matches ? 0.25 : 0.02;
    const t = setInterval(
      () =>
        setWear((w) => {
          if (w + step < 1) return w + step;
          setPlaying(undefined);
          return 1;
        }),
      WEARING * step,
    );
    return () => clearInterval(t);
  });
  const playTime = () => {
    if (playing !== "time" && moment >= last) setMoment(0);
    setPlaying(playing === "time" ? undefined : "time");
  };
  const playWear = () => {
    if (playing !== "wear" && wear >= 1) setWear(0);
    setPlaying(playing === "wear" ? undefined : "wear");
  };
  const turn = (by: number) => {
    setPlaying(undefined);
    setMoment((m) => Math.min(last, Math.max(0, m + by)));
  };
  useKeys("Cross-section", [
    { key: "p", says: "Play or stop the stains over a year", run: playTime },
    { key: "w", says: "Play or stop the wear of an edge", run: playWear },
    { key: "ArrowRight", says: "Later", run: () => turn(1) },
    { key: "ArrowLeft", says: "Earlier", run: () => turn(-1) },
  ]);
  if (!section) return null;
  const name = `${piece.name ?? "piece"} ${zoneTitle(zone)}`.toLowerCase().replace(/[^a-z0-9]+/g, "-");
  const both = !!repair; // its place is kept while it is judged
  return (
    <>
      <div className="mb-3 flex flex-wrap items-center gap-x-3 gap-y-2">
        <button type="button" className="btn btn-ghost border-base-300 font-normal" onClick={onBack}>
          <ArrowLeft className="size-4" aria-hidden="true" /> Back to the plan
        </button>
        <h2 className="font-semibold text-lg">Cross-section over time</h2>
        <span className="flex-1" />
        <button
          data-do="svg"
          type="button"
          className="btn btn-ghost border-base-300 font-normal"
          onClick={() =>
            now.current && keep(`${name}.svg`, new Blob([standalone(now.current)], { type: "image/svg+xml" }))
          }
        >
          <Download className="size-4" aria-hidden="true" /> SVG
        </button>
        <button
          data-do="png"
          type="button"
          className="btn btn-ghost border-base-300 font-normal"
          onClick={() => now.current && void asPNG(now.current).then((b) => keep(`${name}.png`, b))}
        >
          <Download className="size-4" aria-hidden="true" /> PNG
        </button>
      </div>
      <div className="mb-2 grid gap-x-6 gap-y-2 xl:grid-cols-2">
        <fieldset className="flex min-w-0 flex-wrap items-center gap-2">
          <legend className="sr-only">Stains over time</legend>
          <PlayButton name="time" on={playing === "time"} says="stains over a year" onPress={playTime} />
          <div className="join">
            {faces.map((f, i) => (
              <button
                data-moment={i}
                key={f.name}
                type="button"
                aria-pressed={moment === i}
                className={`join-item btn h-11 px-3 font-normal max-sm:px-1.5 ${moment === i ? "btn-primary" : "border-base-300 bg-base-100"}`}
                onClick={() => {
                  setPlaying(undefined);
                  setMoment(i);
                }}
              >
                {f.name}
              </button>
            ))}
          </div>
        </fieldset>
        <div className="flex min-w-0 items-center gap-2">
          <PlayButton name="wear" on={playing === "wear"} says="wear of an edge" onPress={playWear} />
          <label className="flex min-w-0 flex-1 items-center gap-2">
            <span className="whitespace-nowrap">Worn edge</span>
            <input
              type="range"
              min={0}
              max={100}
              step={5}
              className="h-11 min-w-0 flex-1 accent-(--color-primary)"
              value={Math.round(wear * 100)}
              onChange={(e) => {
                setPlaying(undefined);
                setWear(Number(e.target.value) / 100);
              }}
            />
          </label>
        </div>
      </div>
      {edits.length > 0 && (
        <div className="mb-1 flex flex-wrap items-end gap-x-3">
          <div className="min-w-60 flex-1">
            <Choice
              label="Compare with"
              words={edits.map((r) => ({ id: r.title, name: r.title }))}
              value={repair?.title ?? ""}
              none="nothing, this plan only"
              onChange={setPicked}
            />
          </div>
          {repair && (
            <button
              type="button"
              className="btn btn-primary mb-3 h-11"
              data-do="apply"
              onClick={() => onRepair(repair)}
            >
              <Hammer className="size-4" aria-hidden="true" /> Apply
            </button>
          )}
        </div>
      )}
      <div className={both ? "grid gap-x-4 gap-y-5 md:grid-cols-2" : ""}>
        <Side
          title={both ? "As planned" : undefined}
          judged={judged}
          section={section}
          moment={Math.min(moment, last)}
          wear={wear}
          small={both}
          svg={now}
        />
        {both && repair && after?.section && (
          <Side title="With the fix" judged={after} section={after.section} moment={moment} wear={wear} small />
        )}
      </div>
    </>
  );
}

function Swatch({ of }: { of: string }) {
  return <span className="inline-block h-4 w-8 rounded border border-base-300" style={{ background: of }} />;
}

/** repairsOf are the edits that the findings offer, each once. */
function repairsOf(judged: ZoneResult | undefined): Repair[] {
  const out: Repair[] = [];
  for (const f of judged?.findings ?? []) {
    for (const r of f.repairs) if (r.kind === "edit" && !out.some((o) => o.title === r.title)) out.push(r);
  }
  return out;
}

function usePlay(on: boolean, start: () => () => void) {
  const latest = useRef(start);
  latest.current = start;
  useEffect(() => (on ? latest.current() : undefined), [on]);
}

type PlayProps = { name: string; on: boolean; says: string; onPress: () => void };

function PlayButton({ name, on, says, onPress }: PlayProps) {
  return (
    <button
      type="button"
      data-play={name}
      className="btn btn-square h-11 border-base-300 bg-base-100 text-primary"
      aria-label={`${on ? "Stop" : "Play"} ${says}`}
      title={`${on ? "Stop" : "Play"} ${says}`}
      onClick={onPress}
    >
      {on ? <Pause className="size-5" aria-hidden="true" /> : <Play className="size-5" aria-hidden="true" />}
    </button>
  );
}

type SideProps = {
  title: string | undefined;
  judged: ZoneResult;
  section: Schemas["Section"];
  moment: number;
  wear: number;
  small?: boolean;
  svg?: React.Ref<SVGSVGElement>;
};

/** Side is one cross-section with a sentence on what it shows at the moment. */
function Side({ title, judged, section, moment, wear, small, svg }: SideProps) {
  const face = section.faces?.[moment];
  return (
    <figure className="min-w-0" data-side={svg ? "now" : "after"} data-side-verdict={judged.verdict}>
      {title && (
        <figcaption className="mb-1 flex items-center gap-3">
          <b className="font-semibold">{title}</b> <Mark verdict={judged.verdict} />
        </figcaption>
      )}
      <p
        className="mb-1 min-h-10 leading-tight"
        aria-live="polite"
        data-moment-of={moment}
        data-worn={wear > 0 ? "" : undefined}
      >
        {face && (
          <>
            <b className="font-semibold">{face.name}:</b> {face.says}{" "}
          </>
        )}
        {wear > 0 && section.worn_says}
        {judged.hiding && judged.hiding.sealed !== judged.hiding.colour && wear === 0 && (
          <span className="inline-flex items-center gap-1.5 text-secondary text-sm">
            Painted <Swatch of={judged.hiding.colour} /> and sealed <Swatch of={judged.hiding.sealed} />
          </span>
        )}
      </p>
      <BigCut
        ref={svg}
        section={section}
        moment={moment}
        wear={wear}
        small={small}
        title={`${title ?? "Cross-section"}: ${judged.says}`}
      />
    </figure>
  );
}
