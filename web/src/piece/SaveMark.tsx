import { Check, CloudOff, Loader, type LucideIcon, TriangleAlert } from "lucide-react";
import { useSyncExternalStore } from "react";
import type { State } from "../session/session";
import { useOpen } from "../session/useSession";

/** SaveMark says truthfully where the piece on the screen is stored. */
export function SaveMark({ silent }: { silent: boolean }) {
  const open = useOpen();
  // What is no longer saved is not called saved for a moment, drawn or not.
  const state = useSyncExternalStore(open.listenAtOnce, () => open.latest().state);
  if (state.is === "loading" || state.is === "missing" || state.is === "over") return null;
  const [Icon, says, trouble] = markOf(state, silent, open.kept);
  const short = !trouble && !silent; // a narrow screen shows only the icon
  return (
    <span
      role="status"
      data-save={state.is}
      data-kept={trouble && (open.kept ? "yes" : "no")}
      className={`flex min-w-0 items-center gap-1 text-sm leading-tight sm:flex-1 ${short ? "" : "max-sm:basis-full max-sm:pb-1"} ${trouble ? "font-medium text-warning" : "text-secondary"}`}
    >
      <Icon className="size-4 shrink-0" aria-hidden="true" />
      <span className={short ? "max-sm:sr-only" : "min-w-0"}>{says}</span>
    </span>
  );
}

/** markOf is how a piece is stored, in words, and whether that is a problem. */
function markOf(state: State, silent: boolean, kept: boolean): [LucideIcon, string, boolean] {
  switch (state.is) {
    case "saved":
      return [Check, silent ? "Saved; the server does not answer right now" : "Saved", false];
    case "gone":
      return [TriangleAlert, "Removed elsewhere", true];
    case "conflict":
      return [TriangleAlert, "Changed elsewhere", true];
  }
  // While a save is retried nothing has changed for the painter.
  const why = "why" in state && state.why?.replace(/\.$/, "");
  if (!why) return [Loader, "Saving", false];
  const lost = "This browser cannot keep a copy either: leave this page open until it is saved.";
  if (state.is === "refused") {
    const says = kept ? "It is kept in this browser and sent again once it is changed." : lost;
    return [CloudOff, `Not saved: ${why}. ${says}`, true];
  }
  return [CloudOff, `Not saved yet: ${why}. ${kept ? "It is kept in this browser and sent again." : lost}`, true];
}

/** Elsewhere says what another tab has done to the piece, and lets the painter choose a version. */
export function Elsewhere() {
  const { dispatch, shown } = useOpen();
  const { state } = shown();
  if (state.is === "gone") {
    return (
      <div role="alert" data-elsewhere={state.is} className="sheet wash px-5 py-3">
        <p className="font-semibold">This piece was removed elsewhere. What you see here is kept in this browser.</p>
        <button
          data-do="put-back"
          type="button"
          className="btn btn-primary mt-2"
          onClick={() => dispatch({ type: "put back" })}
        >
          Restore the piece
        </button>
        {state.trouble && <p className="mt-1">Not restored: {state.trouble}</p>}
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
          Use the other version
        </button>
        <button
          data-do="keep-mine"
          type="button"
          className="btn border-base-300 bg-base-100"
          onClick={() => dispatch({ type: "settle", keep: true })}
        >
          Keep my version
        </button>
      </div>
      {state.trouble && <p className="mt-1">This could not be resolved: {state.trouble}</p>}
      <p className="mt-1 text-secondary text-sm">Undo brings back the other one.</p>
    </div>
  );
}
