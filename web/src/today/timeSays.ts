import { type Due, until, when } from "./useToday";

/** timeSays says when the next step may or must be done. */
export function timeSays(due: Due, now: number, us: boolean): string {
  const from = due.from ? Date.parse(due.from) : 0;
  const to = due.to ? Date.parse(due.to) : 0;
  switch (due.state) {
    case "closing":
      return to > now
        ? `until ${when(due.to ?? "", now, us)}, ${until(to - now)} left`
        : `it closed at ${when(due.to ?? "", now, us)}`;
    case "missed":
      return due.to ? `the time for it ended ${when(due.to, now, us)}` : "";
    case "waiting":
      return [
        from > now ? `from ${when(due.from ?? "", now, us)}, in ${until(from - now)}` : "from now",
        due.may ? `at the earliest ${when(due.may, now, us)}` : "",
        due.to ? `until ${when(due.to, now, us)}` : "",
      ]
        .filter(Boolean)
        .join("; ");
    case "working":
      return due.since ? `since ${when(due.since, now, us)}` : "";
    case "ready":
      return due.to && to > now ? `until ${when(due.to, now, us)}` : "";
  }
  return "";
}
