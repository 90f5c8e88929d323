import { useQuery } from "@tanstack/react-query";
import { createContext, createElement, type ReactNode, useContext } from "react";
import { answer, api, type Schemas } from "../api/client";

const LIVE = 15_000; // ms between two readings of the room

/** siteOf is a reading of the room as the air that a piece is judged in. */
export function siteOf(r: Schemas["RoomNow"] | undefined): Schemas["Site"] | undefined {
  if (r?.temp_c === undefined || r.rh_pct === undefined) return undefined;
  const { temp_c, rh_pct, surface_c, at, by, simulated } = r;
  return { temp_c, rh_pct, surface_c, at, by, simulated };
}

/** INSTRUMENTS asks for the instruments of the workshop and the air at this moment. */
export const INSTRUMENTS = {
  queryKey: ["instruments"],
  queryFn: ({ signal }: { signal: AbortSignal }) => answer(api.GET("/api/instruments", { signal })),
  staleTime: LIVE,
  retry: false,
};

const InstrumentsContext = createContext<Schemas["InstrumentsNow"] | undefined>(undefined);

/** InstrumentsProvider asks the instruments again and again, once for all that is on the screen. */
export function InstrumentsProvider({ children }: { children: ReactNode }) {
  return createElement(
    InstrumentsContext,
    { value: useQuery({ ...INSTRUMENTS, refetchInterval: LIVE }).data },
    children,
  );
}

/** useInstruments is what the instruments say. */
export const useInstruments = () => useContext(InstrumentsContext);
