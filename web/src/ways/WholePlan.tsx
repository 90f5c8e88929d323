import { useMutation } from "@tanstack/react-query";
import { Check, Route, Square } from "lucide-react";
import { useRef, useState } from "react";
import { answer, api, ofOpen, type Piece, Refused, type Schemas, why } from "../api/client";
import { useStudio } from "../api/studio";
import { useVocab } from "../api/vocab";
import { carried, remember } from "../shelf/carry";
import { Choice } from "../ui/Choice";
import { count, list } from "../ui/units";
import { runName, said, stopRun, useKept } from "./useWays";
import { Stuck } from "./WayCard";
import { Weights } from "./Weights";

type Made = Schemas["PiecePlan"];
type Line = Schemas["PlanLine"];

type Props = {
  piece: Piece;
  onPiece: (p: Piece) => void;
  onShow: (zone: string) => void;
};

/** WholePlan plans every open zone of a piece, and combines all plans into one schedule of trips. */
export function WholePlan({ piece, onPiece, onShow }: Props) {
  const v = useVocab();
  const studio = useStudio();
  const ways = [...(studio?.ways ?? []), ...v.ways.ways];
  const [way, setWay] = useState(studio?.way || (ways[0]?.id ?? ""));
  const [at, setAt] = useState<Line>();
  const [kept, keep] = useKept();
  const running = useRef("");
  const [stopping, setStopping] = useState(false);
  const zones = piece.zones ?? [];
  const open = zones.filter((z) => !z.steps?.length).length;
  const search = useMutation({
    mutationFn: async (run: string): Promise<{ of: string; plan: Made }> => {
      setAt({ done: 0, of: zones.length });
      const told = await answer(
        api.POST("/api/plans/piece", {
          params: { query: { way, weights: said(kept.weights), run, ...ofOpen() } },
          body: { ...piece, photos: undefined },
          parseAs: "stream",
        }),
      );
      for await (const line of lines(told)) {
        if (line.says) throw new Refused(500, { detail: line.says });
        if (line.plan) return { of: surveyed(piece), plan: line.plan };
        setAt(line);
      }
      throw new Refused(500, { detail: "Planning was interrupted." });
    },
    onSettled: () => {
      setAt(undefined);
      setStopping(false);
    },
  });
  const run = () => {
    running.current = runName();
    search.mutate(running.current);
  };
  const stop = () => {
    setStopping(true);
    void stopRun(running.current);
  };
  const made = search.data;
  const trouble = search.error && `Not planned: ${why(search.error)}`;
  const take = () => {
    if (!made) return;
    const planned = made.plan.piece.zones ?? [];
    remember(made.plan.piece.cans ?? []);
    const filled = zones.map((z) => {
      const p = planned.find((x) => x.id === z.id);
      return !z.steps?.length && p?.steps?.length ? { ...z, steps: p.steps, way: p.way } : z;
    });
    onPiece(carried({ ...piece, zones: filled }));
  };
  const plan = made?.plan;
  const fresh = plan?.zones.filter((z) => z.state === "planned").length ?? 0;
  const isFresh = (id: string) => plan?.zones.some((z) => z.id === id && z.state === "planned");
  const left = plan?.zones.filter((z) => z.state === "stopped").length ?? 0;
  const taken = fresh > 0 && !zones.some((z) => isFresh(z.id) && !z.steps?.length);
  const stale = !!made && made.of !== surveyed(piece);
  return (
    <section aria-label="Plan for the whole piece" className="mx-auto w-full max-w-5xl px-3 py-4 sm:px-5">
      <h2 className="font-semibold text-2xl">Plan the whole piece</h2>
      <p className="mb-3 text-secondary">
        {zones.length === 0
          ? "There are no zones yet."
          : open === 0
            ? "Every zone has a plan. Combined, they make one schedule of trips."
            : `${open} of ${count(zones.length, "zone", "zones")} ${open === 1 ? "has" : "have"} no plan yet. Existing plans stay; zones of the same colour get the same paint and sheen.`}
      </p>
      <Weights weights={kept.weights} onWeights={(weights) => keep({ ...kept, weights })} />
      <div className="flex flex-wrap items-end gap-3">
        <div className="w-72 max-w-full">
          <Choice label="Way of working" name="plan.way" words={ways} value={way} onChange={setWay} />
        </div>
        {at ? (
          <button data-do="stop-plan" type="button" className="btn mb-2" disabled={stopping} onClick={stop}>
            <Square className="size-4" aria-hidden="true" /> {stopping ? "Stopping…" : "Stop"}
          </button>
        ) : (
          <button
            data-do="plan-all"
            type="button"
            className={`btn mb-2 ${fresh > 0 ? "" : "btn-primary"}`}
            disabled={!zones.length}
            onClick={run}
          >
            <Route className="size-5" aria-hidden="true" />
            {open ? "Plan the open zones" : "Combine the trips"}
          </button>
        )}
        {fresh > 0 && (
          <button type="button" className="btn btn-primary mb-2" disabled={taken || stale} data-take-all onClick={take}>
            <Check className="size-5" aria-hidden="true" />
            {taken ? "Plans used. You can undo this." : `Use ${fresh === 1 ? "this plan" : `these ${fresh} plans`}`}
          </button>
        )}
      </div>
      {at && (
        <div role="status" className="mb-3">
          <progress className="h-3 w-full accent-primary" max={at.of || 1} value={at.done} aria-label="Zones planned" />
          <p className="text-secondary tabular-nums">
            {at.done} of {at.of} zones
          </p>
        </div>
      )}
      {trouble && (
        <p role="alert" className="mb-3 font-medium text-warning">
          {trouble} Nothing was changed.
        </p>
      )}
      {stale && !taken && (
        <p role="status" className="mb-3 font-medium text-warning">
          The piece has changed since. Plan it again first.
        </p>
      )}
      {plan && left > 0 && (
        <p role="status" className="mb-3 font-medium text-warning" data-left={left}>
          Planning was stopped early: {count(left, "zone has", "zones have")} no plan yet. Use the plans found so far,
          then plan again for the rest.
        </p>
      )}
      {plan && (
        <>
          <ul className="mb-4 flex flex-col gap-1.5" aria-label="Result for each zone">
            {plan.zones.map((z) => (
              <li key={z.id} data-zone={z.id} data-state={z.state} className="rounded border border-base-300 px-3 py-2">
                <div className="flex flex-wrap items-baseline gap-x-3">
                  <button type="button" className="link font-semibold" onClick={() => onShow(z.id)}>
                    <bdi>{z.name}</bdi>
                  </button>
                  {!z.stuck && <span className="min-w-0 flex-1">{z.says}</span>}
                </div>
                {z.like && (
                  <p className="text-secondary text-sm">
                    The same paint and sheen as <bdi>{list(z.like)}</bdi>.
                  </p>
                )}
                {z.differs && <p className="text-sm text-warning">{z.differs}</p>}
                {z.front && <p className="font-semibold text-sm text-warning">{z.front}</p>}
                {z.shelf && <p className="text-sm">{z.shelf}</p>}
                {z.buy_words && <p className="text-sm">Outside your kit: {z.buy_words}.</p>}
                {(z.leaves ?? []).map((w) => (
                  <p key={w} className="text-sm leading-tight">
                    {w}
                  </p>
                ))}
                {(z.watches ?? []).map((w) => (
                  <p key={w} className="text-sm text-warning leading-tight">
                    {w}
                  </p>
                ))}
                {z.stuck && <Stuck plan={z} onField={() => onShow(z.id)} />}
              </li>
            ))}
          </ul>
          {plan.trips.length > 0 && <Trips plan={plan} />}
        </>
      )}
    </section>
  );
}

