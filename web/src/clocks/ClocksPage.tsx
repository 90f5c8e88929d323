import { BellRing, Plus } from "lucide-react";
import { useEffect, useState } from "react";
import { Link } from "react-router";
import { why } from "../api/client";
import { useStudio } from "../api/studio";
import { useVocabQuery, VocabContext } from "../api/vocab";
import { Shell } from "../frame/Shell";
import { StatusStrip } from "../frame/StatusStrip";
import { NumberField } from "../ui/Field";
import { TempField } from "../ui/TempField";
import { useKeptText } from "../ui/typed";
import { useUnits } from "../ui/units";
import { Dial } from "./Dial";
import { Ringer } from "./Ringer";
import { rings, wakeSound } from "./ring";
import { type Clock, leftOf, newClockID, spell, useClockDo, useClocks, useTick } from "./useClocks";

/** ClocksPage is all clocks that run, on a page of their own. */
export default function ClocksPage() {
  const studio = useStudio();
  const v = useVocabQuery();
  useEffect(() => {
    document.title = "Clocks · Rutile";
  }, []);
  return (
    <Shell head={<h1 className="font-semibold text-lg">Clocks</h1>} strip={<StatusStrip air={studio?.air} />}>
      {v.data && (
        <VocabContext value={v.data}>
          <View />
        </VocabContext>
      )}
    </Shell>
  );
}

function View() {
  const q = useClocks();
  const clocks = q.data?.clocks;
  const at = q.data?.at ?? 0;
  useTick(250, !!clocks?.length);
  if (q.isError && !q.data)
    return (
      <p role="alert" className="p-5 first-letter:uppercase">
        {why(q.error)}
      </p>
    );
  if (!clocks) return null;
  return (
    <div className="mx-auto w-full max-w-4xl px-3 py-4 sm:px-5" data-clocks={clocks.length}>
      {q.data?.doubt && <Doubt says={q.data.doubt.says} gap={q.data.doubt.gap_s ?? 0} />}
      {clocks.length === 0 && (
        <p className="mb-3 text-lg">
          No clock is running. Cards start them: for whisking, resting, the pot, and the next coat. Or set one here.
        </p>
      )}
      <ul className="grid gap-2">
        {clocks.map((c) => (
          <Row key={c.id} c={c} left={leftOf(c, at)} />
        ))}
      </ul>
      <Clear over={clocks.filter((c) => leftOf(c, at) <= 0 && !rings(c, leftOf(c, at)))} />
      <div className="mt-5 grid gap-6 sm:grid-cols-2">
        <Own />
        <Air />
      </div>
      <section className="mt-6 max-w-2xl">
        <h2 className="mb-1 font-semibold text-lg">How they ring here</h2>
        <Ringer />
      </section>
    </div>
  );
}

function Row({ c, left }: { c: Clock; left: number }) {
  const { touch, silence, stop } = useClockDo();
  const [sure, setSure] = useState(false); // a wet knuckle must not take a running clock away
  const due = rings(c, left);
  const on = [c.for, c.zone].filter(Boolean).join(", ");
  return (
    <li
      className={`sheet flex flex-wrap items-center gap-x-4 gap-y-2 rounded px-3 py-2 ${due ? "bg-warning/15" : ""}`}
      data-clock={c.id}
      data-kind={c.kind}
      data-state={left > 0 ? "runs" : due ? "rings" : "past"}
    >
      <span className={left > 0 ? "text-primary" : c.ends ? "text-error" : "text-success"}>
        <Dial left={left} total={c.total_s} ends={c.ends} size={44} />
      </span>
      <span className="min-w-44 font-head font-semibold text-3xl tabular-nums" data-left={Math.round(left)}>
        {left > 0 ? spell(left) : `${spell(left)} ago`}
      </span>
      <span className="min-w-48 flex-1 leading-tight">
        <b className="font-semibold text-lg">{left > 0 ? c.name : c.rings}</b>
        <span className="block">
          {on}
          {c.piece && (
            <>
              {on && " · "}
              {c.piece_id ? (
                <Link
                  className="underline"
                  to={`/pieces/${c.piece_id}${c.zone_id ? `/${c.zone_id}/mix${c.card ? `?coat=${c.card}` : ""}` : ""}`}
                >
                  <bdi>{c.piece}</bdi>
                </Link>
              ) : (
                <bdi>{c.piece}</bdi>
              )}
            </>
          )}
        </span>
        {c.said && (
          <span role="status" className="block text-accent">
            {c.said}
          </span>
        )}
      </span>
      <span className="flex flex-wrap gap-2">
        {c.touch && (
          <>
            <button
              type="button"
              data-do="sticky"
              className="btn min-h-12"
              onClick={() => touch.mutate({ id: c.id, is: "sticky" })}
            >
              Still sticky
            </button>
            <button
              type="button"
              data-do="dry"
              className="btn min-h-12"
              onClick={() => touch.mutate({ id: c.id, is: "dry" })}
            >
              Dry already
            </button>
          </>
        )}
        {due && (
          <button
            type="button"
            data-do="silence"
            className="btn btn-primary min-h-12"
            onClick={() => silence.mutate(c.id)}
          >
            <BellRing className="size-5" aria-hidden="true" /> Stop ringing
          </button>
        )}
        <button
          type="button"
          data-do="stop"
          className="btn btn-ghost min-h-12 border-base-300"
          aria-label={`Remove the clock ${c.name}${sure ? ", press again" : ""}`}
          onClick={() => (left > 0 && !sure ? setSure(true) : stop.mutate(c.id))}
          onBlur={() => setSure(false)}
        >
          {sure ? "Press again to remove" : "Remove"}
        </button>
      </span>
    </li>
  );
}

