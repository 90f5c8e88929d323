import { Check, CloudOff, Loader, TriangleAlert } from "lucide-react";
import type { SaveState } from "./usePiece";

type Props = { save: SaveState; silent: boolean };

/** SaveMark says truthfully where the piece on the screen is kept. */
export function SaveMark({ save, silent }: Props) {
  switch (save.is) {
    case "saved":
      return (
        <span role="status" className="inline-flex items-center gap-1 text-secondary text-sm">
          <Check className="size-4" aria-hidden="true" />
          <span className={silent ? "" : "max-sm:sr-only"}>
            {silent ? "Saved; the server does not answer now" : "Saved"}
          </span>
        </span>
      );
    case "saving":
      return (
        <span role="status" className="inline-flex items-center gap-1 text-secondary text-sm">
          <Loader className="size-4" aria-hidden="true" /> <span className="max-sm:sr-only">Saving</span>
        </span>
      );
    case "waiting":
      return (
        <span role="status" className="inline-flex min-w-0 items-center gap-1 font-medium text-sm text-warning">
          <CloudOff className="size-4 shrink-0" aria-hidden="true" />
          <span>
            Not saved yet: {save.why.replace(/\.$/, "")}.{" "}
            {save.kept
              ? "It is kept in this browser and sent again."
              : "This browser keeps no copy either: leave the page open until it is saved."}
          </span>
        </span>
      );
    default:
      return (
        <span role="status" className="inline-flex items-center gap-1 font-medium text-sm text-warning">
          <TriangleAlert className="size-4" aria-hidden="true" />
          {save.is === "gone" ? "Removed elsewhere" : "Changed elsewhere"}
        </span>
      );
  }
}

type ElsewhereProps = { save: SaveState; onSettle: (keep: boolean) => void; onAgain: () => void };

/** Elsewhere tells what another tab has done to the piece, and lets the painter take either version. */
export function Elsewhere({ save, onSettle, onAgain }: ElsewhereProps) {
  if (save.is === "gone") {
    return (
      <div role="alert" className="sheet wash px-5 py-3">
        <p className="font-semibold">
          This piece was removed elsewhere. What is on this screen is kept in this browser.
        </p>
        <button type="button" className="btn btn-primary mt-2" onClick={onAgain}>
          Put it back on the bench
        </button>
      </div>
    );
  }
  if (save.is !== "conflict") return null;
  return (
    <div role="alert" className="sheet wash px-5 py-3">
      <p className="font-semibold">This piece was changed elsewhere since you opened it. Nothing was overwritten.</p>
      <ul className="my-1 list-disc pl-6">
        {save.changes.map((c) => (
          <li key={c}>
            <bdi>{c}</bdi>
          </li>
        ))}
      </ul>
      <div className="flex flex-wrap gap-2">
        <button type="button" className="btn btn-primary" onClick={() => onSettle(false)}>
          Take the other version
        </button>
        <button type="button" className="btn border-base-300 bg-base-100" onClick={() => onSettle(true)}>
          Keep what is on this screen
        </button>
      </div>
      <p className="mt-1 text-secondary text-sm">Undo brings back the one that is not taken.</p>
    </div>
  );
}
