import { useEffect, useState } from "react";
import { answer, api, type Identification, type Piece, RETRY, type Zone } from "../api/client";
import { ofZones } from "../piece/edit";

/**
 * useIdentify is what the tests of a zone come to. The last answer stays until the next one comes, so that the bars move
 * and nothing flickers; silent tells that it is older than what is on the screen.
 */
export function useIdentify(piece: Piece, zone: Zone, open: boolean) {
  const [found, setFound] = useState<Identification>();
  const [silent, setSilent] = useState(false);
  useEffect(() => {
    if (!open) return;
    const stop = new AbortController();
    let again: ReturnType<typeof setTimeout>;
    const ask = () =>
      answer(
        api.POST("/api/identify", {
          params: { query: { zone: zone.id } },
          body: ofZones(piece, [zone]),
          signal: stop.signal,
        }),
      ).then(
        (r) => {
          setSilent(false);
          setFound(r);
        },
        () => {
          if (stop.signal.aborted) return;
          setSilent(true);
          again = setTimeout(ask, RETRY);
        },
      );
    void ask();
    return () => {
      stop.abort();
      clearTimeout(again);
    };
  }, [piece, zone, open]);
  return { found, silent };
}

/** today is the day as files write it. */
export function today() {
  const d = new Date();
  return new Date(d.getTime() - d.getTimezoneOffset() * 60_000).toISOString().slice(0, 10);
}