/** Clear removes all clocks that are over and ring no more. */
function Clear({ over }: { over: Clock[] }) {
  const { stop } = useClockDo();
  if (over.length < 2) return null;
  return (
    <button
      type="button"
      data-do="clear"
      className="btn btn-ghost mt-2 min-h-12 border-base-300"
      onClick={() => {
        for (const c of over) stop.mutate(c.id);
      }}
    >
      Remove the {over.length} that are over
    </button>
  );
}

/** Own sets a clock of the painter's own. */
function Own() {
  const { start } = useClockDo();
  const [what, setWhat] = useKeptText("rutile.clock.what");
  const [time, setTime] = useKeptText("rutile.clock.time");
  return (
    <form
      aria-label="Set a clock"
      onSubmit={(e) => {
        e.preventDefault();
        wakeSound();
        start.mutate(
          { id: newClockID(), kind: "own", typed: time || " ", for: what || undefined },
          {
            onSuccess: () => {
              setWhat(undefined);
              setTime(undefined);
            },
          },
        );
      }}
    >
      <h2 className="font-semibold text-lg">Set a clock</h2>
      <label className="mb-2 block">
        <span className="block font-medium text-secondary text-sm">What for</span>
        <input
          className="input w-full"
          data-field="clock.for"
          value={what}
          maxLength={200}
          autoComplete="off"
          onChange={(e) => setWhat(e.target.value)}
        />
      </label>
      <label className="mb-2 block">
        <span className="block font-medium text-secondary text-sm">How long, such as 20 min or 1 h 30</span>
        <input
          className={`input w-full ${start.isError ? "input-error" : ""}`}
          data-field="clock.time"
          value={time}
          aria-invalid={start.isError}
          autoComplete="off"
          onChange={(e) => {
            start.reset();
            setTime(e.target.value);
          }}
        />
      </label>
      {start.isError && (
        <p role="alert" className="mb-2 text-error">
          {why(start.error, "Not started: the server does not answer. Try again.")}
        </p>
      )}
      <button type="submit" data-do="set-clock" className="btn btn-primary min-h-12" disabled={start.isPending}>
        <Plus className="size-5" aria-hidden="true" /> Start it
      </button>
    </form>
  );
}

/** Air tells the clocks of coats that dry what the air is now. */
function Air() {
  const u = useUnits();
  const studio = useStudio();
  const { air } = useClockDo();
  const [t, setT] = useState<number | undefined>(studio?.air.temp_c);
  const [h, setH] = useState<number | undefined>(studio?.air.rh_pct);
  return (
    <form
      aria-label="The air has changed"
      onSubmit={(e) => {
        e.preventDefault();
        if (t !== undefined && h !== undefined) air.mutate({ temp_c: t, rh_pct: h });
      }}
    >
      <h2 className="font-semibold text-lg">The air has changed</h2>
      <div className="grid grid-cols-2 gap-3">
        <TempField label="Temperature now" name="clock.temp_c" units={u} value={t} required onChange={setT} />
        <NumberField
          label="Humidity now"
          of="site.rh_pct"
          name="clock.rh_pct"
          unit="%"
          value={h}
          required
          onChange={setH}
        />
      </div>
      <button type="submit" data-do="air" className="btn min-h-12" disabled={air.isPending}>
        Set the clocks to this air
      </button>
      <p role="status" className="mt-1 text-secondary text-sm">
        {air.isError
          ? why(air.error)
          : air.isSuccess
            ? "Done: drying clocks run in this air now."
            : "Only clocks of coats that dry and of pots depend on it."}
      </p>
    </form>
  );
}

/** Doubt asks what happened while the server could not tell. */
function Doubt({ says, gap }: { says: string; gap: number }) {
  const { settle } = useClockDo();
  const [time, setTime] = useState("");
  return (
    <section role="alert" className="sheet mb-4 rounded bg-warning/15 px-3 py-3" data-doubt={Math.round(gap)}>
      <p className="mb-2 text-lg">{says}</p>
      <div className="flex flex-wrap items-end gap-2">
        {gap > 0 && (
          <button
            type="button"
            data-do="slept"
            className="btn min-h-12"
            onClick={() => settle.mutate({ passed_s: gap })}
          >
            So much time passed
          </button>
        )}
        <button type="button" data-do="was-set" className="btn min-h-12" onClick={() => settle.mutate({ passed_s: 0 })}>
          {gap > 0 ? "The clock was set" : "No time passed"}
        </button>
        <label className="block">
          <span className="block font-medium text-secondary text-sm">Or about how long</span>
          <input className="input" data-field="clock.passed" value={time} onChange={(e) => setTime(e.target.value)} />
        </label>
        <button
          type="button"
          data-do="settle"
          className="btn min-h-12"
          disabled={!time.trim()}
          onClick={() => settle.mutate({ typed: time })}
        >
          Take that
        </button>
      </div>
      {settle.isError && <p className="mt-1 text-error">{why(settle.error)}</p>}
    </section>
  );
}
