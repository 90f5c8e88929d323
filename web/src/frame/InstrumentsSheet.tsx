import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { FileUp } from "lucide-react";
import { useRef, useState } from "react";
import { answer, api, type Schemas, why } from "../api/client";
import { Dialog } from "../ui/Dialog";
import { clock, count, hour, temp, tempUnit, unbroken, useUnits } from "../ui/units";
import { ImportedReadings } from "./ImportedReadings";
import { siteOf, useInstruments } from "./useInstruments";

type Air = Schemas["AirRead"];

type Props = {
  onClose: () => void;
  onAir?: (site: Schemas["Site"]) => void; // uses a reading as the air of the open piece
  onSpot?: (r: Schemas["SpotRead"]) => void; // uses a reading for the open zone
};

/** InstrumentsSheet shows the instruments: the air of the day, imported readings, and where a reading can be used. */
export default function InstrumentsSheet({ onClose, onAir, onSpot }: Props) {
  const u = useUnits();
  const queries = useQueryClient();
  const instruments = useInstruments();
  const asked = useQuery({
    queryKey: ["course"],
    queryFn: ({ signal }) => answer(api.GET("/api/instruments/course", { signal })),
  });
  const course = asked.data;
  const [said, setSaid] = useState("");
  const now = instruments?.room;
  const site = siteOf(now);
  const drawn = course && (course.imported.length > 1 ? course.imported : course.today);
  const use = (site: Schemas["Site"], what: string) => {
    onAir?.(site);
    setSaid(`${what} is now the air for this piece, and the plan is checked with it.`);
  };
  return (
    <Dialog title="Instruments" wide onClose={onClose}>
      {now && (
        <div className="flex flex-wrap items-center gap-x-4 gap-y-1">
          <p className="flex-1">
            <b className="font-semibold">{now.by}</b>
            {now.simulated && " (simulated)"}, {clock(now.at, u)}: {reading(now, u)}.
          </p>
          {onAir && site && (
            <button
              data-do="use-reading"
              type="button"
              className="btn btn-primary"
              onClick={() => use(site, "This reading")}
            >
              Use for this piece
            </button>
          )}
        </div>
      )}
      {now?.says && (
        <p role="alert" className="mt-1 font-medium text-warning">
          {now.says}
        </p>
      )}
      {asked.error && (
        <p role="alert" className="mt-1 font-medium text-warning">
          The air of the day could not be loaded: {why(asked.error)}
        </p>
      )}
      {drawn && drawn.length > 1 && <Course list={drawn} />}
      {course?.mean && (
        <div className="mt-2 flex flex-wrap items-center gap-x-4 gap-y-1">
          <p className="flex-1">
            Average ({course.mean.by}): {temp(course.mean.temp_c, u)}, {course.mean.rh_pct} % humidity.
          </p>
          {onAir && (
            <button
              data-do="use-average"
              type="button"
              className="btn border-base-300 bg-base-100 font-normal"
              onClick={() =>
                course.mean &&
                use(
                  {
                    temp_c: course.mean.temp_c,
                    rh_pct: course.mean.rh_pct,
                    by: course.mean.by,
                    simulated: course.imported.length ? undefined : now?.simulated,
                  },
                  "The average",
                )
              }
            >
              Use the average
            </button>
          )}
        </div>
      )}
      <h3 className="mt-3 font-semibold">On a zone</h3>
      <p>
        {instruments?.instruments
          .filter((i) => i.on_spot)
          .map((i) => `${i.name}${i.simulated ? " (simulated)" : ""}`)
          .join(", ") || "No instrument is connected."}
        {instruments?.instruments.some((i) => i.on_spot) && ": take a reading next to its field in the survey."}
      </p>
      {course && course.spots.length > 0 && (
        <ul className="mt-1 grid gap-1 sm:grid-cols-2">
          {course.spots.map((s) => (
            <li key={`${s.field}${s.at}${s.by}`} className="flex items-center gap-2 border-base-300 border-t py-1">
              <span className="flex-1 leading-tight">
                {s.says}
                <span className="block text-secondary text-sm">
                  {clock(s.at, u)}, <bdi>{s.by}</bdi>
                </span>
              </span>
              {onSpot && (
                <button
                  data-do="into-zone"
                  type="button"
                  className="btn border-base-300 bg-base-100 font-normal"
                  onClick={() => {
                    onSpot(s);
                    setSaid(`${s.says} is now in the open zone.`);
                  }}
                >
                  Use for the zone
                </button>
              )}
            </li>
          ))}
        </ul>
      )}
      <BringIn
        onDone={() => {
          for (const key of ["course", "sources", "readings"]) void queries.invalidateQueries({ queryKey: [key] });
        }}
      />
      <ImportedReadings />
      <p role="status" className="mt-2 min-h-5 text-success">
        {said}
      </p>
    </Dialog>
  );
}

