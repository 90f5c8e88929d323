import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { createContext, createElement, type ReactNode, useContext } from "react";
import { answer, api, Refused, type Schemas } from "./client";

export type Settings = Schemas["Settings"];

/** STUDIO requests the studio's settings. */
export const STUDIO = {
  queryKey: ["studio"],
  queryFn: ({ signal }: { signal: AbortSignal }) => answer(api.GET("/api/studio", { signal })),
  staleTime: Infinity,
};

const CONFLICT = 409;

const StudioContext = createContext<Schemas["Studio"] | undefined>(undefined);

/** StudioProvider requests the studio's settings once for the whole screen. */
export function StudioProvider({ children }: { children: ReactNode }) {
  return createElement(StudioContext, { value: useQuery(STUDIO).data }, children);
}

/** useStudio is the studio's settings. */
export const useStudio = () => useContext(StudioContext);

/**
 * useSaveStudio saves settings: change is applied to the settings as they are on the server. Saves go one after the
 * other, and an answer requested before a save never replaces it.
 */
export function useSaveStudio(onSaved: () => void) {
  const queries = useQueryClient();
  return useMutation({
    scope: { id: "studio" },
    mutationFn: async (change: (now: Settings) => Settings) => {
      await queries.cancelQueries({ queryKey: STUDIO.queryKey });
      for (let tries = 0; ; tries++) {
        const { demo: _, air: __, read_only: ___, device: ____, rev, ...now } = await answer(api.GET("/api/studio"));
        const params = { header: { "If-Match": `"${rev}"` } };
        try {
          return await answer(api.PUT("/api/studio", { params, body: change(now) }));
        } catch (e) {
          // Another tab has saved in between: the change is made to what it saved.
          if (!(e instanceof Refused) || e.status !== CONFLICT || tries === 3) throw e;
        }
      }
    },
    onSuccess: async (saved) => {
      await queries.cancelQueries({ queryKey: STUDIO.queryKey });
      queries.setQueryData(STUDIO.queryKey, saved);
      void queries.invalidateQueries({ queryKey: ["pieces"] });
      onSaved();
    },
  });
}
