import { Check, CloudOff, Loader, TriangleAlert } from "lucide-react";
import { useSyncExternalStore } from "react";
import { useOpen } from "../session/useSession";

/** SaveMark says truthfully where the piece on the screen is kept. */
export function SaveMark({ silent }: { silent: boolean }) {
  const open = useOpen();
  // What is not saved any more is not called saved for one moment, drawn or not.
  const state = useSyncExternalStore(open.listenAtOnce, () => open.latest().state);
  switch (state.is) {
    case "loading":
    case "missing":
    case "over":
      return null;
    case "saved":
      return (
        <span role="status" data-save={state.is} className="inline-flex items-center gap-1 text-secondary text-sm">
          <Check className="size-4" aria-hidden="true" />
          <span className={silent ? "" : "max-sm:sr-only"}>
            {silent ? "Saved; the server does not answer now" : "Saved"}
          </span>
        </span>
      );
    case "edited":
    case "saving":
    case "checking":
      return (
        <span role="status" data-save={state.is} className="inline-flex items-center gap-1 text-secondary text-sm">
          <Loader className="size-4" aria-hidden="true" /> <span className="max-sm:sr-only">Saving</span>
        </span>
      );
    case "unsent":
    case "refused":
      return (
        <span
          role="status"
          data-save={state.is}
          data-kept={open.kept ? "yes" : "no"}
          className="inline-flex min-w-0 items-center gap-1 font-medium text-sm text-warning"
        >
          <CloudOff className="size-4 shrink-0" aria-hidden="true" />
          <span>
            {state.is === "refused" ? "Not saved" : "Not saved yet"}: {state.why.replace(/\.$/, "")}.{" "}
            {open.kept
              ? state.is === "refused"
                ? "It is kept in this browser, and sent again once it is changed."
                : "It is kept in this browser and sent again."
              : "This browser keeps no copy either: leave the page open until it is saved."}
          </span>
        </span>
      );
    default:
      return (
        <span
          role="status"
          data-save={state.is}
          className="inline-flex items-center gap-1 font-medium text-sm text-warning"
        >
          <TriangleAlert className="size-4" aria-hidden="true" />
          {state.is === "gone" ? "Removed elsewhere" : "Changed elsewhere"}
        </span>
      );
  }
}

/** Elsewhere tells what another tab has done to the piece, and lets the painter take either version. */
export function Elsewhere() {
  const { dispatch, shown } = useOpen();
  const { state } = shown();
  if (state.is === "gone") {
    return (
      <div role="alert" data-elsewhere={state.is} className="sheet wash px-5 py-3">
        <p className="font-semibold">
          This piece was removed elsewhere. What is on this screen is kept in this browser.
        </p>
        <button
          data-do="put-back"
          type="button"
          className="btn btn-primary mt-2"
          onClick={() => dispatch({ type: "put back" })}
        >
          Put it back on the bench
        </button>
        {state.trouble && <p className="mt-1">Not put back: {state.trouble}</p>}
      </div>
    );
  }
  if (state.is !== "conflict") return null;
  return (
    <div role="alert" data-elsewhere={state.is} className="sheet wash px-5 py-3">
      <p className="font-semibold">This piece was changed elsewhere since you opened it. Nothing was overwritten.</p>
      <ul className="my-1 list-disc pl-6">
        {state.changes.map((c) => (
          <li key={c}>
            <bdi>{c}</bdi>
          </li>
        ))}
      </ul>
      <div className="flex flex-wrap gap-2">
        <button
          data-do="take-other"
          type="button"
          className="btn btn-primary"
          onClick={() => dispatch({ type: "settle", keep: false })}
        >
          Take the other version
        </button>
        <button
          data-do="keep-mine"
          type="button"
          className="btn border-base-300 bg-base-100"
          onClick={() => dispatch({ type: "settle", keep: true })}
        >
          Keep what is on this screen
        </button>
      </div>
      {state.trouble && <p className="mt-1">It could not be settled: {state.trouble}</p>}
      <p className="mt-1 text-secondary text-sm">Undo brings back the one that is not taken.</p>
    </div>
  );
}