/** BringIn imports a file of readings. */
function BringIn({ onDone }: { onDone: () => void }) {
  const u = useUnits();
  const file = useRef<HTMLInputElement>(null);
  const take = useMutation({
    mutationFn: async (f: File) =>
      answer(
        api.POST("/api/instruments/readings", {
          params: { query: { name: f.name.slice(0, 200) } },
          body: (await f.text()) as never,
          bodySerializer: (b) => b as unknown as string,
          headers: { "Content-Type": "text/csv" },
        }),
      ),
    onSuccess: onDone,
  });
  const came = take.data;
  const wrong = take.error && why(take.error, "The server does not answer. Nothing was imported.");
  return (
    <section className="mt-3 border-base-300 border-t pt-2">
      <h3 className="font-semibold">Import readings</h3>
      <div className="mt-1 flex flex-wrap items-center gap-3">
        <button
          type="button"
          className="btn border-base-300 bg-base-100 font-normal"
          onClick={() => file.current?.click()}
        >
          <FileUp className="size-5" aria-hidden="true" /> Import a CSV file
        </button>
        <input
          ref={file}
          type="file"
          accept=".csv,.txt,text/csv,text/plain"
          aria-label="A file of readings"
          className="sr-only"
          tabIndex={-1}
          onChange={(e) => {
            const f = e.target.files?.[0];
            e.target.value = "";
            if (f) take.mutate(f);
          }}
        />
        <span className="flex-1 text-secondary text-sm">
          The first line names the columns, for example time, temp, rh, surface, gloss, moisture; separated by commas,
          semicolons or tabs.
        </span>
      </div>
      {wrong && (
        <p role="alert" className="mt-1 text-error">
          {wrong}
        </p>
      )}
      {came && (
        <div role="status" className="mt-1" data-taken-in={came.taken} data-refused={came.refused_in_all}>
          <p>
            {count(came.taken, "reading", "readings")} imported, {clock(came.from, u)} to {clock(came.to, u)}:{" "}
            {came.columns.join(", ").toLowerCase()}.
            {came.gaps > 0 && ` ${count(came.gaps, "cell is", "cells are")} empty.`}
          </p>
          {came.refused_in_all > 0 && (
            <details className="mt-1">
              <summary className="text-warning underline underline-offset-2">
                {count(came.refused_in_all, "row was", "rows were")} not imported
              </summary>
              <ul className="max-h-40 overflow-y-auto text-sm">
                {came.refused.map((r) => (
                  <li key={r.line}>
                    Line {r.line}: {r.says}
                  </li>
                ))}
              </ul>
            </details>
          )}
        </div>
      )}
    </section>
  );
}

const W = 640;
const H = 170;
const PAD = 48;

