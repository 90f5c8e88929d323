import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { again, answer, api, type Piece, RETRY, Refused, TYPING, why, type Zone } from "../api/client";
import { useStudio } from "../api/studio";
import { numberOf } from "../piece/useCheck";
import type { FieldName } from "../piece/workspace";
import { useLast, useLater } from "../ui/later";
import { FieldLink } from "./FieldLink";
import { said } from "./useWays";

type Props = { piece: Piece; zone: Zone; weights: Record<string, number>; onField: (field: FieldName) => void };

/** Sensitivities says what would change the plan: untested facts, with a test for each. */
export function Sensitivities({ piece, zone, weights: w, onField }: Props) {
  const [open, setOpen] = useState(false);
  const weights = said(w);
  const asked = useLater(piece, TYPING);
  const rev = useStudio()?.rev; // kit and habits
  const q = useQuery({
    queryKey: ["minds", numberOf(asked), zone.id, weights, rev],
    queryFn: ({ signal }) =>
      answer(
        api.POST("/api/minds", {
          params: { query: { zone: zone.id, way: zone.way, weights } },
          body: { ...asked, photos: undefined },
          signal,
        }),
      ),
    enabled: open,
    placeholderData: keepPreviousData,
    retry: (n, e) => e instanceof Refused && again(e) && n < 10, // busy
    retryDelay: RETRY,
  });
  const minds = useLast(q.data);
  return (
    <details className="mt-4" data-minds onToggle={(e) => setOpen(e.currentTarget.open)}>
      <summary className="min-h-10 py-2 font-medium">What would change this plan?</summary>
      {q.error && (
        <p role="alert" className="text-warning">
          This could not be calculated: {why(q.error)}{" "}
          <button type="button" className="link" onClick={() => void q.refetch()}>
            Try again
          </button>
        </p>
      )}
      {minds && minds.length === 0 && (
        <p className="text-secondary">Nothing that you could test: the plan is the best whatever you find.</p>
      )}
      <ol className="flex flex-col gap-2">
        {minds?.map((m, i) => (
          <li key={m.if} className={`rounded border p-2 text-sm ${i === 0 ? "border-primary" : "border-base-300"}`}>
            <p>
              <b className="font-semibold">If {m.if}:</b> {m.then}
            </p>
            {m.instead && <p className="text-secondary leading-tight">{m.instead.join(" · ")}</p>}
            <FieldLink field={m.field} says={m.test} onPress={() => onField(m.field)} />
          </li>
        ))}
      </ol>
    </details>
  );
}
