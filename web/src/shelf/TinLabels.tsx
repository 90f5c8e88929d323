import { ArrowLeft, Printer } from "lucide-react";
import { useEffect } from "react";
import { Link, useSearchParams } from "react-router";
import { useStudio } from "../api/studio";
import { useKeys } from "../frame/keys";
import { Shell } from "../frame/Shell";
import { StatusStrip } from "../frame/StatusStrip";
import { Check } from "../ui/Choice";
import { date, useUnits } from "../ui/units";
import { useShelf } from "./useShelf";

/** TinLabels are labels to print and stick on tins: name, parts, date, piece. */
export default function TinLabels() {
  const studio = useStudio();
  const shelf = useShelf();
  const u = useUnits();
  const [query, setQuery] = useSearchParams();
  useEffect(() => {
    document.title = "Labels · Rutile";
  }, []);
  useKeys("Labels", [{ key: "p", says: "Print", run: () => window.print() }]);
  if (shelf.isPending) return null;
  const cans = shelf.data?.cans ?? [];
  const usual = cans.filter((c) => c.mixed_from?.length).map((c) => c.id);
  const ids = query.has("ids") ? (query.get("ids") ?? "").split(",").filter(Boolean) : usual;
  const chosen = cans.filter((c) => ids.includes(c.id));
  const choose = (id: string, on: boolean) =>
    setQuery({ ids: (on ? [...ids, id] : ids.filter((x) => x !== id)).join(",") }, { replace: true });
  return (
    <Shell head={<h1 className="font-semibold text-lg">Labels for tins</h1>} strip={<StatusStrip air={studio?.air} />}>
      <div className="mx-auto w-full max-w-5xl px-3 py-4 sm:px-5 print:p-0">
        <div className="no-print mb-3 flex flex-wrap items-center gap-2">
          <Link to="/shelf" className="btn btn-ghost">
            <ArrowLeft className="size-5" aria-hidden="true" /> Shelf
          </Link>
          <span className="flex-1" />
          <button
            data-do="print"
            type="button"
            className="btn btn-primary h-12"
            disabled={!chosen.length}
            onClick={() => window.print()}
          >
            <Printer className="size-5" aria-hidden="true" /> Print
          </button>
        </div>
        <details className="no-print mb-3" open={!chosen.length}>
          <summary className="min-h-11 py-2 font-semibold">
            Which cans <span className="font-normal text-secondary">({chosen.length})</span>
          </summary>
          <div className="grid sm:grid-cols-2 lg:grid-cols-3">
            {cans.map((c) => (
              <Check key={c.id} label={c.title} on={ids.includes(c.id)} onChange={(on) => choose(c.id, on)} />
            ))}
          </div>
        </details>
        <ul className="grid gap-3 sm:grid-cols-2 print:grid-cols-2" data-labels={chosen.length}>
          {chosen.map((c) => (
            <li
              key={c.id}
              className="flex break-inside-avoid gap-3 border-2 border-base-content p-3 leading-tight"
              data-tin-label={c.id}
            >
              <span
                className="block w-10 shrink-0 self-stretch border border-base-content [print-color-adjust:exact]"
                style={{ background: c.colour ?? "transparent" }}
                aria-hidden="true"
              />
              <span className="min-w-0 flex-1">
                <b className="block break-words font-head font-semibold text-lg">
                  <bdi>{c.title}</bdi>
                </b>
                <span className="block">
                  {[c.kind_name, c.colour_name, c.colour, c.sheen_name].filter(Boolean).join(", ")}
                </span>
                {c.mixed_from?.map((m) => (
                  <span key={m} className="block">
                    {m}
                  </span>
                ))}
                <span className="block text-sm">
                  {[
                    c.mixed && `mixed ${date(c.mixed, u)}`,
                    c.opened && `opened ${date(c.opened, u)}`,
                    c.batch && `batch ${c.batch}`,
                    c.reserved_for && `for ${c.reserved_for}`,
                  ]
                    .filter(Boolean)
                    .join(" · ")}
                </span>
                <span className="block text-secondary text-sm">
                  <bdi>{studio?.name}</bdi>
                </span>
              </span>
            </li>
          ))}
        </ul>
        {!chosen.length && shelf.data && <p className="text-secondary">Choose the cans that need a label.</p>}
      </div>
    </Shell>
  );
}
