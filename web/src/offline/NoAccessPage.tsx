import { useQueryClient } from "@tanstack/react-query";
import { Download, KeyRound, RotateCw } from "lucide-react";
import { useEffect, useMemo } from "react";
import { type Denied, useReach } from "../api/reach";
import { keptDrafts } from "../session/keep";
import { useShared } from "../ui/shared";
import { count } from "../ui/units";
import { waiting } from "../work/queue";
import { entrySays, WaitingList } from "../work/Waits";

const SAYS: Record<Denied, { title: string; says: string }> = {
  revoked: {
    title: "This device was taken off",
    says: "On the computer, somebody took this device off the list. Nothing of the studio can be read here any more.",
  },
  unpaired: {
    title: "This device is not paired",
    says: "The computer does not know this device: its data was brought back from an older copy, or this is another computer.",
  },
  held: {
    title: "This device is not let in yet",
    says: "The data on the computer was brought back from a copy, or is on another disk. On the computer, open Devices and let this device in again.",
  },
};

/** NoAccessPage is shown to a device that the computer does not let in: what it had not sent is named. */
export default function NoAccessPage() {
  const { denied } = useReach();
  const queries = useQueryClient();
  const all = useShared(waiting);
  const drafts = useMemo(() => [...new Set(keptDrafts().map((d) => d.draft.piece.name || "A piece"))], []);
  useEffect(() => {
    document.title = "Rutile";
    queries.clear();
  }, [queries]);
  const { title, says } = SAYS[denied ?? "unpaired"];
  const file = useMemo(() => {
    const lines = all.map((w) => [w.entry.at, w.of, entrySays(w)].filter(Boolean).join("  "));
    return `data:text/plain;charset=utf-8,${encodeURIComponent(`${lines.join("\n")}\n`)}`;
  }, [all]);
  return (
    <main className="mx-auto max-w-xl px-4 py-8" data-denied={denied}>
      <h1 className="mb-2 font-semibold text-3xl text-primary">{title}</h1>
      <p className="mb-4 text-lg">{says}</p>
      {all.length > 0 ? (
        <section className="sheet mb-4 px-3 py-2" data-unsent={all.length}>
          <h2 className="font-semibold text-lg">{count(all.length, "entry was not sent", "entries were not sent")}</h2>
          <p className="mb-2">
            What it had sent before is in the log on the computer. What is listed here is kept, and sent once this
            device is let in again:
          </p>
          <WaitingList all={[...all]} />
          <a className="btn mt-1 min-h-12" href={file} download="not-sent.txt" data-do="save-list">
            <Download className="size-5" aria-hidden="true" /> Save the list
          </a>
        </section>
      ) : (
        <p className="mb-4">Everything that was logged on it is on the computer.</p>
      )}
      {drafts.length > 0 && <p className="mb-4">Changes to these pieces were not sent either: {drafts.join(", ")}.</p>}
      {denied === "held" ? (
        <button type="button" className="btn btn-primary min-h-14 w-full text-lg" onClick={() => location.reload()}>
          <RotateCw className="size-5" aria-hidden="true" /> Try again
        </button>
      ) : (
        <a className="btn btn-primary min-h-14 w-full text-lg" href="/pair" data-do="pair-again">
          <KeyRound className="size-5" aria-hidden="true" /> Pair it with a new code
        </a>
      )}
    </main>
  );
}
