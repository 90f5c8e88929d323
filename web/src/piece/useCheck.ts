import { useEffect, useState } from "react";
import { answer, api, type CheckResult, type Piece, Refused } from "../api/client";

/**
 * useCheck has the piece on the screen judged at every change. The last good answer stays until the next one comes,
 * so that nothing flickers; an answer that was overtaken is dropped.
 */
export function useCheck(piece: Piece | undefined) {
  const [result, setResult] = useState<CheckResult>();
  const [silent, setSilent] = useState(false);
  const [refused, setRefused] = useState<string>();
  useEffect(() => {
    if (!piece) return;
    const stop = new AbortController();
    let again: ReturnType<typeof setTimeout>;
    const ask = () => {
      answer(api.POST("/api/check", { body: piece, signal: stop.signal }))
        .then((r) => {
          setResult(r);
          setSilent(false);
          setRefused(undefined);
        })
        .catch((e) => {
          if (stop.signal.aborted) return;
          if (e instanceof Refused) {
            setRefused(e.message);
            return;
          }
          setSilent(true);
          again = setTimeout(ask, 3000);
        });
    };
    ask();
    return () => {
      stop.abort();
      clearTimeout(again);
    };
  }, [piece]);
  return { result, silent, refused };
}
