import { Download, Palette, Plus, Tag, Upload } from "lucide-react";
import { useEffect, useRef, useState } from "react";
import { Link, useSearchParams } from "react-router";
import { type Schemas, why } from "../api/client";
import { useStudio } from "../api/studio";
import { useVocabQuery, VocabContext } from "../api/vocab";
import { useKeys } from "../frame/keys";
import { Shell } from "../frame/Shell";
import { StatusStrip } from "../frame/StatusStrip";
import { FileInput } from "../ui/FileInput";
import { useLater } from "../ui/later";
import { count } from "../ui/units";
import { useFileDrop } from "../ui/useFileDrop";
import { CanEditor } from "./CanEditor";
import { ImportCans } from "./ImportCans";
import { Tin } from "./Tin";
import { canOf, usePutCan, useShelf } from "./useShelf";

type ShelfCan = Schemas["ShelfCan"];

/** ShelfPage is the studio's own cans. */
export default function ShelfPage() {
  const studio = useStudio();
  const v = useVocabQuery();
  useEffect(() => {
    document.title = "Shelf · Rutile";
  }, []);
  return (
    <Shell head={<h1 className="font-semibold text-lg">Shelf</h1>} strip={<StatusStrip air={studio?.air} />}>
      {v.isError && <p role="alert">The server does not answer. Start it again and reload.</p>}
      {v.data && (
        <VocabContext value={v.data}>
          <ShelfView />
        </VocabContext>
      )}
    </Shell>
  );
}

const TYPING = 120; // ms

function ShelfView() {
  const [query] = useSearchParams();
  const [find, setFind] = useState("");
  const shelf = useShelf(useLater(find.trim(), TYPING));
  const [open, setOpen] = useState<string | undefined>(query.get("can") ?? undefined); // "" for a new one
  const [gone, setGone] = useState<ShelfCan>();
  const [file, setFile] = useState<File>();
  const { drop, dropping } = useFileDrop(([first]) => setFile(first));
  const search = useRef<HTMLInputElement>(null);
  const pick = useRef<HTMLInputElement>(null);
  const back = usePutCan(() => setGone(undefined));
  useKeys("Shelf", [
    { key: "n", says: "New can", run: () => setOpen("") },
    { key: "/", says: "Search", run: () => search.current?.focus() },
  ]);
  if (shelf.isPending) return null; // nothing moves once it is drawn
  const cans = shelf.data?.cans ?? [];
  const groups = [...new Set(cans.map((c) => c.role))].sort((a, b) => ROLES.indexOf(a) - ROLES.indexOf(b));
  const shown = open === undefined ? undefined : cans.find((c) => c.id === open);
  const bad = cans.filter((c) => c.warnings.some((w) => w.id === "past")).length;
  return (
    <div className={`mx-auto w-full max-w-7xl flex-1 px-3 py-4 sm:px-5 ${dropping}`} {...drop}>
      <div className="mb-3 flex flex-wrap items-center gap-2">
        <input
          ref={search}
          type="search"
          data-find
          className="input w-64 max-sm:w-full"
          placeholder="Search: name, kind, colour, batch"
          aria-label="Search the shelf"
          value={find}
          onChange={(e) => setFind(e.target.value)}
        />
        <p className="text-secondary" data-count={shelf.data?.cans.length}>
          {shelf.data &&
            (find
              ? `${cans.length} of ${count(shelf.data.total, "can", "cans")}`
              : count(shelf.data.total, "can", "cans"))}
          {bad > 0 && `, ${bad} past ${bad === 1 ? "its" : "their"} life`}
        </p>
        <span className="flex-1" />
        <Link data-do="colours" to="/colours" className="btn btn-ghost">
          <Palette className="size-5" aria-hidden="true" /> Colours and blends
        </Link>
        <Link to="/shelf/labels" data-do="labels" className="btn btn-ghost">
          <Tag className="size-5" aria-hidden="true" /> Labels
        </Link>
        <button data-do="import" type="button" className="btn btn-ghost" onClick={() => pick.current?.click()}>
          <Upload className="size-5" aria-hidden="true" /> Import CSV
        </button>
        <a data-do="export" href="/api/shelf/csv" download="shelf.csv" className="btn btn-ghost">
          <Download className="size-5" aria-hidden="true" /> Export CSV
        </a>
        <button data-do="new-can" type="button" className="btn btn-primary h-12" onClick={() => setOpen("")}>
          <Plus className="size-5" aria-hidden="true" /> New can
        </button>
        <FileInput ref={pick} name="cans" label="CSV with cans" accept=".csv,.txt,text/csv" onFile={setFile} />
      </div>
      {gone && (
        <p role="status" className="sheet wash mb-3 flex flex-wrap items-center gap-3 px-4 py-2" data-gone>
          “{gone.title}” was taken off the shelf. Plans that name it keep what they know of it.
          <button
            data-do="put-back"
            type="button"
            className="btn"
            onClick={() => back.mutate({ can: canOf(gone), rev: 0 })}
          >
            Put it back
          </button>
          {back.isError && <span className="text-error">{why(back.error)}</span>}
        </p>
      )}
      {shelf.isError && (
        <p role="alert" className="sheet wash mb-3 px-4 py-2">
          The shelf could not be loaded: {why(shelf.error)}
        </p>
      )}
      {shelf.data?.total === 0 && (
        <div className="sheet wash max-w-2xl px-5 py-4">
          <p className="font-head font-semibold text-lg">The shelf is empty.</p>
          <p className="mt-1">
            Put your cans here with what their labels say. Plans then use what is open, waits follow the labels, and you
            see whether a can will last. Choose <b>New can</b>, or import a CSV with the columns name, kind, colour,
            size_l and left_l.
          </p>
        </div>
      )}
      {find && cans.length === 0 && shelf.data && <p className="text-secondary">No can matches “{find}”.</p>}
      {groups.map((role) => (
        <section key={role} aria-label={role} className="mb-4">
          <h2 className="mb-1 font-semibold text-primary text-xl first-letter:uppercase">{PLURAL[role] ?? role}</h2>
          <ul className="grid gap-2 sm:grid-cols-2 xl:grid-cols-3">
            {cans
              .filter((c) => c.role === role)
              .map((c) => (
                <li key={c.id}>
                  <Card can={c} onOpen={() => setOpen(c.id)} />
                </li>
              ))}
          </ul>
        </section>
      ))}
      {file && <ImportCans file={file} onClose={() => setFile(undefined)} />}
      {(open === "" || shown) && (
        <CanEditor key={open} can={shown} onClose={() => setOpen(undefined)} onRemoved={setGone} />
      )}
    </div>
  );
}

