import { useQuery } from "@tanstack/react-query";
import { createContext, createElement, type ReactNode, useContext } from "react";
import { answer, api, type Schemas } from "../api/client";

const LIVE = 15_000; // ms between two readings of the room

/** siteOf is a reading of the room as the air of a piece. */
export function siteOf(r: Schemas["RoomNow"] | undefined): Schemas["Site"] | undefined {
  if (r?.temp_c === undefined || r.rh_pct === undefined) return undefined;
  const { temp_c, rh_pct, surface_c, at, by, simulated } = r;
  return { temp_c, rh_pct, surface_c, at, by, simulated };
}

/** INSTRUMENTS requests the instruments and the air right now. */
export const INSTRUMENTS = {
  queryKey: ["instruments"],
  queryFn: ({ signal }: { signal: AbortSignal }) => answer(api.GET("/api/instruments", { signal })),
  staleTime: LIVE,
  retry: false,
};

const InstrumentsContext = createContext<Schemas["InstrumentsNow"] | undefined>(undefined);

/** InstrumentsProvider polls the instruments, once for the whole screen. */
export function InstrumentsProvider({ children }: { children: ReactNode }) {
  return createElement(
    InstrumentsContext,
    { value: useQuery({ ...INSTRUMENTS, refetchInterval: LIVE }).data },
    children,
  );
}

/** useInstruments is the instruments with their readings. */
export const useInstruments = () => useContext(InstrumentsContext);
