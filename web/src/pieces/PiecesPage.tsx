import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { ArrowRight, CloudOff, Plus, Search } from "lucide-react";
import { useEffect, useState } from "react";
import { Link, useNavigate } from "react-router";
import { answer, api, RETRY, type Schemas, why } from "../api/client";
import { useStudio } from "../api/studio";
import { useKeys } from "../frame/keys";
import { Shell } from "../frame/Shell";
import { StatusStrip } from "../frame/StatusStrip";
import { zoneTitle } from "../piece/edit";
import { sendUnsent, type Unsent } from "../session/unsent";
import { timeSays } from "../today/timeSays";
import { Joint, Mark } from "../ui/Mark";
import { count, useUnits } from "../ui/units";
import { Block } from "./Block";
import { Damaged } from "./Damaged";

type Summary = Schemas["Summary"];

/** PiecesPage shows all pieces: what blocks each, and what to do next. */
export function PiecesPage() {
  const go = useNavigate();
  const queries = useQueryClient();
  const studio = useStudio();
  const pieces = useQuery({
    queryKey: ["pieces"],
    queryFn: ({ signal }) => answer(api.GET("/api/pieces", { signal })),
    refetchOnMount: "always",
  });
  const create = useMutation({
    mutationFn: () =>
      answer(api.POST("/api/pieces", { body: { format: "rutile/piece", version: 1, name: "New piece", zones: [] } })),
    onSuccess: (s) => {
      void queries.invalidateQueries({ queryKey: ["pieces"] });
      void go(`/pieces/${s.id}`, { state: { fresh: true } });
    },
  });
  useEffect(() => {
    document.title = "Pieces · Rutile";
  }, []);
  useKeys("Pieces", [{ key: "n", says: "New piece", run: () => create.mutate() }]);
  const behind = useLeft();
  const [words, setWords] = useState("");
  const all = pieces.data ?? [];
  const shown = all.filter((p) => found(p, words));
  const first = all.find((p) => p.verdict === "fails") ?? all.find((p) => p.verdict === "watch" && !p.damaged);
  const waiting = all.filter((p) => p.verdict === "fails").length;
  if (pieces.isPending) return null;
  return (
    <Shell
      strip={
        <StatusStrip
          air={studio?.air}
          next={
            first && (
              <Link className="underline underline-offset-2" to={place(first)}>
                <bdi>{first.name}</bdi>: {first.next}
              </Link>
            )
          }
        />
      }
    >
      <div className="mx-auto w-full max-w-7xl flex-1 px-3 pt-4 pb-6 sm:px-5">
        <div className="mb-3 flex flex-wrap items-center gap-x-4 gap-y-2">
          <h1 className="font-semibold text-3xl">Pieces</h1>
          {all.length > 0 && (
            <p className="text-secondary">
              {count(all.length, "piece", "pieces")}
              {waiting > 0 && `, ${waiting} with a failing plan`}
            </p>
          )}
          <span className="flex-1" />
          {all.length > FEW && (
            <label className="flex items-center gap-2">
              <Search className="size-5 text-secondary" aria-hidden="true" />
              <input
                type="search"
                data-field="find"
                className="input h-12 w-64"
                placeholder="Material, product, look, name"
                aria-label="Find pieces by material, product, look or name"
                value={words}
                onChange={(e) => setWords(e.target.value)}
              />
            </label>
          )}
          <button
            data-do="new-piece"
            type="button"
            className="btn btn-primary h-12"
            onClick={() => create.mutate()}
            disabled={create.isPending}
          >
            <Plus className="size-5" aria-hidden="true" /> New piece
          </button>
        </div>
        {create.isError && (
          <p role="alert" className="sheet wash mb-3 px-4 py-2">
            The piece could not be created: {why(create.error)}
          </p>
        )}
        {pieces.isError && (
          <p role="alert" className="sheet wash mb-3 px-4 py-2">
            The pieces could not be loaded: {why(pieces.error)}
          </p>
        )}
        {behind
          .filter((b) => b.gone)
          .map((b) => (
            <p key={b.id} role="alert" className="sheet wash mb-3 px-4 py-2" data-behind={b.id}>
              <bdi>{b.name || "A piece"}</bdi> was removed elsewhere; your unsaved changes are still in this browser.{" "}
              <Link className="link link-primary" to={`/pieces/${b.id}`}>
                Open it
              </Link>
            </p>
          ))}
        {pieces.data?.length === 0 && (
          <div className="sheet wash max-w-2xl px-5 py-4">
            <p className="font-head font-semibold text-lg">There are no pieces yet.</p>
            <ol className="mt-1 list-decimal pl-5">
              <li>
                Choose <b>New piece</b> and name it.
              </li>
              <li>Choose the material of its first zone: an area of one material and one finish.</li>
              <li>
                Enter what is on it, then plan the coats. Every step is checked as you add it, before you open any
                paint.
              </li>
            </ol>
          </div>
        )}
        <ul className="grid gap-x-6 gap-y-5 md:grid-cols-2 xl:grid-cols-3">
          {shown.map((p) => (
            <li key={p.id} className="flex min-w-0 flex-col">
              {p.damaged ? (
                <Damaged p={p} />
              ) : (
                <Stand p={p} asked={pieces.dataUpdatedAt} kept={behind.some((b) => b.id === p.id && !b.gone)} />
              )}
            </li>
          ))}
        </ul>
        {words && !shown.length && <p>No piece has all of “{words}”.</p>}
        {all.length > 0 && (
          <p className="mt-6 text-secondary text-sm">
            Every figure is an estimate. Labels, safety data sheets, local codes and licensed people decide.
          </p>
        )}
      </div>
    </Shell>
  );
}

