import { useEffect, useState } from "react";
import { answer, api, type Piece, RETRY, Refused, type Schemas, type Zone } from "../api/client";
import { useVocab } from "../piece/vocab";

export type WayPlan = Schemas["WayPlan"];
export type Plans = Schemas["ZonePlans"];

const KEPT = "rutile.ways";

export type Kept = { ways: string[]; weights: Record<string, number> };

/** kept is what was chosen to be compared, and by which weights, in this browser. */
function kept({ main, most }: Schemas["WayWords"]): Kept {
  try {
    const k = JSON.parse(localStorage.getItem(KEPT) ?? "{}") as Partial<Kept>;
    return { ways: k.ways?.length ? k.ways.slice(0, most) : main, weights: k.weights ?? {} };
  } catch {
    return { ways: main, weights: {} };
  }
}

/** useKept is what is compared, kept from one zone to the next. */
export function useKept(): [Kept, (k: Kept) => void] {
  const v = useVocab();
  const [k, set] = useState(() => kept(v.ways));
  return [
    k,
    (next) => {
      set(next);
      try {
        localStorage.setItem(KEPT, JSON.stringify(next));
      } catch {
        // It holds until the page is closed.
      }
    },
  ];
}

/** said writes weights as the server reads them; those that are as usual are left out. */
export const said = (w: Record<string, number>) =>
  Object.entries(w)
    .filter(([, x]) => x !== 1)
    .map(([id, x]) => `${id}=${x}`)
    .join(",");

/**
 * usePlans are the plans of a zone by some ways. The last answer stays until the next one comes, so that the cards move
 * and nothing flickers.
 */
export function usePlans(piece: Piece, zone: Zone, ways: string[], weights: string) {
  const [plans, setPlans] = useState<Plans>();
  const [trouble, setTrouble] = useState<string>();
  const asked = ways.join(",");
  useEffect(() => {
    const stop = new AbortController();
    let again: ReturnType<typeof setTimeout>;
    const ask = () =>
      answer(
        api.POST("/api/plans", {
          params: { query: { zone: zone.id, ways: asked, weights } },
          // Other zones may set what it has to match.
          body: { ...piece, photos: undefined },
          signal: stop.signal,
        }),
      ).then(
        (r) => {
          setTrouble(undefined);
          setPlans(r);
        },
        (e) => {
          if (stop.signal.aborted) return;
          setTrouble(e instanceof Refused ? e.message : "The server does not answer now.");
          if (!(e instanceof Refused)) again = setTimeout(ask, RETRY);
        },
      );
    void ask();
    return () => {
      stop.abort();
      clearTimeout(again);
    };
  }, [piece, zone, asked, weights]);
  return { plans, trouble };
}
