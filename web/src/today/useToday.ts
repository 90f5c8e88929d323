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
