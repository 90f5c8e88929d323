import { useQuery } from "@tanstack/react-query";
import { answer, api, type Schemas } from "../api/client";

const LIVE = 15_000; // ms between two readings of the room

/** siteOf is a reading of the room as the air that a piece is judged in. */
export function siteOf(r: Schemas["RoomNow"] | undefined): Schemas["Site"] | undefined {
  if (r?.temp_c === undefined || r.rh_pct === undefined) return undefined;
  const { temp_c, rh_pct, surface_c, at, by, simulated } = r;
  return { temp_c, rh_pct, surface_c, at, by, simulated };
}

/** BENCH asks for the instruments of the workshop and the air at this moment. */
export const BENCH = {
  queryKey: ["bench"],
  queryFn: ({ signal }: { signal: AbortSignal }) => answer(api.GET("/api/bench", { signal })),
  staleTime: LIVE,
  retry: false,
};

/** useBench is what the instruments say; the room is read again and again. */
export function useBench() {
  return useQuery({ ...BENCH, refetchInterval: LIVE }).data;
}
