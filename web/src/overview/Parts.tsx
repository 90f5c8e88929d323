import { Plus, Scissors } from "lucide-react";
import { useEffect, useRef, useState } from "react";
import type { Overview, Part, Piece, ZoneResult } from "../api/client";
import { useKeys } from "../frame/keys";
import { assigned, joined, split, withPart, zoneTitle } from "../piece/edit";
import { focusOn, showOn } from "../ui/focus";
import { moved } from "../ui/Order";
import { area, count, useUnits } from "../ui/units";
import { Elevation } from "./Elevation";
import { PartRow } from "./PartRow";
import { Pattern } from "./Pattern";
import { QuickEntry } from "./QuickEntry";
import { ZoneCards } from "./Zones";

type Props = {
  id: number;
  piece: Piece;
  overview: Overview;
  results: ZoneResult[] | undefined;
  onPiece: (p: Piece) => void;
  onMore: (parts: Part[]) => number; // returns the index of the first
  onShow: (zone: string) => void;
  onNewZone: (parts: number[]) => void;
};

/** loose are the painted parts without a zone. */
export const loose = (piece: Piece, overview: Overview) =>
  (piece.parts ?? []).flatMap((p, i) => (!p.zone && overview.parts[i]?.painted.length ? [i] : []));

/** Parts is the front view, drawn from the measured parts, with the list of parts beside it. */
export function Parts({ id, piece, overview, results, onPiece, onMore, onShow, onNewZone }: Props) {
  const parts = piece.parts ?? [];
  const zones = piece.zones ?? [];
  const u = useUnits();
  const unmade = loose(piece, overview);
  // Until parts are selected, those without a zone are selected.
  const [chosen, setChosen] = useState<number[]>();
  const [open, setOpen] = useState<number>();
  const here = (chosen ?? unmade).filter((n) => n < parts.length);
  const own = zones.find((z) => here.length > 0 && here.every((n) => parts[n]?.zone === z.id));
  // A removed part leaves no other selected in its place.
  const had = useRef(parts.length);
  useEffect(() => {
    if (parts.length < had.current) {
      setChosen(undefined);
      setOpen(undefined);
    }
    had.current = parts.length;
  }, [parts.length]);
  const choose = (n: number, more: boolean) => {
    if (!more) setChosen(here.length === 1 && here[0] === n ? [] : [n]);
    else setChosen(here.includes(n) ? here.filter((x) => x !== n) : [...here, n]);
  };
  const press = (n: number, more: boolean) => {
    choose(n, more);
    showOn(`part ${n}`);
  };
  const give = (zone: string | undefined) => {
    onPiece(assigned(piece, here, zone));
    setChosen(undefined);
  };
  const move = (n: number, by: number) => {
    onPiece({ ...piece, parts: moved(parts, n, by) });
    setOpen(n + by);
    setChosen([]);
  };
  useKeys("Parts", [
    { key: "a", says: "Select all parts, or none", run: () => setChosen(here.length ? [] : parts.map((_, i) => i)) },
    { key: "n", says: "New zone from the selected parts", run: () => here.length > 0 && onNewZone(here) },
    { key: "q", says: "Add parts", run: () => focusOn("field parts") },
  ]);
  const m2 = here.reduce((sum, n) => sum + (overview.parts[n]?.area_m2 ?? 0), 0);
  const many = here.length > 1 || (parts[here[0] ?? 0]?.count ?? 1) > 1;
  const says =
    here.length === 1
      ? overview.parts[here[0] ?? 0]?.title
      : here.length === parts.length && parts.length > 0
        ? `All ${parts.length} parts`
        : `${here.length} parts`;
  return (
    <div className="grid min-h-0 flex-1 lg:grid-cols-[minmax(0,1fr)_27rem]">
      <section aria-label="Front view" className="min-w-0 px-3 py-3 sm:px-5 lg:overflow-y-auto">
        <div
          className="wash mb-2 flex min-h-14 flex-wrap items-center gap-x-2 gap-y-1.5 rounded px-3 py-1.5"
          role="status"
        >
          {here.length === 0 ? (
            <p className="text-secondary">
              {parts.length === 0
                ? "Nothing is measured yet: add parts on the right."
                : "Click a part to select it; several with Shift, or tick them in the list. Double-click to open its zone."}
            </p>
          ) : (
            <>
              <p className="mr-1 leading-tight">
                <b className="font-semibold">{says}</b>
                {m2 > 0 && `, ${area(m2, u)}`}
                <span className="block text-secondary text-sm">
                  {own
                    ? `in zone ${zoneTitle(own)}`
                    : many
                      ? "What are they made of, and what finish do they have?"
                      : "What is it made of, and what finish does it have?"}
                </span>
              </p>
              <span className="flex-1" />
              {zones
                .filter((z) => z !== own)
                .map((z) => {
                  const l = overview.zones.find((x) => x.id === z.id);
                  return (
                    <button
                      data-give={z.id}
                      key={z.id}
                      type="button"
                      className="btn border-base-300 bg-base-100 font-normal"
                      title={`Move them to ${zoneTitle(z)}`}
                      onClick={() => give(z.id)}
                    >
                      <Pattern colour={l?.colour} mark={l?.mark} className="h-6 w-8" />
                      <bdi className="max-w-32 truncate">Move to {zoneTitle(z)}</bdi>
                    </button>
                  );
                })}
              {here.some((n) => parts[n]?.zone) && (
                <button
                  data-give=""
                  type="button"
                  className="btn btn-ghost font-normal"
                  onClick={() => give(undefined)}
                >
                  To no zone
                </button>
              )}
              {own && (
                <button
                  data-do="split"
                  type="button"
                  className="btn border-base-300 bg-base-100 font-normal"
                  title="Same survey, but planned separately"
                  onClick={() => {
                    const s = split(piece, own.id, here);
                    onPiece(s.piece);
                    onShow(s.id);
                  }}
                >
                  <Scissors className="size-4" aria-hidden="true" /> Split off a similar zone
                </button>
              )}
              <button data-do="new-zone" type="button" className="btn btn-primary" onClick={() => onNewZone(here)}>
                <Plus className="size-4" aria-hidden="true" /> New zone from {many ? "these" : "it"}
              </button>
            </>
          )}
        </div>
        <div className="grid min-h-72 place-items-center py-2">
          <Elevation
            overview={overview}
            piece={piece}
            width={700}
            height={430}
            chosen={here}
            onPress={press}
            onOpen={onShow}
          />
        </div>
        <p className="mb-2 text-center text-secondary text-sm">
          {overview.elevation.says && `${overview.elevation.says}, drawn to scale from its parts`}
          {overview.parts.some((p) => p.hidden) &&
            `. Not visible from the front: ${overview.parts
              .filter((p) => p.hidden)
              .map((p) => p.title.toLowerCase())
              .join(", ")}`}
        </p>
        {unmade.length > 0 && zones.length > 0 && here.length === 0 && (
          <p className="mb-2">
            {count(unmade.length, "painted part is", "painted parts are")} not in a zone yet.{" "}
            <button type="button" className="link link-primary" onClick={() => setChosen(unmade)}>
              Select {unmade.length === 1 ? "it" : "them"}
            </button>
          </p>
        )}
        <ZoneCards
          piece={piece}
          overview={overview}
          results={results}
          onShow={onShow}
          onJoin={(from, to) => onPiece(joined(piece, from, to))}
        />
        {overview.mending.items.length > 0 && (
          <div className="wash mt-3 rounded px-3 py-2 text-sm">
            <p>
              <b className="font-semibold">About {overview.mending.work} of repairs</b> in all zones, including new
              holes for hardware.
            </p>
            {overview.mending.says.map((s) => (
              <p key={s}>{s}</p>
            ))}
          </div>
        )}
      </section>
      <section
        aria-label="Parts list"
        className="wash border-base-300 px-3 py-3 max-lg:border-t sm:px-4 lg:overflow-y-auto lg:border-l"
      >
        <QuickEntry
          piece={id}
          onAdd={(more) => {
            const first = onMore(more);
            setChosen(more.map((_, i) => first + i));
          }}
        />
        <ul className="grid gap-1.5">
          {parts.map((p: Part, n) => (
            <PartRow
              // biome-ignore lint/suspicious/noArrayIndexKey: a part's place is its identity
              key={n}
              n={n}
              part={p}
              overview={overview.parts[n]}
              zone={zones.find((z) => z.id === p.zone)}
              colour={overview.zones.find((z) => z.id === p.zone)?.colour}
              chosen={here.includes(n)}
              open={open === n}
              last={n === parts.length - 1}
              onChoose={(more) => choose(n, more)}
              onOpen={() => setOpen(open === n ? undefined : n)}
              onChange={(change) => onPiece(withPart(piece, n, change))}
              onMove={(by) => move(n, by)}
              onRemove={() => onPiece({ ...piece, parts: parts.filter((_, i) => i !== n) })}
            />
          ))}
        </ul>
        {parts.length > 0 && (
          <p className="mt-3 text-secondary text-sm">
            Parts after a carcass in the list belong to it. Corners and hidden faces of joints are not subtracted.
          </p>
        )}
      </section>
    </div>
  );
}
