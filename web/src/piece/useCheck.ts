import { keepPreviousData, type QueryClient, replaceEqualDeep, useQuery, useQueryClient } from "@tanstack/react-query";
import { useEffect, useRef } from "react";
import {
  again,
  answer,
  api,
  type CheckResult,
  ofOpen,
  type Piece,
  RETRY,
  Refused,
  type Step,
  type Zone,
  type ZoneResult,
} from "../api/client";
import { ofZones } from "./edit";

const FEW = 8; // zones that are judged together with the open one
const CHANGED = "rutile:changed";
const STALE = 412; // the check that a change is based on has expired
const WORKED = 60_000; // ms after which a piece that is worked on is checked again
const KEPT = 30_000; // ms that a verdict is cached for undo

/** Kept is the check that the next change is based on. */
type Kept = { piece: Piece; result: CheckResult; token: string };
let kept: Kept | undefined;

const numbers = new WeakMap<Piece, number>();
let last = 0;

/** numberOf identifies the states of pieces, so that none has to be serialized for it. */
export function numberOf(piece: Piece): number {
  const n = numbers.get(piece) ?? ++last;
  numbers.set(piece, n);
  return n;
}

/** changedZones are the zones in which a piece differs from another; undefined if it differs elsewhere. */
function changedZones(from: Piece, to: Piece): Zone[] | undefined {
  const { zones: was = [], ...before } = from;
  const { zones: is = [], ...after } = to;
  const fields = Object.keys({ ...before, ...after }) as (keyof typeof after)[];
  if (fields.some((f) => before[f] !== after[f])) return undefined;
  if (was.length !== is.length || was.some((z, i) => z.id !== is[i]?.id)) return undefined;
  return is.filter((z, i) => z !== was[i]);
}

const token = (r: Response) => r.headers.get("ETag") ?? "";

async function whole(piece: Piece, signal: AbortSignal): Promise<Kept> {
  const call = await api.POST("/api/check", { params: { query: ofOpen() }, body: piece, signal });
  return { piece, result: await answer(Promise.resolve(call)), token: token(call.response) };
}

/** change has the zones judged that have changed since a check, and merges the results into it. */
async function change(from: Kept, piece: Piece, zones: Zone[], signal: AbortSignal): Promise<Kept> {
  const params = { query: ofOpen(), header: { "If-Match": from.token } };
  const call = await api.PATCH("/api/check", { params, body: { zones }, signal });
  const c = await answer(Promise.resolve(call));
  const overview = c.look ?? from.result.look;
  const result: CheckResult = {
    ...from.result,
    verdict: c.verdict,
    zones: from.result.zones.map((z) =>
      news(
        z,
        c.zones.find((x) => x.id === z.id),
      ),
    ),
    look:
      overview &&
      shared(from.result.look, {
        ...overview,
        zones: overview.zones.map((z) =>
          news(
            z,
            c.zone_overviews?.find((x) => x.id === z.id),
          ),
        ),
      }),
  };
  return { piece, result, token: token(call.response) };
}

/** shared is an answer in which unchanged parts are the same objects as before: they are not drawn anew. */
const shared = <T>(before: unknown, now: T): T => replaceEqualDeep(before, now) as T;
const news = <T>(before: T, now: T | undefined): T => (now === undefined ? before : shared(before, now));

async function judge(piece: Piece, signal: AbortSignal): Promise<CheckResult> {
  const from = kept;
  const zones = from && changedZones(from.piece, piece);
  let now: Kept;
  try {
    now = from && zones?.length ? await change(from, piece, zones, signal) : await whole(piece, signal);
  } catch (e) {
    if (!(e instanceof Refused) || e.status !== STALE) throw e;
    now = await whole(piece, signal);
  }
  kept = now;
  return now.result;
}

/** checkOf requests the verdict on a state of a piece; without an answer it is repeated. */
const checkOf = (piece: Piece) => ({
  queryKey: ["check", numberOf(piece)],
  queryFn: ({ signal }: { signal: AbortSignal }) => judge(piece, signal),
  staleTime: Infinity,
  gcTime: KEPT,
  retry: (_: number, e: Error) => again(e),
  retryDelay: RETRY,
});

