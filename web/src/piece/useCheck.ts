import { useEffect, useReducer, useRef, useState } from "react";
import {
  answer,
  api,
  type CheckResult,
  type Piece,
  RETRY,
  Refused,
  type Step,
  type Zone,
  type ZoneResult,
} from "../api/client";
import { ofZones } from "./edit";

const FEW = 8; // zones that are judged along with the one that is looked at
const CHANGED = "rutile:changed";
const SOON = 300; // milliseconds
const STALE = 412; // the check that a change starts from is not kept any more

const asked = new WeakMap<Piece, Promise<CheckResult>>();
const answers = new WeakMap<Piece, CheckResult>();

/** Kept is the check that the next change starts from. */
type Kept = { piece: Piece; result: CheckResult; token: string };
let kept: Kept | undefined;
let running: AbortController | undefined;

/** changedZones are the zones in which a piece differs from another; undefined where it differs elsewhere. */
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
  const call = await api.POST("/api/check", { body: piece, signal });
  return { piece, result: await answer(Promise.resolve(call)), token: token(call.response) };
}

/** change has the zones judged that have changed since a check, and puts what is said of them in its place. */
async function change(from: Kept, piece: Piece, zones: Zone[], signal: AbortSignal): Promise<Kept> {
  const params = { header: { "If-Match": from.token } };
  const call = await api.PATCH("/api/check", { params, body: { zones }, signal });
  const c = await answer(Promise.resolve(call));
  const look = c.look ?? from.result.look;
  const result: CheckResult = {
    ...from.result,
    verdict: c.verdict,
    zones: from.result.zones.map((z) => c.zones.find((x) => x.id === z.id) ?? z),
    look: look && { ...look, zones: look.zones.map((z) => c.looks?.find((x) => x.id === z.id) ?? z) },
  };
  return { piece, result, token: token(call.response) };
}

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

/** ask has a piece judged; one that is being judged still is given up, as this one takes its place. */
function ask(piece: Piece): Promise<CheckResult> {
  running?.abort();
  const stop = new AbortController();
  running = stop;
  const answered = judge(piece, stop.signal);
  answered.then(
    (r) => answers.set(piece, r),
    (e) => {
      if (!(e instanceof Refused)) asked.delete(piece); // Whoever comes back to it asks again.
    },
  );
  asked.set(piece, answered);
  return answered;
}

/**
 * checkSoon has a changed piece judged while the page is still being drawn anew, and notes in the browser's own record
 * when the hand that changed it came down. A piece is asked about once.
 */
export function checkSoon(piece: Piece): Promise<CheckResult> {
  const already = asked.get(piece);
  if (already) return already;
  performance.clearMarks(CHANGED);
  const by = (globalThis as { event?: Event }).event;
  performance.mark(CHANGED, by?.timeStamp ? { startTime: by.timeStamp } : undefined);
  return ask(piece);
}

/**
 * useCheck has the piece on the screen judged at every change. The last good answer stays until the next one comes,
 * so that nothing flickers; an answer that was overtaken is dropped, and one that is there already is shown at once.
 */
export function useCheck(piece: Piece | undefined) {
  const last = useRef<CheckResult>(undefined);
  const [, drawAgain] = useReducer((n: number) => n + 1, 0);
  const [silent, setSilent] = useState(false);
  const [refused, setRefused] = useState<string>();
  last.current = (piece && answers.get(piece)) ?? last.current;
  const result = last.current;
  useEffect(() => {
    if (!piece) return;
    let overtaken = false;
    let again: ReturnType<typeof setTimeout>;
    const wait = (answered: Promise<CheckResult>) => {
      answered
        .then((r) => {
          if (overtaken) return;
          setSilent(false);
          setRefused(undefined);
          if (last.current !== r) drawAgain();
        })
        .catch((e) => {
          if (overtaken) return;
          if (e instanceof Refused) {
            setRefused(e.message);
            return;
          }
          // Given up for a newer piece: where that never comes, this one is asked about again.
          const givenUp = e instanceof DOMException && e.name === "AbortError";
          if (!givenUp) setSilent(true);
          again = setTimeout(() => wait(asked.get(piece) ?? ask(piece)), givenUp ? SOON : RETRY);
        });
    };
    wait(asked.get(piece) ?? ask(piece));
    return () => {
      overtaken = true;
      clearTimeout(again);
    };
  }, [piece]);
  // From the change to the frame that shows its drawing, for the browser's own record.
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
  return { result, silent, refused };
}

/** usePreview has a zone judged with other steps than it has, without touching it. */
export function usePreview(piece: Piece, zone: string, steps: Step[] | undefined): ZoneResult | undefined {
  const [seen, setSeen] = useState<{ steps: Step[]; judged: ZoneResult | undefined }>();
  useEffect(() => {
    if (!steps) return;
    const stop = new AbortController();
    // A small piece is asked about as a whole: zones that are to match are judged by each other.
    const all = piece.zones ?? [];
    const zones = (all.length <= FEW ? all : all.filter((z) => z.id === zone)).map((z) =>
      z.id === zone ? { ...z, steps } : z,
    );
    answer(api.POST("/api/check", { body: ofZones(piece, zones), signal: stop.signal }))
      .then((r) => setSeen({ steps, judged: r.zones.find((z) => z.id === zone) }))
      .catch(() => {
        // A preview that cannot be had is none.
      });
    return () => stop.abort();
  }, [piece, zone, steps]);
  return seen && seen.steps === steps ? seen.judged : undefined;
}
