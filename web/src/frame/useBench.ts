import { useQuery } from "@tanstack/react-query";
import { answer, api } from "../api/client";

const LIVE = 15_000; // ms between two readings of the room

/** useBench is the instruments of the workshop and the air at this moment. */
export function useBench() {
  return useQuery({
    queryKey: ["bench"],
    queryFn: () => answer(api.GET("/api/bench")),
    refetchInterval: LIVE,
    staleTime: LIVE,
    retry: false,
  }).data;
}
