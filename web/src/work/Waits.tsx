import { CloudOff, Undo2 } from "lucide-react";
import type { Schemas } from "../api/client";
import { count } from "../ui/units";
import { drop } from "./queue";
import { type Log, newEntry, useWaiting } from "./useLog";

type Props = { piece?: number; log: Log };

const DID: Record<string, string> = {
  began: "Begun",
  done: "Done",
  skipped: "Left out",
  note: "Noted",
  put_back: "Put back",
  finished: "Handed over",
};

/** Waits says what was logged last, with a way back, what waits for the server, and what it refuses. */
export function Waits({ piece, log }: Props) {
  const all = useWaiting(log.again).filter((w) => !piece || w.piece === piece);
  const open = all.filter((w) => !w.refused).length;
  const refused = all.filter((w) => w.refused);
  const last = log.said;
  const first = last?.entries[0];
  return (
    <>
      {refused.map((w) => (
        <p
          key={w.entry.id}
          role="alert"
          className="sheet wash mb-2 flex flex-wrap items-center gap-2 px-3 py-2"
          data-refused={w.entry.id}
        >
          <span className="min-w-52 flex-1">Not logged: {w.refused}</span>
          <button type="button" className="btn min-h-12" data-do="drop" onClick={() => drop([w.entry.id])}>
            Give it up
          </button>
        </p>
      ))}
      {open > 0 && log.failed && (
        <p role="status" className="sheet wash mb-2 flex items-center gap-2 px-3 py-2 font-medium" data-waits={open}>
          <CloudOff className="size-5 shrink-0" aria-hidden="true" />
          {count(open, "entry waits", "entries wait")} for the server. Nothing is lost: go on.
        </p>
      )}
      {last && first && !log.failed && (
        <div role="status" className="sheet mb-2 flex flex-wrap items-center gap-2 bg-base-200 px-3 py-1" data-logged>
          <span className="min-w-40 flex-1">
            <b className="font-semibold">{first.void ? "Taken back" : (DID[first.what] ?? "Logged")}.</b>{" "}
            {last.notes.map((n) => (
              <span key={n} className="block" data-note>
                {n}
              </span>
            ))}
          </span>
          {!first.void && (
            <button
              type="button"
              data-do="undo"
              className="btn min-h-12"
              onClick={() => log.log(last.piece, ...last.entries.map(takenBack))}
            >
              <Undo2 className="size-5" aria-hidden="true" /> Take it back
            </button>
          )}
        </div>
      )}
    </>
  );
}

/** takenBack is the entry that takes another back. */
export const takenBack = (e: Schemas["Entry"]) => newEntry({ what: e.what, zone: e.zone, corrects: e.id, void: true });
