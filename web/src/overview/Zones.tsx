import { ArrowRight, Merge } from "lucide-react";
import { useState } from "react";
import type { Overview, Piece, ZoneResult } from "../api/client";
import { zoneTitle } from "../piece/edit";
import { Dialog } from "../ui/Dialog";
import { Joint } from "../ui/Mark";
import { count } from "../ui/units";
import { Pattern } from "./Pattern";

type Props = {
  piece: Piece;
  overview: Overview;
  results: ZoneResult[] | undefined;
  onShow: (zone: string) => void;
  onJoin: (zone: string, to: string) => void;
};

/** ZoneCards are the zones of a piece with the totals of their parts; clicked, one is opened. */
export function ZoneCards({ piece, overview, results, onShow, onJoin }: Props) {
  const [joining, setJoining] = useState<string>();
  const zones = piece.zones ?? [];
  const from = zones.find((z) => z.id === joining);
  return (
    <>
      <ul className="grid gap-2 sm:grid-cols-2">
        {zones.map((z) => {
          const l = overview.zones.find((x) => x.id === z.id);
          const r = results?.find((x) => x.id === z.id);
          return (
            <li key={z.id} className="flex items-stretch rounded border border-base-300 bg-base-100">
              <button
                type="button"
                className="flex min-h-14 min-w-0 flex-1 items-center gap-2.5 p-1.5 text-left leading-tight hover:bg-base-200"
                onClick={() => onShow(z.id)}
              >
                <Pattern colour={l?.colour} mark={l?.mark} className="h-11 w-14 shrink-0" />
                <span className="min-w-0 flex-1">
                  <span className="flex items-center gap-1 font-semibold">
                    <bdi className="truncate">{zoneTitle(z)}</bdi>
                    <ArrowRight className="size-4 shrink-0 text-primary" aria-hidden="true" />
                  </span>
                  <span className="block text-secondary text-sm">{l?.says || "area not known yet"}</span>
                </span>
                {r && (
                  <span className="flex items-center gap-1 text-sm">
                    <Joint verdict={r.verdict} />
                    <span className="sr-only">{r.verdict}</span>
                  </span>
                )}
              </button>
              {zones.length > 1 && (
                <button
                  data-join={z.id}
                  type="button"
                  className="btn btn-ghost btn-square h-auto"
                  aria-label={`Merge ${zoneTitle(z)} with another zone`}
                  title="Merge with another zone"
                  onClick={() => setJoining(z.id)}
                >
                  <Merge className="size-5" aria-hidden="true" />
                </button>
              )}
            </li>
          );
        })}
      </ul>
      {from && (
        <Dialog title={`Merge “${zoneTitle(from)}” into which zone?`} onClose={() => setJoining(undefined)}>
          <p className="mb-3">
            Its parts, damage and photographs move there. Its own survey
            {from.steps?.length
              ? ` and its plan of ${count(from.steps.length, "step", "steps")} are removed`
              : " is removed"}
            ; the other zone keeps its own. You can undo this.
          </p>
          <ul className="grid gap-2">
            {zones
              .filter((z) => z.id !== from.id)
              .map((z) => (
                <li key={z.id}>
                  <button
                    data-join-to={z.id}
                    type="button"
                    className="btn h-12 w-full justify-start border-base-300 bg-base-100"
                    onClick={() => {
                      setJoining(undefined);
                      onJoin(from.id, z.id);
                    }}
                  >
                    <Pattern
                      colour={overview.zones.find((x) => x.id === z.id)?.colour}
                      mark={overview.zones.find((x) => x.id === z.id)?.mark}
                      className="h-8 w-11"
                    />
                    <bdi className="truncate">{zoneTitle(z)}</bdi>
                  </button>
                </li>
              ))}
          </ul>
        </Dialog>
      )}
    </>
  );
}
