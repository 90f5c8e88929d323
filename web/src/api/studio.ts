import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { createContext, createElement, type ReactNode, useContext } from "react";
import { answer, api, type Schemas } from "./client";

export type Settings = Schemas["Settings"];

/** STUDIO asks for what the server says of the studio. */
export const STUDIO = {
  queryKey: ["studio"],
  queryFn: ({ signal }: { signal: AbortSignal }) => answer(api.GET("/api/studio", { signal })),
  staleTime: Infinity,
};

const StudioContext = createContext<Schemas["Studio"] | undefined>(undefined);

/** StudioProvider asks for the studio, once for all that is on the screen. */
export function StudioProvider({ children }: { children: ReactNode }) {
  return createElement(StudioContext, { value: useQuery(STUDIO).data }, children);
}

/** useStudio is what the server says of the studio. */
export const useStudio = () => useContext(StudioContext);

/**
 * useSaveStudio saves what the studio has chosen: change says it of the settings as they then are. Saves go one after
 * the other, and an answer that was asked for before a save never stands over it.
 */
export function useSaveStudio(onSaved: () => void) {
  const queries = useQueryClient();
  return useMutation({
    scope: { id: "studio" },
    mutationFn: async (change: (now: Settings) => Settings) => {
      await queries.cancelQueries({ queryKey: STUDIO.queryKey });
      const { demo: _, air: __, ...now } = await answer(api.GET("/api/studio"));
      return answer(api.PUT("/api/studio", { body: change(now) }));
    },
    onSuccess: async (saved) => {
      await queries.cancelQueries({ queryKey: STUDIO.queryKey });
      queries.setQueryData(STUDIO.queryKey, saved);
      void queries.invalidateQueries({ queryKey: ["pieces"] });
      onSaved();
    },
  });
}
