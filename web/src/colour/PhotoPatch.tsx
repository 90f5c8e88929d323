import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { type Schemas, why } from "../api/client";
import { Swatch } from "./Swatch";

type Spot = { x: number; y: number };
type Asked = { file: string; x: number; y: number; white?: Spot };

type Props = {
  file: string;
  ask: (q: Asked, signal: AbortSignal) => Promise<Schemas["PatchRead"]>;
  onColour: (hex: string) => void;
};

const STEP = 0.02;

/** PhotoPatch takes a colour from a spot of a photograph, corrected by a white spot if one is marked. */
export function PhotoPatch({ file, ask, onColour }: Props) {
  const [spot, setSpot] = useState<Spot>();
  const [white, setWhite] = useState<Spot>();
  const [marking, setMarking] = useState<"spot" | "white">("spot");
  const q = useQuery({
    queryKey: ["patch", file, spot, white],
    enabled: !!spot,
    retry: false,
    placeholderData: keepPreviousData,
    queryFn: ({ signal }) => ask({ file, x: spot?.x ?? 0, y: spot?.y ?? 0, white }, signal),
  });
  const put = (s: Spot) => {
    const at = { x: Math.min(1, Math.max(0, s.x)), y: Math.min(1, Math.max(0, s.y)) };
    if (marking === "white") setWhite(at);
    else setSpot(at);
  };
  const now = (marking === "white" ? white : spot) ?? { x: 0.5, y: 0.5 };
  return (
    <div className="mt-2">
      <div className="mb-1 flex flex-wrap gap-1">
        <button
          type="button"
          aria-pressed={marking === "spot"}
          data-marking="spot"
          className={`btn ${marking === "spot" ? "btn-primary" : "btn-ghost border-base-300"}`}
          onClick={() => setMarking("spot")}
        >
          Mark the colour
        </button>
        <button
          type="button"
          aria-pressed={marking === "white"}
          data-marking="white"
          className={`btn ${marking === "white" ? "btn-primary" : "btn-ghost border-base-300"}`}
          onClick={() => setMarking("white")}
        >
          Mark something white
        </button>
        {white && (
          <button type="button" className="btn btn-ghost" onClick={() => setWhite(undefined)}>
            Without the white
          </button>
        )}
      </div>
      <button
        type="button"
        className="relative block max-w-full cursor-crosshair"
        aria-label="Photograph: click the spot, or move it with the arrow keys"
        data-photo={file}
        onClick={(e) => {
          if (!e.detail) {
            put(now); // by keyboard
            return;
          }
          const box = e.currentTarget.getBoundingClientRect();
          put({ x: (e.clientX - box.left) / box.width, y: (e.clientY - box.top) / box.height });
        }}
        onKeyDown={(e) => {
          const by: Record<string, [number, number]> = {
            ArrowLeft: [-STEP, 0],
            ArrowRight: [STEP, 0],
            ArrowUp: [0, -STEP],
            ArrowDown: [0, STEP],
          };
          const step = by[e.key];
          if (!step) return;
          e.preventDefault();
          put({ x: now.x + step[0], y: now.y + step[1] });
        }}
      >
        <img src={`/photos/${file}`} alt="" className="max-h-72 max-w-full" draggable={false} />
        {spot && <Ring at={spot} says="colour" />}
        {white && <Ring at={white} says="white" />}
      </button>
      {!spot && <p className="mt-1 text-secondary text-sm">Click the colour in the picture.</p>}
      {q.isError && (
        <p role="alert" className="mt-1 text-error text-sm">
          {why(q.error)}
        </p>
      )}
      {q.data && (
        <div className="mt-2 flex flex-wrap items-center gap-3" data-patch={q.data.colour}>
          <Swatch colour={q.data.colour} />
          <span className="min-w-0 flex-1 leading-tight">
            {q.data.name}, {q.data.colour}
            <span className="block text-secondary text-sm">{q.data.caution}</span>
          </span>
          <button
            type="button"
            className="btn btn-primary"
            data-do="take-patch"
            onClick={() => onColour(q.data.colour)}
          >
            Use this colour
          </button>
        </div>
      )}
    </div>
  );
}

function Ring({ at, says }: { at: Spot; says: string }) {
  return (
    <span
      className="-translate-x-1/2 -translate-y-1/2 absolute size-6 rounded-full border-2 border-white outline-2 outline-black"
      style={{ left: `${at.x * 100}%`, top: `${at.y * 100}%` }}
      data-ring={says}
      aria-hidden="true"
    >
      <span className="absolute top-6 left-1 bg-black/70 px-1 text-white text-xs">{says}</span>
    </span>
  );
}
