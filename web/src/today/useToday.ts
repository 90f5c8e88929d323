import { useQuery } from "@tanstack/react-query";
import { answer, api, type Schemas } from "../api/client";

export type Item = Schemas["TodayItem"];
export type Due = Schemas["Due"];
export type Today = Schemas["Today"] & { at: number }; // when it arrived, by a clock that nobody sets

export const TODAY_KEY = ["today"];
const EVERY = 30_000; // ms after which the server is asked again: windows open and close

/** took is an answer with the moment at which it arrived. */
export const took = (t: Schemas["Today"]): Today => ({ ...t, at: performance.now() });

/** TODAY requests what comes next on all pieces. */
export const TODAY = {
  queryKey: TODAY_KEY,
  queryFn: async ({ signal }: { signal: AbortSignal }) => took(await answer(api.GET("/api/today", { signal }))),
  refetchInterval: EVERY,
  refetchOnWindowFocus: true,
  structuralSharing: false as const,
};

export const useToday = () => useQuery(TODAY);

/** nowOf is the moment that it is at the server, in milliseconds since 1970. */
export const nowOf = (t: Today) => Date.parse(t.now) + performance.now() - t.at;

const MINUTE = 60_000;
const DAY = 24 * 60 * MINUTE;

/** until is how long it is until a moment, in words: 25 min, 3 h, 2 days. */
export function until(ms: number): string {
  const m = Math.max(0, Math.ceil(ms / MINUTE));
  if (m < 100) return `${m} min`;
  const h = ms / (60 * MINUTE);
  if (h < 36) return `${Math.round(h)} h`;
  return `${Math.round(ms / DAY)} days`;
}

const DAYS = ["Sun", "Mon", "Tue", "Wed", "Thu", "Fri", "Sat"];

/** when is a moment as people say it: 14:20 today, Tue 9:00, or a date. */
export function when(at: string, now: number, us: boolean): string {
  const d = new Date(at);
  const n = new Date(now);
  const two = (x: number) => String(x).padStart(2, "0");
  const time = us
    ? `${d.getHours() % 12 || 12}:${two(d.getMinutes())} ${d.getHours() < 12 ? "am" : "pm"}`
    : `${d.getHours()}:${two(d.getMinutes())}`;
  const midnight = new Date(n.getFullYear(), n.getMonth(), n.getDate()).getTime();
  const days = Math.floor((d.getTime() - midnight) / DAY);
  if (days === 0) return time;
  if (days === 1) return `tomorrow ${time}`;
  if (days === -1) return `yesterday ${time}`;
  if (days > 0 && days < 7) return `${DAYS[d.getDay()]} ${time}`;
  const month = d.toLocaleDateString("en-GB", { month: "short" });
  const day = us ? `${month} ${d.getDate()}` : `${d.getDate()} ${month}`;
  return days > 0 ? day : `${day}, ${time}`;
}