const ROLES = ["primer", "paint", "medium or glaze", "stain or treatment", "clear", "wax or oil", "additive"];
const PLURAL: Record<string, string> = {
  primer: "primers",
  paint: "paints",
  clear: "clears",
  "wax or oil": "waxes and oils",
  "stain or treatment": "stains and treatments",
  "medium or glaze": "mediums and glazes",
  additive: "additives",
};

function Card({ can, onOpen }: { can: ShelfCan; onOpen: () => void }) {
  const grave = can.warnings.filter((w) => w.id !== "low");
  return (
    <button
      type="button"
      data-can={can.id}
      data-warned={can.warnings.map((w) => w.id).join(" ") || undefined}
      className={`sheet flex h-full w-full items-start gap-3 rounded px-3 py-2 text-left hover:bg-base-200 ${can.left === "empty" ? "opacity-70" : ""}`}
      onClick={onOpen}
    >
      <Tin colour={can.shows} share={can.share} size={60} bag={can.kind === "paint_milk"} />
      <span className="min-w-0 flex-1 leading-tight">
        <b className="block break-words font-semibold">
          <bdi>{can.title}</bdi>
        </b>
        <span className="block text-secondary text-sm">
          {[
            can.kind_name.toLowerCase() === can.title.toLowerCase() ? "" : can.kind_name,
            can.colour_name,
            can.sheen_name,
          ]
            .filter(Boolean)
            .join(", ")}
        </span>
        <span className="block text-sm">
          {can.left}
          {can.size && can.left !== "full" ? ` of ${can.size}` : can.left === "full" && can.size ? `, ${can.size}` : ""}
          {can.open ? ", open" : ""}
        </span>
        {can.says && (
          <span className="block text-sm" data-label>
            <span className="text-accent">From the label:</span> {can.says.charAt(0).toLowerCase() + can.says.slice(1)}
          </span>
        )}
        {can.reserved_for && (
          <span className="block text-sm">
            Reserved for <bdi>{can.reserved_for}</bdi>
          </span>
        )}
        {can.used.length > 0 && (
          <span className="block text-secondary text-sm">In the plans of {can.used.join(", ")}</span>
        )}
        {grave.map((w) => (
          <span key={w.id} className="block font-medium text-sm text-warning">
            {w.says}
          </span>
        ))}
        {can.warnings.some((w) => w.id === "low") && <span className="block text-sm text-warning">Nearly empty.</span>}
      </span>
    </button>
  );
}