/** Course draws a day of air: air and surface temperature, dew point, and humidity. */
function Course({ list }: { list: Air[] }) {
  const u = useUnits();
  const when = list.map((a) => new Date(a.at).getTime());
  const [from, to] = [when[0] ?? 0, when[when.length - 1] ?? 1];
  const temps = list.flatMap((a) => [a.temp_c, a.surface_c, a.dew_point_c].filter((x): x is number => x !== undefined));
  const lo = Math.floor(Math.min(...temps) - 0.5);
  const hi = Math.ceil(Math.max(...temps) + 0.5);
  const x = (i: number) => PAD + (((when[i] ?? 0) - from) / Math.max(1, to - from)) * (W - 2 * PAD);
  const y = (t: number) => 8 + ((hi - t) / Math.max(1, hi - lo)) * (H - 34);
  const wet = (p: number) => 8 + ((100 - p) / 100) * (H - 34);
  const path = (of: (a: Air) => number | undefined, at: (v: number) => number) =>
    list
      .map((a, i) => ({ v: of(a), i }))
      .filter((p): p is { v: number; i: number } => p.v !== undefined)
      .map((p, n) => `${n ? "L" : "M"}${x(p.i).toFixed(1)} ${at(p.v).toFixed(1)}`)
      .join("");
  const lines = [
    { name: "air", tone: "text-primary", dash: "", d: path((a) => a.temp_c, y) },
    { name: "surface", tone: "text-accent", dash: "7 3", d: path((a) => a.surface_c, y) },
    { name: "dew point", tone: "text-info", dash: "2 3", d: path((a) => a.dew_point_c, y) },
    { name: "humidity", tone: "text-secondary", dash: "10 3 2 3", d: path((a) => a.rh_pct, wet) },
  ].filter((l) => l.d);
  const hours = (at: number) => hour(`T${new Date(at).toTimeString()}`, u);
  return (
    <figure className="mt-2">
      <svg viewBox={`0 0 ${W} ${H}`} className="w-full" role="img" aria-label="The air over the day">
        <path d={`M${PAD} 8V${H - 26}H${W - PAD}V8`} fill="none" stroke="currentColor" strokeOpacity=".4" />
        {[lo, (lo + hi) / 2, hi].map((t) => (
          <text key={t} x={PAD - 4} y={y(t) + 4} textAnchor="end" fontSize="11" fill="currentColor">
            {temp(t, u)}
          </text>
        ))}
        {[0, 50, 100].map((p) => (
          <text key={p} x={W - PAD + 4} y={wet(p) + 4} fontSize="11" fill="currentColor">
            {p} %
          </text>
        ))}
        {[from, (from + to) / 2, to].map((t, i) => (
          <text
            key={t}
            x={PAD + (i * (W - 2 * PAD)) / 2}
            y={H - 10}
            textAnchor="middle"
            fontSize="11"
            fill="currentColor"
          >
            {hours(t)}
          </text>
        ))}
        {lines.map((l) => (
          <path
            key={l.name}
            d={l.d}
            fill="none"
            stroke="currentColor"
            strokeWidth="2"
            strokeDasharray={l.dash}
            className={l.tone}
          />
        ))}
      </svg>
      <figcaption className="flex flex-wrap gap-x-5 text-sm">
        {lines.map((l) => (
          <span key={l.name} className={`inline-flex items-center gap-1.5 ${l.tone}`}>
            <svg viewBox="0 0 28 6" className="h-1.5 w-7" aria-hidden="true">
              <path d="M0 3h28" stroke="currentColor" strokeWidth="2.500" strokeDasharray={l.dash} />
            </svg>
            {l.name} {l.name === "humidity" ? "%" : tempUnit(u)}
          </span>
        ))}
      </figcaption>
    </figure>
  );
}

/** reading writes a reading of the room sensor. */
export function reading(a: Air, u: ReturnType<typeof useUnits>) {
  const all = [
    a.temp_c !== undefined && temp(a.temp_c, u),
    a.rh_pct !== undefined && `${a.rh_pct} % humidity`,
    a.dew_point_c !== undefined && `dew point ${temp(a.dew_point_c, u)}`,
    a.surface_c !== undefined && `surface ${temp(a.surface_c, u)}`,
  ];
  return unbroken(all.filter(Boolean).join(", "));
}
