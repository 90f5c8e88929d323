import { type QueryFunctionContext, useQuery } from "@tanstack/react-query";
import { answer, api, type Schemas } from "../api/client";
import { keptAt } from "../api/reach";
import { contact } from "../work/times";

export type Item = Schemas["TodayItem"];
export type Due = Schemas["Due"];
export type Today = Schemas["Today"] & { at: number }; // when it arrived, by a clock that nobody sets

export const TODAY_KEY = ["today"];
const EVERY = 30_000; // ms after which the server is asked again: windows open and close

/** took is an answer with the moment at which it arrived; kept is when, if that was some time ago. */
export function took(t: Schemas["Today"], kept?: number): Today {
  if (kept === undefined) contact(t.now);
  return { ...t, at: performance.now() - age(kept) };
}

/** age is how long ago an answer was taken along, in milliseconds. */
export const age = (kept: number | undefined) => (kept === undefined ? 0 : Math.max(0, Date.now() - kept));

/** askToday asks what comes next now. */
export async function askToday(signal?: AbortSignal): Promise<Today> {
  const call = await api.GET("/api/today", { signal });
  return took(await answer(Promise.resolve(call)), keptAt(call.response));
}

/** TODAY requests what comes next on all pieces. */
export const TODAY = {
  queryKey: TODAY_KEY,
  queryFn: async ({ signal, client }: QueryFunctionContext) => {
    const now = await askToday(signal);
    // An answer that was taken along before does not stand in for a newer one that this page has.
    const had = client.getQueryData<Today>(TODAY_KEY);
    return had && had.at > now.at ? had : now;
  },
  refetchInterval: EVERY,
  refetchOnWindowFocus: true,
  structuralSharing: false as const,
};

export const useToday = () => useQuery(TODAY);

/** nowOf is the moment that it is at the server, in milliseconds since 1970. */
export const nowOf = (t: Today) => Date.parse(t.now) + performance.now() - t.at;
