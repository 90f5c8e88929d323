import type { ReactNode } from "react";
import { why } from "../api/client";
import { Dialog } from "./Dialog";

type Props = {
  title: string;
  what?: string; // on the button
  removal: { error: unknown; isPending: boolean; mutate: () => void };
  onClose: () => void;
  children: ReactNode; // what goes with it
};

/** RemoveDialog asks before something is removed; if that fails it says why, and nothing is removed. */
export function RemoveDialog({ title, what = "it", removal, onClose, children }: Props) {
  return (
    <Dialog title={title} onClose={onClose}>
      <p>{children}</p>
      {!!removal.error && (
        <p role="alert" className="mt-2 text-error">
          Not removed: {why(removal.error)}
        </p>
      )}
      <div className="mt-3 flex gap-2">
        <button
          data-do="remove-now"
          type="button"
          className="btn btn-error"
          disabled={removal.isPending}
          onClick={() => removal.mutate()}
        >
          Remove {what}
        </button>
        <button data-do="keep" type="button" className="btn btn-ghost" onClick={onClose}>
          Cancel
        </button>
      </div>
    </Dialog>
  );
}
