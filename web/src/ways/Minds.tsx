import { useEffect, useState } from "react";
import { answer, api, type Piece, type Schemas, type Zone } from "../api/client";
import { Offer } from "./Offer";
import { said } from "./useWays";

type Props = { piece: Piece; zone: Zone; weights: Record<string, number>; onField: (field: string) => void };

/** Minds says what would change the plan: facts that nobody has tested, with the test that tells. */
export function Minds({ piece, zone, weights: w, onField }: Props) {
  const [open, setOpen] = useState(false);
  const [minds, setMinds] = useState<Schemas["MindPart"][]>();
  const [silent, setSilent] = useState(false);
  const weights = said(w);
  useEffect(() => {
    if (!open) return;
    const stop = new AbortController();
    answer(
      api.POST("/api/minds", {
        params: { query: { zone: zone.id, way: zone.way, weights } },
        body: { ...piece, photos: undefined },
        signal: stop.signal,
      }),
    ).then(
      (m) => {
        setSilent(false);
        setMinds(m);
      },
      () => !stop.signal.aborted && setSilent(true),
    );
    return () => stop.abort();
  }, [open, piece, zone, weights]);
  return (
    <details className="mt-4" data-minds onToggle={(e) => setOpen(e.currentTarget.open)}>
      <summary className="min-h-10 py-2 font-medium">What would change this plan?</summary>
      {silent && <p className="text-warning">The server does not answer now; open it again in a moment.</p>}
      {minds && minds.length === 0 && (
        <p className="text-secondary">Nothing that could be tested: the plan stands whatever it turns out to be.</p>
      )}
      <ol className="flex flex-col gap-2">
        {minds?.map((m, i) => (
          <li key={m.if} className={`rounded border p-2 text-sm ${i === 0 ? "border-primary" : "border-base-300"}`}>
            <p>
              <b className="font-semibold">If {m.if}:</b> {m.then}
            </p>
            {m.instead && <p className="text-secondary leading-tight">{m.instead.join(" · ")}</p>}
            <Offer says={m.test} onPress={() => onField(m.field)} />
          </li>
        ))}
      </ol>
    </details>
  );
}
