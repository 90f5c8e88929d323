import type { Waiting } from "../work/queue";
import type { Due, Item } from "./useToday";

/**
 * onward is what comes next on a zone if what waits for the server is taken as done: the first step of its plan that
 * is neither done nor left out. When that may be done, only the server can say.
 */
export function onward(x: Item, waiting: readonly Waiting[]): Item {
  const here = waiting.filter((w) => !w.refused && w.piece === x.piece_id && w.entry.zone === x.zone_id);
  const back = new Set(here.flatMap((w) => (w.entry.void ? [w.entry.corrects] : [])));
  const held = here.filter((w) => !w.entry.void && !w.entry.corrects && !back.has(w.entry.id) && w.entry.planned);
  if (!held.length) return x;
  const of = (w: Waiting, d: Due) =>
    w.entry.planned?.step === d.step && (!w.entry.planned?.coat || !d.coat || w.entry.planned.coat === d.coat);
  const past = (d: Due) => held.some((w) => (w.entry.what === "done" || w.entry.what === "skipped") && of(w, d));
  const steps = [x.due, ...(x.then ?? [])];
  const at = steps.findIndex((d) => !past(d));
  const due: Due | undefined = steps[at];
  const open = x.open.filter((o) => !held.some((w) => w.entry.planned?.step === o.step));
  if (!due) {
    const says = "All that this device knows of the plan is logged. The computer says what comes next.";
    return { ...x, open, begun: true, due: { state: "ahead", now: x.due.now, says, name: "Wait for the computer" } };
  }
  const begun = held.find((w) => w.entry.what === "began" && of(w, due));
  if (begun)
    return {
      ...x,
      open,
      begun: true,
      due: { ...due, state: "working", since: begun.entry.at, says: "You are at it." },
    };
  if (at === 0) return { ...x, open };
  const before = steps.slice(0, at).filter((d) => d.step !== due.step);
  return { ...x, open, begun: true, fails: undefined, past: x.past + new Set(before.map((d) => d.step)).size, due };
}
