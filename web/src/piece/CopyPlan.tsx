import { useQuery } from "@tanstack/react-query";
import { useMemo, useState } from "react";
import { answer, api, type Piece, why, type Zone } from "../api/client";
import { Dialog } from "../ui/Dialog";
import { Mark } from "../ui/Mark";
import { count } from "../ui/units";
import { ofZones, zoneTitle } from "./edit";
import { numberOf } from "./useCheck";

type Props = { piece: Piece; from: Zone; onCopy: (to: string[]) => void; onClose: () => void };

/** CopyPlan copies a zone's steps to other zones, each checked with them before anything is changed. */
export function CopyPlan({ piece, from, onCopy, onClose }: Props) {
  const others = useMemo(() => (piece.zones ?? []).filter((z) => z.id !== from.id), [piece.zones, from.id]);
  const [to, setTo] = useState<string[]>([]);
  const check = useQuery({
    queryKey: ["copied", numberOf(piece), from.id],
    queryFn: ({ signal }) => {
      const zones = others.map((z) => ({ ...z, steps: from.steps }));
      return answer(api.POST("/api/check", { body: ofZones(piece, zones), signal }));
    },
    retry: false,
  });
  const judged = check.data;
  return (
    <Dialog title="Copy this plan to" onClose={onClose}>
      <form
        onSubmit={(e) => {
          e.preventDefault();
          if (to.length) onCopy(to);
        }}
      >
        {check.error && (
          <p role="alert" className="mb-2 text-warning">
            The result could not be calculated: {why(check.error)}
          </p>
        )}
        <ul className="grid gap-1">
          {others.map((z) => {
            const r = judged?.zones.find((x) => x.id === z.id);
            const n = z.steps?.length ?? 0;
            return (
              <li key={z.id} data-copy={z.id} data-verdict-is={r?.verdict}>
                <label className="flex min-h-12 cursor-pointer items-start gap-3 rounded border border-base-300 px-3 py-2">
                  <input
                    type="checkbox"
                    className="checkbox checkbox-primary mt-0.5"
                    checked={to.includes(z.id)}
                    onChange={(e) => setTo(e.target.checked ? [...to, z.id] : to.filter((x) => x !== z.id))}
                  />
                  <span className="min-w-0 flex-1 leading-tight">
                    <bdi className="block break-words font-medium">{zoneTitle(z)}</bdi>
                    <span className="block text-secondary text-sm">
                      {n ? `its ${count(n, "step is", "steps are")} replaced` : "it has no plan yet"}
                      {r && `; with this plan: ${r.says}`}
                    </span>
                  </span>
                  {r && <Mark verdict={r.verdict} />}
                </label>
              </li>
            );
          })}
        </ul>
        <div className="mt-3 flex gap-2">
          <button type="submit" className="btn btn-primary" disabled={to.length === 0}>
            Copy
          </button>
          <button type="button" className="btn btn-ghost" onClick={onClose}>
            Cancel
          </button>
        </div>
      </form>
    </Dialog>
  );
}
