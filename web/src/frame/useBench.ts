import { useQuery } from "@tanstack/react-query";
import { answer, api } from "../api/client";

const LIVE = 15_000; // ms between two readings of the room

/** BENCH asks for the instruments of the workshop and the air at this moment. */
export const BENCH = {
  queryKey: ["bench"],
  queryFn: () => answer(api.GET("/api/bench")),
  staleTime: LIVE,
  retry: false,
};

/** useBench is what the instruments say; the room is read again and again. */
export function useBench() {
  return useQuery({ ...BENCH, refetchInterval: LIVE }).data;
}
