import { useEffect, useState } from "react";
import { answer, api, type CheckResult, type Piece } from "../api/client";

/**
 * useCheck has the piece on the screen judged at every change. The last good answer stays until the next one comes,
 * so that nothing flickers; an answer that was overtaken is dropped.
 */
export function useCheck(piece: Piece | undefined) {
  const [result, setResult] = useState<CheckResult>();
  const [silent, setSilent] = useState(false);
  useEffect(() => {
    if (!piece) return;
    const stop = new AbortController();
    let again: ReturnType<typeof setTimeout>;
    const ask = () => {
      answer(api.POST("/api/check", { body: piece, signal: stop.signal }))
        .then((r) => {
          setResult(r);
          setSilent(false);
        })
        .catch(() => {
          if (stop.signal.aborted) return;
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
  return { result, silent };
}
