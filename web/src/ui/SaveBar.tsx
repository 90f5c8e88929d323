import { why } from "../api/client";

type Props = {
  saving: { isError: boolean; isPending: boolean; error: unknown };
  ready: boolean; // what is typed can be saved
  onClose: () => void;
  remove?: { says: string; name: string; run: () => void };
};

/** SaveBar is the end of a form that is saved: why it was not, and its buttons. */
export function SaveBar({ saving, ready, onClose, remove }: Props) {
  return (
    <>
      {saving.isError && (
        <p role="alert" className="mb-2 text-error">
          Not saved: {why(saving.error)}
        </p>
      )}
      <div className="mt-2 flex gap-2">
        <button type="submit" className="btn btn-primary" disabled={saving.isPending || !ready}>
          Save
        </button>
        <button data-do="leave" type="button" className="btn btn-ghost" onClick={onClose}>
          Cancel
        </button>
        <span className="flex-1" />
        {remove && (
          <button data-do={remove.name} type="button" className="btn btn-ghost text-error" onClick={remove.run}>
            {remove.says}
          </button>
        )}
      </div>
    </>
  );
}