/**
 * askCheck has a changed piece judged while the page is still being drawn, and records in the browser's performance
 * log when the key or button was pressed. An unfinished check is cancelled.
 */
export function askCheck(queries: QueryClient, piece: Piece): Promise<unknown> {
  const n = numberOf(piece);
  performance.clearMarks(CHANGED);
  const by = (globalThis as { event?: Event }).event;
  performance.mark(CHANGED, by?.timeStamp ? { startTime: by.timeStamp } : undefined);
  void queries.cancelQueries({ queryKey: ["check"], predicate: (q) => q.queryKey[1] !== n });
  return queries.fetchQuery(checkOf(piece)).catch(() => undefined);
}

/**
 * useCheck is the verdict on the piece on the screen. The last good answer stays until the next one, so that nothing
 * flickers; silent tells that the server does not answer, refused why the piece cannot be judged.
 */
export function useCheck(piece: Piece | undefined, zone: string | undefined) {
  useDetails(piece, zone);
  const q = useQuery({
    ...checkOf(piece ?? NONE),
    enabled: !!piece,
    placeholderData: keepPreviousData,
    // Where work has begun the verdict is of now: windows open and close.
    refetchInterval: (x) => x.state.data?.zones.some((z) => z.log && !z.log.finished) && WORKED,
  });
  const good = useRef<CheckResult>(undefined);
  if (q.data) good.current = q.data;
  const result = good.current;
  // From the change to the frame that shows it, for the browser's performance log.
  useEffect(() => {
    if (!result) return;
    const frame = requestAnimationFrame(() =>
      setTimeout(() => {
        const [changed] = performance.getEntriesByName(CHANGED);
        if (!changed) return;
        performance.measure("rutile:redrawn", { start: changed.startTime });
        performance.clearMarks(CHANGED);
      }),
    );
    return () => cancelAnimationFrame(frame);
  }, [result]);
  // Whether the result is for this very state.
  const current = !!q.data && !q.isPlaceholderData;
  return {
    result,
    current,
    silent: q.failureCount > 0 && !q.isError,
    refused: q.isError ? q.error.message : undefined,
  };
}

/**
 * useDetails has the open zone of a very long piece judged once more, with the details that its answer left out: to
 * the server it is a change that changes nothing.
 */
function useDetails(piece: Piece | undefined, zone: string | undefined) {
  const queries = useQueryClient();
  const q = useQuery({ ...checkOf(piece ?? NONE), enabled: false });
  const brief = q.data?.zones.find((z) => z.id === zone)?.brief;
  useEffect(() => {
    const open = piece?.zones?.find((z) => z.id === zone);
    if (!piece || !brief || !open || kept?.piece !== piece) return;
    const stop = new AbortController();
    change(kept, piece, [open], stop.signal).then(
      (now) => {
        if (kept?.piece !== piece) return; // it was changed meanwhile
        kept = now;
        queries.setQueryData(checkOf(piece).queryKey, now.result);
      },
      () => undefined, // the brief answer stays
    );
    return () => stop.abort();
  }, [piece, zone, brief, queries]);
}

const NONE: Piece = { format: "rutile/piece", version: 1 };

/** usePreview has a zone judged with other steps, without changing it. */
export function usePreview(piece: Piece, zone: string, steps: Step[] | undefined): ZoneResult | undefined {
  const q = useQuery({
    queryKey: ["preview", numberOf(piece), zone, steps],
    enabled: !!steps,
    retry: false,
    queryFn: ({ signal }) => {
      // A small piece is sent as a whole: zones that should match are judged together.
      const all = piece.zones ?? [];
      const zones = (all.length <= FEW ? all : all.filter((z) => z.id === zone)).map((z) =>
        z.id === zone ? { ...z, steps } : z,
      );
      return answer(api.POST("/api/check", { params: { query: ofOpen() }, body: ofZones(piece, zones), signal }));
    },
  });
  return steps && q.data?.zones.find((z) => z.id === zone);
}
