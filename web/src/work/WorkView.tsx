import { useQuery } from "@tanstack/react-query";
import { Camera, Download, HandHelping, Plus } from "lucide-react";
import { useState } from "react";
import { Link } from "react-router";
import { answer, api, type Schemas, why } from "../api/client";
import { useReach } from "../api/reach";
import { useTick } from "../clocks/useClocks";
import { zoneTitle } from "../piece/edit";
import { useWorkspace } from "../piece/workspace";
import { useOpen } from "../session/useSession";
import { useCardSheet } from "../today/CardSheet";
import { ItemCard } from "../today/ItemCard";
import { onward } from "../today/onward";
import { nowOf, useToday } from "../today/useToday";
import { type Units, useUnits, when } from "../ui/units";
import OtherwiseSheet from "./OtherwiseSheet";
import { type About, useWaitingIf } from "./queue";
import { type Log, newEntry, useLog } from "./useLog";
import { takenBack, Waits } from "./Waits";

type Line = Schemas["LogLine"];

/** LOG requests the log of a piece. */
const LOG = (id: number) => ({
  queryKey: ["log", id],
  queryFn: ({ signal }: { signal: AbortSignal }) =>
    answer(api.GET("/api/pieces/{id}/log", { params: { path: { id } }, signal })),
});

/** WorkView is the stage Work: what comes next on the zone, what goes back, and the log. */
export default function WorkView() {
  const { id, zone, piece } = useWorkspace();
  const { created } = useOpen().shown();
  const u = useUnits();
  const today = useToday();
  const q = useQuery({ ...LOG(id), enabled: id > 0 });
  const log = useLog();
  const [sheet, setSheet] = useState<"unplanned" | "note">();
  const [cardSheet, openCardSheet] = useCardSheet(log);
  const [fix, setFix] = useState<Line>(); // what is corrected
  const [all, setAll] = useState(false);
  const away = useReach().kept !== undefined || log.failed;
  const waits = useWaitingIf(away);
  useTick(5000, true);
  if (q.isError && !q.data) {
    return (
      <p role="alert" className="p-5 first-letter:uppercase">
        {why(q.error)}
      </p>
    );
  }
  if (!today.data || !q.data) return <div className="min-h-dvh" />;
  const now = nowOf(today.data);
  const due = today.data.items.find((x) => x.piece_id === id && x.zone_id === zone.id);
  const item = due && away ? onward(due, waits) : due;
  const about = { piece: id, created, of: piece.name || "The piece" };
  const lines = q.data.lines.filter((l) => all || !l.entry.zone || l.entry.zone === zone.id);
  return (
    <section
      aria-label="Work"
      data-work={q.data.lines.length}
      className="min-h-0 flex-1 overflow-y-auto px-3 py-4 sm:px-5"
    >
      <div className="mx-auto grid max-w-6xl gap-x-8 gap-y-6 lg:grid-cols-2">
        <div>
          <Waits piece={id} log={log} />
          {q.data.finished ? (
            <Finished at={q.data.finished} now={now} about={about} lines={q.data.lines} log={log} />
          ) : item ? (
            <ItemCard x={item} now={now} log={log} onSheet={openCardSheet} as="h2" />
          ) : (
            <p className="text-lg">Nothing is planned for this zone yet.</p>
          )}
          <div className="mt-3 flex flex-wrap gap-2">
            <button type="button" data-do="unplanned" className="btn min-h-12" onClick={() => setSheet("unplanned")}>
              <Plus className="size-5" aria-hidden="true" /> Something else was done
            </button>
            <button type="button" data-do="piece-note" className="btn min-h-12" onClick={() => setSheet("note")}>
              <Camera className="size-5" aria-hidden="true" /> Note on the whole piece
            </button>
          </div>
          <Back fittings={q.data.fittings} now={now} about={about} log={log} />
          {!q.data.finished && q.data.lines.some((l) => l.entry.what === "done") && (
            <HandOver
              left={today.data.items.filter((x) => x.piece_id === id && x.due.state !== "hardening").map((x) => x.zone)}
              off={q.data.fittings.filter((f) => !f.back).length}
              onDone={() => log.log(about, newEntry({ what: "finished" }))}
            />
          )}
        </div>
        <div>
          <div className="mb-2 flex flex-wrap items-center gap-2">
            <h2 className="flex-1 font-semibold text-primary text-xl">Log</h2>
            {(piece.zones?.length ?? 0) > 1 && (
              <button
                type="button"
                data-do="all"
                aria-pressed={all}
                className="btn btn-sm min-h-11"
                onClick={() => setAll(!all)}
              >
                {all ? `Only ${zoneTitle(zone)}` : "The whole piece"}
              </button>
            )}
            {q.data.lines.length > 0 && (
              <>
                <a className="btn btn-sm min-h-11" href={`/api/pieces/${id}/log.csv`} download data-do="csv">
                  <Download className="size-4" aria-hidden="true" /> CSV
                </a>
                <a className="btn btn-sm min-h-11" href={`/api/pieces/${id}/file`} download data-do="file">
                  <Download className="size-4" aria-hidden="true" /> Piece with log
                </a>
              </>
            )}
          </div>
          {lines.length === 0 && (
            <p>
              {waits.some((w) => w.piece === id)
                ? "What waits comes here once it is sent."
                : "Nothing is logged yet. Press Start or Done at the next step, here or on Today: that is all it takes."}
            </p>
          )}
          <ol className="grid gap-1.5">
            {lines.map((l) => (
              <LogRow
                key={l.entry.id}
                l={l}
                now={now}
                u={u}
                zone={all}
                onBack={() => log.log({ ...about, says: l.says }, takenBack(l.entry))}
                onFix={() => setFix(l)}
              />
            ))}
          </ol>
        </div>
      </div>
      {cardSheet}
      {fix && (
        <OtherwiseSheet
          about={{ ...about, says: fix.says }}
          zone={fix.entry.zone}
          of={fix.says}
          entry={fix.entry}
          log={log}
          onClose={() => setFix(undefined)}
        />
      )}
      {sheet && (
        <OtherwiseSheet
          about={about}
          zone={sheet === "unplanned" ? zone.id : undefined}
          of={sheet === "unplanned" ? zoneTitle(zone) : piece.name || "The piece"}
          unplanned={sheet === "unplanned"}
          log={log}
          onClose={() => setSheet(undefined)}
        />
      )}
    </section>
  );
}

