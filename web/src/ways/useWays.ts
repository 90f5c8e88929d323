import { useEffect, useState } from "react";
import { answer, api, type Piece, Refused, type Schemas, type Zone } from "../api/client";

export type WayPlan = Schemas["WayPlan"];
export type Plans = Schemas["ZonePlans"];

/** MAIN are the ways that make paint hold; they are set side by side until others are chosen. */
export const MAIN = ["scuff_and_seal", "prime", "additive", "straight_on", "chemical"];
export const MOST = 5;

const KEPT = "rutile.ways";

type Kept = { ways: string[]; weights: Record<string, number> };

/** kept is what was chosen to be compared, and by which weights, in this browser. */
function kept(): Kept {
  try {
    const k = JSON.parse(localStorage.getItem(KEPT) ?? "{}") as Partial<Kept>;
    return { ways: k.ways?.length ? k.ways.slice(0, MOST) : MAIN, weights: k.weights ?? {} };
  } catch {
    return { ways: MAIN, weights: {} };
  }
}

/** useKept is what is compared, kept from one zone to the next. */
export function useKept(): [Kept, (k: Kept) => void] {
  const [k, set] = useState(kept);
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

const RETRY = 3000; // ms before a question that was not answered is put again

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
