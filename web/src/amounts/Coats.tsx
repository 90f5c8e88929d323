import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { Link } from "react-router";
import { answer, api, ofOpen, type Piece, type Schemas, why, type Zone } from "../api/client";
import { Swatch } from "../colour/Swatch";
import { ofZones } from "../piece/edit";
import { numberOf } from "../piece/useCheck";

type Props = { piece: Piece; zone: Zone };
type Ground = Schemas["GroundLooks"];

/** Coats are the coats of a zone as swatches over every ground that it has. */
export function Coats({ piece, zone }: Props) {
  const q = useQuery({
    queryKey: ["coats", zone.id, numberOf(piece)],
    placeholderData: keepPreviousData,
    retry: false,
    queryFn: ({ signal }) =>
      answer(
        api.POST("/api/coats", {
          params: { query: { zone: zone.id, ...ofOpen() } },
          body: ofZones(piece, [zone]),
          signal,
        }),
      ),
  });
  const c = q.data;
  return (
    <section aria-label="Colour" className={`min-w-0 ${q.isPending ? "max-xl:min-h-dvh" : ""}`}>
      <h2 className="font-semibold text-primary text-xl">Coat by coat</h2>
      {q.isError && (
        <p role="alert" className="text-error">
          {why(q.error)}
        </p>
      )}
      {c && (
        <div className={q.isPlaceholderData ? "opacity-60" : ""} data-grounds={c.grounds.length}>
          <p className="text-secondary">{c.says}</p>
          {c.grounds.map((g) => (
            <Over key={g.id} g={g} />
          ))}
          {c.undercoat && (
            <p className="sheet mt-3 flex items-center gap-3 rounded px-3 py-2" data-undercoat>
              <Swatch colour={c.undercoat.colour} /> {c.undercoat.says}
            </p>
          )}
          <div className="mt-4 flex flex-wrap gap-x-8 gap-y-3">
            {c.want && <Named title="Wanted" colour={c.want} says={c.want} />}
            {c.final && <Named title="Dry, before the seal" colour={c.final} says="" />}
            {c.sealed && <Named title={`Sealed with ${c.sealed_by}`} colour={c.sealed} says="deeper" />}
          </div>
          {c.wear.length > 1 && (
            <>
              <h3 className="mt-4 font-semibold">Where it wears</h3>
              <ol className="mt-1 flex flex-wrap gap-3" data-wear={c.wear.length}>
                {c.wear.map((w) => (
                  <li key={`${w.colour}${w.of}`} className="flex items-center gap-2 leading-tight">
                    <Swatch colour={w.colour} size={32} />
                    <span>
                      {w.name}
                      <span className="block text-secondary text-sm">{w.of}</span>
                    </span>
                  </li>
                ))}
              </ol>
            </>
          )}
          <p className="mt-3 text-secondary text-sm">{c.caution}</p>
          {zone.target?.colour && (
            <Link
              data-do="find-blend"
              to={`/colours?want=${encodeURIComponent(zone.target.colour)}`}
              className="btn mt-2"
            >
              Find a blend for this colour
            </Link>
          )}
        </div>
      )}
    </section>
  );
}

function Named({ title, colour, says }: { title: string; colour: string; says: string }) {
  return (
    <span className="flex items-center gap-2 leading-tight">
      <Swatch colour={colour} />
      <span>
        {title}
        <span className="block text-secondary text-sm">{says || colour}</span>
      </span>
    </span>
  );
}

function Over({ g }: { g: Ground }) {
  return (
    <div className="mt-3" data-ground={g.id}>
      <p className="leading-tight">
        <b className="font-semibold">{g.name}</b>
        {g.worst && <span className="text-secondary"> (covers worst)</span>}: {g.says}
      </p>
      <ol className="mt-1 flex gap-0 overflow-x-auto pb-1">
        <li className="w-24 shrink-0">
          <span
            className="block h-14 border border-base-content/40 border-r-0"
            style={{ background: g.colour }}
            data-swatch={g.colour}
          />
          <span className="block pt-0.5 pr-1 text-secondary text-xs leading-tight">the ground</span>
        </li>
        {g.coats.map((c, i) => (
          <li key={`${c.step}-${c.coat}`} className="w-24 shrink-0" data-coat-look={i + 1}>
            <span
              className="block h-14 border border-base-content/40 border-l-0 last:border-r"
              style={{ background: c.colour }}
              data-swatch={c.colour}
            />
            <span className="block pt-0.5 pr-1 text-xs leading-tight">
              {c.coat === 1 ? c.name : `coat ${c.coat}`}
              <span className="block text-secondary">{c.word}</span>
            </span>
          </li>
        ))}
      </ol>
    </div>
  );
}
