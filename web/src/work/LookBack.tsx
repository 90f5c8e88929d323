import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { answer, api, type Schemas, why } from "../api/client";
import { localOf } from "../ui/clock";
import { clock, date, useUnits } from "../ui/units";

/** LookBack holds the work on a piece against its plan. */
export default function LookBack({ id }: { id: number }) {
  const u = useUnits();
  const q = useQuery({
    queryKey: ["back", id],
    queryFn: ({ signal }) => answer(api.GET("/api/pieces/{id}/back", { params: { path: { id } }, signal })),
  });
  if (q.isError) {
    return (
      <p role="alert" className="p-5 first-letter:uppercase">
        {why(q.error)}
      </p>
    );
  }
  if (!q.data) return null;
  const b = q.data;
  return (
    <div className="mx-auto w-full max-w-5xl px-3 py-4 sm:px-5" data-look-back>
      <h2 className="font-semibold text-primary text-xl">Look back</h2>
      <p className="text-lg">
        {b.says}
        {b.finished && ` Handed over on ${date(localOf(b.finished), u)}.`}{" "}
        <a className="link link-primary text-base" href={`/api/pieces/${id}/log.csv`} download>
          The log as CSV
        </a>
      </p>
      {b.rows?.length ? <Rows rows={b.rows} name="The whole piece" /> : null}
      <Compare photos={b.photos ?? []} />
      {b.zones.map((z) => (
        <section key={z.id} className="mt-4" data-zone-back={z.id}>
          <Rows rows={z.rows} name={z.name} />
          {z.otherwise.length > 0 && (
            <ul className="mt-1 list-disc pl-5">
              {z.otherwise.map((o) => (
                <li key={o}>{o}</li>
              ))}
            </ul>
          )}
        </section>
      ))}
      {b.lessons?.length ? (
        <section className="mt-4">
          <h3 className="font-semibold text-lg">What I would do otherwise</h3>
          <ul className="list-disc pl-5">
            {b.lessons.map((l) => (
              <li key={l.entry.id}>
                <bdi>{l.entry.note}</bdi>
              </li>
            ))}
          </ul>
        </section>
      ) : (
        b.zones.length > 0 && (
          <p className="mt-4 text-secondary">
            What would you do otherwise? Write it as a note on the whole piece, at the stage Work, and tick the box: it
            is shown when this plan is used again.
          </p>
        )
      )}
    </div>
  );
}

function Rows({ rows, name }: { rows: Schemas["BackRow"][]; name: string }) {
  return (
    <table className="mt-2 w-full max-w-2xl border-collapse">
      <caption className="py-1 text-left font-semibold text-lg">{name}</caption>
      <thead>
        <tr className="border-base-300 border-b text-left text-secondary text-sm">
          <th className="w-1/3 py-1 font-medium" scope="col">
            <span className="sr-only">What</span>
          </th>
          <th className="w-1/3 font-medium" scope="col">
            Planned
          </th>
          <th className="w-1/3 font-medium" scope="col">
            Really
          </th>
        </tr>
      </thead>
      <tbody>
        {rows.map((r) => (
          <tr key={r.what} className="border-base-300 border-b">
            <th scope="row" className="py-1 text-left font-normal">
              {r.what}
            </th>
            <td className="tabular-nums">{r.planned}</td>
            <td className="font-semibold tabular-nums">{r.really}</td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}

/** Compare shows two pictures side by side: before and after. */
function Compare({ photos }: { photos: Schemas["LogPhoto"][] }) {
  const u = useUnits();
  const [pick, setPick] = useState<[number, number]>();
  if (!photos.length) return null;
  const [left, right] = pick ?? [0, photos.length - 1];
  const side = (n: number, which: 0 | 1) => {
    const p = photos[n];
    if (!p) return null;
    return (
      <figure className="min-w-0">
        <img
          src={`/photos/${p.file}`}
          alt={p.says}
          className="aspect-4/3 w-full rounded border border-base-300 bg-base-200 object-contain"
        />
        <figcaption className="text-sm">
          <bdi>{p.says}</bdi>
          {p.at && (
            <span className="text-secondary"> · {p.at.includes("T") ? clock(localOf(p.at), u) : date(p.at, u)}</span>
          )}
        </figcaption>
        {photos.length > 2 && (
          <div className="mt-1 flex flex-wrap gap-1">
            {photos.map((x, k) => (
              <button
                key={x.file}
                type="button"
                aria-label={`Show ${x.says}`}
                aria-pressed={k === n}
                className={`rounded border-2 ${k === n ? "border-primary" : "border-transparent"}`}
                onClick={() => setPick(which ? [left, k] : [k, right])}
              >
                <img
                  src={`/photos/small/${x.file}`}
                  alt=""
                  className="h-11 w-14 rounded-sm object-cover"
                  loading="lazy"
                />
              </button>
            ))}
          </div>
        )}
      </figure>
    );
  };
  return (
    <section className="mt-4" data-compare={photos.length}>
      <h3 className="font-semibold text-lg">{photos.length > 1 ? "Before and after" : "Photograph"}</h3>
      <div className={`mt-1 grid gap-3 ${photos.length > 1 ? "sm:grid-cols-2" : "max-w-xl"}`}>
        {side(left, 0)}
        {photos.length > 1 && side(right, 1)}
      </div>
    </section>
  );
}
