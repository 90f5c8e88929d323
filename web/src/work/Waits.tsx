import { CloudOff, Undo2 } from "lucide-react";
import { useReach } from "../api/reach";
import { useShared } from "../ui/shared";
import { count, useUnits, when } from "../ui/units";
import { drop, type Entry, noRoom, type Waiting } from "./queue";
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

/** entrySays is what an entry says, in words. */
export const entrySays = (w: Waiting) =>
  [w.entry.void ? "Taken back" : (DID[w.entry.what] ?? "Logged"), w.says ?? w.entry.note].filter(Boolean).join(": ");

/** Waits says what was logged last, with a way back, what waits for the server, and what it refuses. */
export function Waits({ piece, log }: Props) {
  const all = useWaiting(log.again).filter((w) => !piece || w.piece === piece);
  const away = useReach().kept !== undefined;
  const full = useShared(noRoom);
  const open = all.filter((w) => !w.refused);
  const refused = all.filter((w) => w.refused);
  const last = log.said;
  const first = last?.entries[0];
  const waits = open.length > 0 && (log.failed || away);
  return (
    <>
      {refused.map((w) => (
        <p
          key={w.entry.id}
          role="alert"
          className="sheet wash mb-2 flex flex-wrap items-center gap-2 px-3 py-2"
          data-refused={w.entry.id}
        >
          <span className="min-w-52 flex-1">
            Not logged: {w.refused}
            {w.of && (
              <span className="block text-secondary">
                <bdi>{w.of}</bdi>: {entrySays(w)}
              </span>
            )}
          </span>
          <button type="button" className="btn min-h-12" data-do="drop" onClick={() => void drop([w.entry.id])}>
            Give it up
          </button>
        </p>
      ))}
      {full && all.length > 0 && (
        <p role="alert" className="sheet mb-2 px-3 py-2 font-semibold text-error" data-no-room>
          This browser has no room to keep what waits. Leave this page open until it is sent, or free some room on the
          device.
        </p>
      )}
      {waits && (
        <details className="sheet wash mb-2 px-3 py-1" data-waits={open.length}>
          <summary className="flex min-h-11 cursor-pointer items-center gap-2 font-medium">
            <CloudOff className="size-5 shrink-0" aria-hidden="true" />
            <span role="status">
              {count(open.length, "entry waits", "entries wait")} to be sent. Nothing is lost: go on.
            </span>
          </summary>
          <WaitingList all={open} onBack={(w) => log.log(w, takenBack(w.entry))} />
        </details>
      )}
      {last && (first || last.notes.length > 0) && !log.failed && !away && (
        <div
          role="status"
          className="sheet mb-2 flex flex-wrap items-center gap-2 bg-base-200 px-3 py-1"
          data-logged={first?.id}
        >
          <span className="min-w-40 flex-1">
            <b className="font-semibold">
              {!first ? "What waited is sent" : first.void ? "Taken back" : (DID[first.what] ?? "Logged")}.
            </b>{" "}
            {last.notes.map((n) => (
              <span key={n} className="block" data-note>
                {n}
              </span>
            ))}
          </span>
          {first && !first.void && (
            <button
              type="button"
              data-do="undo"
              className="btn min-h-12"
              onClick={() => log.log(last.about, ...last.entries.map(takenBack))}
            >
              <Undo2 className="size-5" aria-hidden="true" /> Take it back
            </button>
          )}
        </div>
      )}
    </>
  );
}

/** WaitingList lists what waits, in the order in which it was logged. */
export function WaitingList({ all, onBack }: { all: Waiting[]; onBack?: (w: Waiting) => void }) {
  const u = useUnits();
  const back = new Set(all.flatMap((w) => (w.entry.void ? [w.entry.corrects] : [])));
  return (
    <ul className="mb-1 grid gap-1" data-waiting-list>
      {all.map((w) => (
        <li key={w.entry.id} className="flex items-center gap-2" data-waiting={w.entry.id}>
          <span className={`min-w-0 flex-1 ${back.has(w.entry.id) ? "line-through" : ""}`}>
            {entrySays(w)}
            <span className="block text-secondary text-sm">
              {w.of && (
                <>
                  <bdi>{w.of}</bdi>,{" "}
                </>
              )}
              {when(w.entry.at, Date.now(), u)}
              {w.pictures?.length ? `, with ${count(w.pictures.length, "picture", "pictures")}` : ""}
            </span>
          </span>
          {onBack && !w.entry.void && !back.has(w.entry.id) && (
            <button type="button" data-do="back" className="btn btn-sm min-h-11" onClick={() => onBack(w)}>
              Take it back
            </button>
          )}
        </li>
      ))}
    </ul>
  );
}

/** takenBack is the entry that takes another back. */
export const takenBack = (e: Entry) => newEntry({ what: e.what, zone: e.zone, corrects: e.id, void: true });
