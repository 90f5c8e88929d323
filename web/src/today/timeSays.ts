import { type Units, when } from "../ui/units";
import type { Due } from "./useToday";

const MINUTE = 60_000;

/** until is how long it is until a moment, in words: 25 min, 3 h, 2 days. */
function until(ms: number): string {
  const m = Math.max(0, Math.ceil(ms / MINUTE));
  if (m < 100) return `${m} min`;
  const h = ms / (60 * MINUTE);
  return h < 36 ? `${Math.round(h)} h` : `${Math.round(h / 24)} days`;
}

/** timeSays says when the next step may or must be done. */
export function timeSays(due: Due, now: number, u: Units): string {
  const from = due.from ? Date.parse(due.from) : 0;
  const to = due.to ? Date.parse(due.to) : 0;
  switch (due.state) {
    case "closing":
      return to > now
        ? `until ${when(due.to ?? "", now, u)}, ${until(to - now)} left`
        : `it closed at ${when(due.to ?? "", now, u)}`;
    case "missed":
      return due.to ? `the time for it ended ${when(due.to, now, u)}` : "";
    case "waiting":
      return [
        from > now ? `from ${when(due.from ?? "", now, u)}, in ${until(from - now)}` : "from now",
        due.may ? `at the earliest ${when(due.may, now, u)}` : "",
        due.to ? `until ${when(due.to, now, u)}` : "",
      ]
        .filter(Boolean)
        .join("; ");
    case "working":
      return due.since ? `since ${when(due.since, now, u)}` : "";
    case "ready":
      return due.to && to > now ? `until ${when(due.to, now, u)}` : "";
  }
  return "";
}