/** surveyed is everything of a piece that its plans depend on. */
function surveyed(piece: Piece): string {
  return JSON.stringify({
    ...piece,
    photos: undefined,
    zones: piece.zones?.map((z) => ({ ...z, steps: undefined, way: undefined })),
  });
}

function Trips({ plan }: { plan: Made }) {
  return (
    <section aria-label="Trips">
      <h3 className="font-semibold text-lg">
        {count(plan.trips.length, "trip", "trips")}
        {plan.steps > plan.trips.length && ` instead of ${plan.steps}`}
      </h3>
      <p className="mb-2 text-secondary">
        The same work on several zones is one trip, and you work on one zone while another dries; {plan.takes} from
        start to end, in your working hours.
      </p>
      <table className="w-full text-sm">
        <thead className="border-base-300 border-b text-left text-secondary">
          <tr>
            <th className="py-1 pr-3 font-normal">Start</th>
            <th className="py-1 pr-3 font-normal">Work</th>
            <th className="py-1 pr-3 font-normal">Zones</th>
            <th className="py-1 pr-3 text-right font-normal">Time</th>
            <th className="py-1 font-normal max-sm:hidden">Drying meanwhile</th>
          </tr>
        </thead>
        {plan.days.map((d) => (
          <tbody key={d.day} data-day={d.day}>
            <tr className="border-base-300 border-b">
              <th colSpan={5} className="pt-3 pb-1 text-left font-semibold">
                {d.title}
              </th>
            </tr>
            {d.trips
              .map((i) => plan.trips[i])
              .filter((t) => !!t)
              .map((t, i) => (
                // biome-ignore lint/suspicious/noArrayIndexKey: trips have no other name, and the list is drawn anew
                <tr key={i} className="border-base-300 border-b align-top">
                  <td className="whitespace-nowrap py-1.5 pr-3 tabular-nums">{t.at}</td>
                  <td className="py-1.5 pr-3 font-medium">
                    {t.does}
                    {t.caution && <span className="block font-normal text-error">{t.caution}</span>}
                  </td>
                  <td className="py-1.5 pr-3">
                    <bdi>{t.zones.join(", ")}</bdi>
                  </td>
                  <td className="whitespace-nowrap py-1.5 pr-3 text-right tabular-nums">{t.work}</td>
                  <td className="py-1.5 text-secondary max-sm:hidden">
                    <bdi>{t.while?.join(", ")}</bdi>
                  </td>
                </tr>
              ))}
          </tbody>
        ))}
      </table>
    </section>
  );
}

/** lines reads an answer that comes line by line. */
async function* lines(body: ReadableStream<Uint8Array>): AsyncGenerator<Line> {
  const text = body.pipeThrough(new TextDecoderStream() as unknown as TransformStream<Uint8Array, string>).getReader();
  let rest = "";
  for (;;) {
    const { done, value } = await text.read();
    rest += value ?? "";
    const all = rest.split("\n");
    rest = all.pop() ?? "";
    for (const l of all) if (l) yield JSON.parse(l) as Line;
    if (done) return;
  }
}
