import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { useEffect, useMemo, useState } from "react";
import { again, answer, api, ofOpen, type Piece, RETRY, Refused, type Schemas, TYPING, type Zone } from "../api/client";
import { useStudio } from "../api/studio";
import { useVocab } from "../api/vocab";
import { numberOf } from "../piece/useCheck";
import { useLast, useLater } from "../ui/later";

export type WayPlan = Schemas["WayPlan"];
export type Plans = Schemas["ZonePlans"];

const KEPT = "rutile.ways";

export type Kept = { ways: string[]; weights: Record<string, number> };

/** kept is the selection of ways and weights, in this browser. */
function kept({ main, most }: Schemas["WayWords"]): Kept {
  try {
    const k = JSON.parse(localStorage.getItem(KEPT) ?? "{}") as Partial<Kept>;
    return { ways: k.ways?.length ? k.ways.slice(0, most) : main, weights: k.weights ?? {} };
  } catch {
    return { ways: main, weights: {} };
  }
}

/** useKept is that selection, the same for all zones. */
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

/** said writes weights for the server; normal ones are left out. */
export const said = (w: Record<string, number>) =>
  Object.entries(w)
    .filter(([, x]) => x !== 1)
    .map(([id, x]) => `${id}=${x}`)
    .join(",");

/**
 * usePlans are the plans of a zone by several ways of working. The last answer stays until the next one, so that
 * cards move and nothing flickers.
 */
export function usePlans(piece: Piece, zone: Zone, ways: string[], weights: string) {
  const said = ways.join(",");
  const now = useMemo(() => ({ piece, ways: said, weights }), [piece, said, weights]);
  const asked = useLater(now, TYPING);
  const rev = useStudio()?.rev; // kit and habits
  // biome-ignore lint/correctness/useExhaustiveDependencies: every question has a name of its own
  const run = useMemo(runName, [asked, zone.id, rev]);
  const q = useQuery({
    queryKey: ["plans", zone.id, numberOf(asked.piece), asked.ways, asked.weights, rev],
    queryFn: ({ signal }) =>
      answer(
        api.POST("/api/plans", {
          params: { query: { zone: zone.id, ways: asked.ways, weights: asked.weights, run, ...ofOpen() } },
          // Other zones may determine what it has to match.
          body: { ...asked.piece, photos: undefined },
          signal,
        }),
      ),
    placeholderData: keepPreviousData,
    retry: (_, e) => again(e),
    retryDelay: RETRY,
  });
  const trouble = q.isError
    ? q.error.message
    : q.failureCount > 0
      ? q.failureReason instanceof Refused
        ? "The server is busy. Trying again…"
        : "The server does not answer right now."
      : undefined;
  const progress = useProgress(q.isFetching ? run : undefined);
  return { plans: useLast(q.data), trouble, progress, stop: () => void stopRun(run) };
}

/** runName is a new name for a search. */
export const runName = () => Array.from(crypto.getRandomValues(new Uint8Array(12)), (b) => b.toString(16)).join("");

/** stopRun has a search answer with what it has. */
export const stopRun = (run: string) => api.DELETE("/api/plans/runs/{run}", { params: { path: { run } } });

const SLOW = 700; // ms after which a search says how far it is

/** useProgress asks how far a search is, once it takes longer than a moment. */
function useProgress(run: string | undefined): Schemas["PlanRun"] | undefined {
  const [long, setLong] = useState<string>();
  useEffect(() => {
    if (!run) return;
    const soon = setTimeout(() => setLong(run), SLOW);
    return () => clearTimeout(soon);
  }, [run]);
  const on = !!run && long === run;
  const q = useQuery({
    queryKey: ["run", run],
    enabled: on,
    refetchInterval: SLOW,
    retry: false,
    queryFn: ({ signal }) => answer(api.GET("/api/plans/runs/{run}", { params: { path: { run: run ?? "" } }, signal })),
  });
  return on ? q.data : undefined;
}
