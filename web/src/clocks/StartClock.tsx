import { Timer } from "lucide-react";
import { useState } from "react";
import type { Schemas } from "../api/client";
import { localOf, today } from "../ui/clock";
import { hour, clock as moment, useUnits } from "../ui/units";
import { Dial } from "./Dial";
import { wakeSound } from "./ring";
import { leftOf, newClockID, spell, useClockDo, useClocks, useTick } from "./useClocks";

const LONG = 1800; // s from which it is said when a clock will ring

/** until is the time of day that it is in so many seconds, with the date where that is another day. */
function until(seconds: number, u: ReturnType<typeof useUnits>): string {
  const at = localOf(Date.now() + seconds * 1000);
  return at.startsWith(today()) ? hour(at, u) : moment(at, u);
}

type Props = {
  clock: Schemas["CardClock"];
  about: Pick<Schemas["NewClock"], "for" | "piece" | "piece_id" | "zone" | "zone_id" | "card" | "temp_c" | "rh_pct">;
  big?: boolean;
};

/** StartClock starts a clock that a card offers, and shows it while it runs. */
export function StartClock({ clock, about, big }: Props) {
  const q = useClocks();
  const { start } = useClockDo();
  const u = useUnits();
  const [id, setID] = useState<string>();
  const at = q.data?.at ?? 0;
  // One that a card started before is found again after a reload, by what it is for.
  const runs = q.data?.clocks.find(
    (c) =>
      c.id === id ||
      (c.kind === clock.kind &&
        c.for === about.for &&
        c.zone_id === about.zone_id &&
        c.piece_id === about.piece_id &&
        c.card === about.card),
  );
  useTick(500, !!runs);
  const tall = big ? "min-h-16 px-5 text-xl" : "min-h-12";
  if (runs) {
    const left = leftOf(runs, at);
    return (
      <span
        role="timer"
        className={`inline-flex items-center gap-3 rounded border-2 px-3 ${big ? "min-h-20 text-5xl" : "min-h-12"} ${left > 0 ? "border-primary text-primary" : "border-success text-success"}`}
        data-started={runs.id}
        data-kind={clock.kind}
        data-left={Math.round(left)}
      >
        <Dial left={left} total={runs.total_s} ends={runs.ends} size={big ? 52 : 26} />
        {left > 0 && <span className="text-base leading-tight">{runs.name}</span>}
        <b className="font-semibold tabular-nums">
          {left > 0 ? spell(left) : <span className={big ? "text-2xl" : ""}>{runs.rings}</span>}
        </b>
        {left >= LONG && <span className="text-base">{until(left, u)}</span>}
      </span>
    );
  }
  return (
    <button
      type="button"
      data-start={clock.kind}
      className={`btn border-primary ${tall}`}
      disabled={start.isPending}
      onClick={() => {
        wakeSound();
        const made = newClockID();
        setID(made);
        start.mutate({
          id: made,
          kind: clock.kind,
          need_s: clock.need_s,
          least_s: clock.least_s,
          product: clock.product,
          name: clock.says,
          seconds: clock.seconds,
          ...about,
        });
      }}
    >
      <Timer className={big ? "size-7" : "size-5"} aria-hidden="true" />
      <span className="text-left leading-tight">
        {start.isError ? "Not started: press again" : `Start: ${clock.says}`}
        {clock.seconds >= LONG && !start.isError && (
          <span className="block font-normal text-sm">from now: {until(clock.seconds, u)}</span>
        )}
      </span>
    </button>
  );
}
