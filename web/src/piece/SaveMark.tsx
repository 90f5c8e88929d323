import { Check, CloudOff, Loader, TriangleAlert } from "lucide-react";
import type { SaveState } from "./usePiece";

type Props = { save: SaveState; silent: boolean; onSettle: (keep: boolean) => void };

/** SaveMark says truthfully where the piece on the screen is kept. */
export function SaveMark({ save, silent, onSettle }: Props) {
  switch (save.is) {
    case "saved":
      return (
        <span role="status" className="inline-flex items-center gap-1 text-secondary text-sm">
          <Check className="size-4" aria-hidden="true" /> {silent ? "Saved; the server does not answer now" : "Saved"}
        </span>
      );
    case "saving":
      return (
        <span role="status" className="inline-flex items-center gap-1 text-secondary text-sm">
          <Loader className="size-4" aria-hidden="true" /> Saving
        </span>
      );
    case "waiting":
      return (
        <span role="status" className="inline-flex items-center gap-1 font-medium text-sm text-warning">
          <CloudOff className="size-4" aria-hidden="true" /> Not saved yet: {save.why}. It is kept in this browser and
          sent again.
        </span>
      );
    case "conflict":
      return (
        <div role="alert" className="sheet basis-full rounded-r bg-base-200 px-3 py-2">
          <p className="flex items-center gap-2 font-semibold">
            <TriangleAlert className="size-5 text-warning" aria-hidden="true" /> This piece was changed elsewhere since
            you opened it. Nothing was overwritten.
          </p>
          <ul className="my-1 list-disc pl-6">
            {save.changes.map((c) => (
              <li key={c}>{c}</li>
            ))}
          </ul>
          <div className="flex gap-2">
            <button type="button" className="btn btn-sm btn-primary" onClick={() => onSettle(true)}>
              Keep what is on this screen
            </button>
            <button type="button" className="btn btn-sm" onClick={() => onSettle(false)}>
              Take the other version
            </button>
          </div>
        </div>
      );
  }
}
