import { useQuery } from "@tanstack/react-query";
import { answer, api } from "./client";

/** STUDIO asks for what the server says of the studio. */
export const STUDIO = { queryKey: ["studio"], queryFn: () => answer(api.GET("/api/studio")), staleTime: Infinity };

/** useStudio is what the server says of the studio; it is asked once. */
export function useStudio() {
  return useQuery(STUDIO).data;
}
