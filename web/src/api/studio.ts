import { useQuery } from "@tanstack/react-query";
import { answer, api } from "./client";

/** useStudio is what the server says of the studio; it is asked once. */
export function useStudio() {
  return useQuery({ queryKey: ["studio"], queryFn: () => answer(api.GET("/api/studio")), staleTime: Infinity }).data;
}
