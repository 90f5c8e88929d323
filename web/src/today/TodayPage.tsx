import { ChevronDown, ChevronRight, Thermometer } from "lucide-react";
import { useEffect, useState } from "react";
import { Link } from "react-router";
import { why } from "../api/client";
import { useReach } from "../api/reach";
import { useStudio } from "../api/studio";
import { useTick } from "../clocks/useClocks";
import { Shell } from "../frame/Shell";
import { StatusStrip } from "../frame/StatusStrip";
import { temp, useUnits, when } from "../ui/units";
import { useWaitingIf } from "../work/queue";
import { useLog } from "../work/useLog";
import { Waits } from "../work/Waits";
import { AirSheet } from "./AirSheet";
import { useCardSheet } from "./CardSheet";
import { ItemCard, Row } from "./ItemCard";
import { onward } from "./onward";
import { type Item, nowOf, type Today, useToday } from "./useToday";

const TICK = 5000; // ms between two drawings of the time

const GROUPS = [
  { id: "now", name: "Now", states: ["closing", "missed", "working", "ready", "ahead"] },
  { id: "drying", name: "Drying", states: ["waiting"] },
  { id: "hardening", name: "Hardening", states: ["hardening"] },
  { id: "later", name: "Not begun", states: ["not_begun"] },
];

/** groupOf is the heading under which what comes next on a zone stands. */
const groupOf = (x: Item) =>
  x.due.state === "not_begun" && x.begun ? "now" : GROUPS.find((g) => g.states.includes(x.due.state))?.id;

/** TodayPage is what comes next on all pieces: made for a phone that leans on a shelf. */
export default function TodayPage() {
  const q = useToday();
  const studio = useStudio();
  useEffect(() => {
    document.title = "Today · Rutile";
  }, []);
  if (q.isError && !q.data) {
    return (
      <Shell head={<h1 className="font-semibold text-lg">Today</h1>} strip={<StatusStrip air={studio?.air} />}>
        <p role="alert" className="p-5 first-letter:uppercase">
          {why(q.error)}
        </p>
      </Shell>
    );
  }
  if (!q.data) return null;
  return (
    <Shell head={<h1 className="font-semibold text-lg">Today</h1>} strip={<StatusStrip air={studio?.air} />}>
      <View today={q.data} away={q.isError} />
    </Shell>
  );
}

function View({ today: asked, away: silent }: { today: Today; away: boolean }) {
  const u = useUnits();
  const log = useLog();
  const { kept } = useReach();
  const away = silent || kept !== undefined || log.failed;
  const waits = useWaitingIf(away);
  const today = away ? { ...asked, items: asked.items.map((x) => onward(x, waits)) } : asked;
  const [open, setOpen] = useState<string>();
  const [air, setAir] = useState(false);
  const [sheet, openSheet] = useCardSheet(log);
  const [shown, setShown] = useState<string[]>([]); // groups that are unfolded
  useTick(TICK, true);
  const now = nowOf(today);
  const first = today.items.find((x) => groupOf(x) === "now");
  const key = (x: Item) => `${x.piece_id}/${x.zone_id}`;
  const ahead = first ?? today.items[0];
  const at = today.items.some((x) => key(x) === open) ? open : ahead && key(ahead);
  const read = today.read ?? today.air;
  return (
    <div className="mx-auto w-full max-w-2xl flex-1 px-3 pt-3 pb-6 sm:px-5" data-today={today.items.length}>
      <button
        type="button"
        data-do="air"
        className="mb-2 flex min-h-12 w-full items-center gap-2 rounded border border-base-300 px-3 text-left text-lg hover:bg-base-200"
        onClick={() => setAir(true)}
      >
        <Thermometer className="size-5 shrink-0 text-primary" aria-hidden="true" />
        <span>
          <b className="font-semibold tabular-nums">
            {temp(read.temp_c, u)}, {Math.round(read.rh_pct)} %
          </b>{" "}
          <span className="text-secondary">
            {today.read_at ? `read at ${when(today.read_at, now, u)}` : "as usual: press to say what it is now"}
          </span>
        </span>
      </button>
      {silent && (
        <p role="status" className="sheet wash mb-2 px-3 py-2 font-medium" data-away>
          The server does not answer. What you log is kept here and sent as soon as it does.
        </p>
      )}
      <Waits log={log} />
      {today.items.length === 0 && (
        <p className="text-lg">
          Nothing is planned. <Link to="/">Choose a piece</Link> and plan its coats: what to do comes here then.
        </p>
      )}
      {GROUPS.map((g) => {
        const those = today.items.filter((x) => groupOf(x) === g.id);
        if (!those.length) return null;
        const folded = (g.id === "later" || g.id === "hardening") && !shown.includes(g.id) && !!first;
        return (
          <section key={g.id} aria-labelledby={`g-${g.id}`} className="mt-3" data-group={g.id}>
            <h2 id={`g-${g.id}`} className="mb-1 flex items-center gap-2 font-semibold text-primary text-xl">
              {g.id === "later" || g.id === "hardening" ? (
                <button
                  type="button"
                  data-do={`show-${g.id}`}
                  aria-expanded={!folded}
                  className="flex min-h-11 items-center gap-1"
                  onClick={() => setShown((s) => (folded ? [...s, g.id] : s.filter((x) => x !== g.id)))}
                >
                  {folded ? <ChevronRight className="size-5" /> : <ChevronDown className="size-5" />} {g.name}
                </button>
              ) : (
                g.name
              )}
              <span className="font-normal text-base text-secondary tabular-nums">{those.length}</span>
            </h2>
            {!folded && (
              <ul className="grid gap-2">
                {those.map((x) => (
                  <li key={key(x)} data-item={key(x)} data-state={x.due.state}>
                    {key(x) === at ? (
                      <ItemCard x={x} now={now} log={log} onSheet={openSheet} />
                    ) : (
                      <Row x={x} now={now} onOpen={() => setOpen(key(x))} />
                    )}
                  </li>
                ))}
              </ul>
            )}
          </section>
        );
      })}
      {sheet}
      {air && <AirSheet read={read} onClose={() => setAir(false)} />}
    </div>
  );
}