type LogRowProps = { l: Line; now: number; u: Units; zone: boolean; onBack: () => void; onFix: () => void };

function LogRow({ l, now, u, zone, onBack, onFix }: LogRowProps) {
  const [sure, setSure] = useState(false);
  const e = l.entry;
  return (
    <li className="rounded border border-base-300 px-3 py-1.5" data-entry={e.id} data-what={e.what}>
      <div className="flex items-start gap-3">
        <span className="w-40 shrink-0 max-sm:w-24 text-secondary tabular-nums">{when(e.at, now, u)}</span>
        <span className="min-w-0 flex-1 leading-tight">
          <b className="font-semibold">{l.says}</b>
          {zone && l.zone_name && <span className="block text-secondary">{l.zone_name}</span>}
          {l.how.length > 0 && <span className="block">{l.how.join("; ")}</span>}
          {e.note && (
            <span className="block italic">
              <bdi>{e.note}</bdi>
            </span>
          )}
          {e.lesson && <span className="block text-accent">to be done otherwise next time</span>}
          {l.corrected && <span className="block text-secondary text-sm">corrected</span>}
        </span>
        {(e.what === "done" || e.what === "note") && (
          <button type="button" data-do="correct" className="btn btn-ghost btn-sm min-h-11 shrink-0" onClick={onFix}>
            Correct
          </button>
        )}
        <button
          type="button"
          data-do="take-back"
          className="btn btn-ghost btn-sm min-h-11 shrink-0"
          onClick={() => (sure ? onBack() : setSure(true))}
          onBlur={() => setSure(false)}
        >
          {sure ? "Press again" : "Take back"}
        </button>
      </div>
      {!!e.photos?.length && (
        <div className="mt-1 flex flex-wrap gap-2">
          {e.photos.map((f) => (
            <a key={f} href={`/photos/${f}`} target="_blank" rel="noreferrer">
              <img
                src={`/photos/small/${f}`}
                alt={`Photograph of ${l.says}`}
                className="h-20 rounded border border-base-300"
                loading="lazy"
              />
            </a>
          ))}
        </div>
      )}
    </li>
  );
}