/** useLeft sends unsent drafts again and again, and returns what is still unsent. */
function useLeft(): Unsent[] {
  const queries = useQueryClient();
  const left = useQuery({
    queryKey: ["left"],
    queryFn: async () => {
      const { sent, behind } = await sendUnsent();
      if (sent) void queries.invalidateQueries({ queryKey: ["pieces"] });
      return behind;
    },
    refetchInterval: RETRY,
    refetchOnMount: "always",
  });
  return left.data ?? [];
}

const FEW = 6; // pieces that are found without searching

/** found tells whether all words are in what a piece is, is made of or is coated with. */
function found(p: Summary, words: string): boolean {
  const text = `${p.name} ${p.found_by ?? ""} ${p.stands}`.toLowerCase();
  return words
    .toLowerCase()
    .split(/\s+/)
    .every((w) => text.includes(w));
}

/** place is where the next thing to do on a piece is done. */
function place(p: Summary): string {
  if (p.finished) return `/pieces/${p.id}/-/back`;
  if (!p.next_in) return `/pieces/${p.id}`;
  return `/pieces/${p.id}/${p.next_in}/${p.view}`;
}

// Zones of one piece from which their materials have no room, and then their names.
const SEVERAL = 4;
const MANY = 6;
// And from which they stand in several rows, each still wide enough to press.
const ROWS = 12;

/** Stand is one piece: its zones as sample blocks, then its name and state. */
function Stand({ p, kept, asked }: { p: Summary; kept: boolean; asked: number }) {
  const many = p.zones.length > MANY;
  const several = p.zones.length > SEVERAL;
  const rows = p.zones.length > ROWS;
  const u = useUnits();
  const soon = p.zones.find((z) => z.id === p.next_in)?.due;
  // The clock is the server's.
  const due = soon && timeSays(soon, Date.parse(soon.now) + Date.now() - asked, u);
  return (
    <article className="flex flex-1 flex-col">
      {many && <p className="px-2 pt-6 pb-1 text-secondary text-sm">{p.zones.length} zones</p>}
      <ul className={`flex items-end px-2 ${rows ? "flex-wrap gap-x-0.5 gap-y-1" : many ? "gap-1" : "min-h-24 gap-2"}`}>
        {p.zones.map((z) => (
          <li key={z.id} className={rows ? "w-6.5" : "min-w-0 max-w-40 flex-1"}>
            <Link
              to={`/pieces/${p.id}/${z.id}`}
              data-zone={`${p.id}/${z.id}`}
              data-verdict-is={z.verdict}
              className="block rounded-t hover:bg-base-200"
              title={`${z.name}: ${z.says}`}
            >
              <span
                className={`flex px-0.5 text-sm leading-tight ${several ? "flex-col items-start" : "items-center gap-1"}`}
              >
                <Joint verdict={z.verdict} className="size-5" />
                <bdi className={many ? "sr-only" : "max-w-full truncate"}>{zoneTitle(z)}</bdi>
                <span className="sr-only">: {z.says}</span>
              </span>
              {!several && (
                <span className="block truncate px-0.5 text-secondary text-xs">
                  {z.material}
                  {z.finish && z.finish !== "Bare" ? `, ${z.finish.toLowerCase()}` : ""}
                </span>
              )}
              <Block zone={z} />
            </Link>
          </li>
        ))}
        {p.zones.length === 0 && (
          <li className="flex-1 self-end rounded-t border border-base-300 border-b-0 border-dashed px-3 py-4 text-center text-secondary text-sm">
            {p.parts > 0 ? "parts measured, no zones yet" : "no zones yet"}
          </li>
        )}
      </ul>
      <div className="board h-2.5 rounded-sm" aria-hidden="true" />
      <div className="flex flex-1 flex-col px-1 pt-1.5">
        <div className="flex items-baseline gap-3">
          <h2 className="min-w-0 font-semibold text-lg leading-tight">
            <Link className="hover:text-primary hover:underline" to={`/pieces/${p.id}`}>
              <bdi className="line-clamp-2 break-words pb-1">{p.name || "Unnamed piece"}</bdi>
            </Link>
          </h2>
          <span className="flex-1" />
          {p.photo && (
            <Link
              to={`/pieces/${p.id}/-/photos`}
              aria-label={`Photographs of ${p.name}`}
              className="shrink-0 self-center"
            >
              <img
                src={`/photos/small/${p.photo}`}
                alt=""
                width="56"
                height="42"
                loading="lazy"
                className="h-10.5 w-14 rounded border border-base-300 bg-base-300 object-cover"
              />
            </Link>
          )}
          {p.zones.some((z) => z.steps > 0) && <Mark verdict={p.verdict} />}
        </div>
        {kept && (
          <p data-left className="flex items-center gap-1 font-medium text-sm text-warning">
            <CloudOff className="size-4" aria-hidden="true" /> Not saved yet: kept in this browser
          </p>
        )}
        <p className="leading-tight">{p.stands}</p>
        <Link
          to={place(p)}
          className="mt-auto flex min-h-9 items-center gap-1.5 text-primary leading-tight underline-offset-2 hover:underline"
        >
          <ArrowRight className="size-4 shrink-0" aria-hidden="true" />
          <span>
            {p.next}
            {due && `: ${due}`}
          </span>
        </Link>
      </div>
    </article>
  );
}
