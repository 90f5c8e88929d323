import { useEffect, useReducer, useRef, useState } from "react";
import { answer, api, type CheckResult, type Piece, RETRY, Refused, type Step, type ZoneResult } from "../api/client";
import { ofZones } from "./edit";

const FEW = 8; // zones that are judged along with the one that is looked at
const CHANGED = "rutile:changed";

const asked = new WeakMap<Piece, Promise<CheckResult>>();
const answers = new WeakMap<Piece, CheckResult>();

function ask(piece: Piece): Promise<CheckResult> {
  const answered = answer(api.POST("/api/check", { body: piece }));
  answered.then(
    (r) => answers.set(piece, r),
    () => {}, // Whoever shows it tells.
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
          setSilent(true);
          again = setTimeout(() => wait(ask(piece)), RETRY);
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