type BackProps = { fittings: Schemas["FittingBack"][]; now: number; about: About; log: Log };

/** Back is what was taken off, in the order in which it goes back, with its waits. */
function Back({ fittings, now, about, log }: BackProps) {
  const u = useUnits();
  if (!fittings.length) return null;
  return (
    <section className="mt-5" data-back={fittings.filter((f) => !f.back).length}>
      <h2 className="mb-1 font-semibold text-primary text-xl">Putting it back together</h2>
      <ol className="grid gap-1.5">
        {fittings.map((f, n) => {
          const wait = !!f.from && Date.parse(f.from) > now;
          return (
            // biome-ignore lint/suspicious/noArrayIndexKey: two may be alike
            <li key={n} className="flex items-center gap-3 rounded border border-base-300 px-3 py-1.5">
              <span className="min-w-0 flex-1 leading-tight">
                <b className={`font-semibold ${f.back ? "line-through" : ""}`}>
                  {f.count > 1 ? `${f.count} ` : ""}
                  <bdi>{f.name.toLowerCase()}</bdi>
                </b>
                {f.where && <span className="block text-secondary">{f.where}</span>}
                {!f.back && (f.from || f.says) && (
                  <span className={`block ${wait ? "font-medium text-warning" : ""}`}>
                    {wait ? `from ${when(f.from ?? "", now, u)}: ${f.says}` : f.from ? "It may go back now." : f.says}
                  </span>
                )}
              </span>
              <button
                type="button"
                data-do="back"
                className={`btn min-h-12 ${f.back || wait ? "" : "btn-primary"}`}
                disabled={f.back}
                onClick={() =>
                  log.log(
                    { ...about, says: f.name },
                    newEntry({
                      what: "put_back",
                      zone: f.zone,
                      fitting: { kind: f.kind, where: f.where, count: f.count },
                    }),
                  )
                }
              >
                {f.back ? "It is back" : "Put back"}
              </button>
            </li>
          );
        })}
      </ol>
    </section>
  );
}

function HandOver({ left, off, onDone }: { left: string[]; off: number; onDone: () => void }) {
  const [sure, setSure] = useState(false);
  const open = [
    ...left.map((z) => `${z} is not finished`),
    ...(off ? [`${off === 1 ? "one thing is" : `${off} things are`} still off`] : []),
  ];
  return (
    <section className="mt-5">
      <h2 className="mb-1 font-semibold text-primary text-xl">Handing over</h2>
      {open.length > 0 && <p className="mb-1">Before that: {open.join("; ")}.</p>}
      <button
        type="button"
        data-do="hand-over"
        className={`btn min-h-12 ${open.length ? "" : "btn-primary"}`}
        onClick={() => (open.length && !sure ? setSure(true) : onDone())}
        onBlur={() => setSure(false)}
      >
        <HandHelping className="size-5" aria-hidden="true" />
        {sure ? "Hand it over all the same" : "It is handed over"}
      </button>
    </section>
  );
}

type FinishedProps = { at: string; now: number; about: About; lines: Line[]; log: Log };

function Finished({ at, now, about, lines, log }: FinishedProps) {
  const u = useUnits();
  const entry = lines.find((l) => l.entry.what === "finished")?.entry;
  return (
    <div className="sheet wash px-4 py-3" data-finished>
      <p className="font-semibold text-xl">Handed over {when(at, now, u)}.</p>
      <div className="mt-2 flex flex-wrap gap-2">
        <Link className="btn btn-primary min-h-12" to={`/pieces/${about.piece}/-/back`} data-do="look-back">
          Look back
        </Link>
        {entry && (
          <button
            type="button"
            className="btn min-h-12"
            data-do="not-finished"
            onClick={() => log.log(about, takenBack(entry))}
          >
            Work goes on
          </button>
        )}
      </div>
    </div>
  );
}
