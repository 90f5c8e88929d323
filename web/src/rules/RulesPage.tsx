import { useQuery } from "@tanstack/react-query";
import { Search } from "lucide-react";
import { useEffect, useMemo, useRef, useState } from "react";
import { Link, useLocation } from "react-router";
import { answer, api, type Schemas, type Verdict } from "../api/client";
import { useStudio } from "../api/studio";
import { useKeys } from "../frame/keys";
import { Shell } from "../frame/Shell";
import { StatusStrip } from "../frame/StatusStrip";
import { Joint } from "../ui/Mark";
import { count } from "../ui/units";

type Entry = Schemas["RuleEntry"];

export const AS: Record<Schemas["RuleFinding"]["severity"], Verdict> = { fail: "fails", watch: "watch", note: "sound" };

/** RulesPage is the rule book: every rule with its reason, and where it has findings now. */
export function RulesPage() {
  const studio = useStudio();
  const rules = useQuery({ queryKey: ["rules"], queryFn: () => answer(api.GET("/api/rules")), staleTime: 0 });
  const [query, setQuery] = useState("");
  const [speaking, setSpeaking] = useState(false);
  const code = useLocation().hash.slice(1);
  const field = useRef<HTMLInputElement>(null);
  useKeys("Rule book", [{ key: "/", says: "Find a rule", run: () => field.current?.focus() }]);
  const all = rules.data;
  const found = useMemo(() => {
    const words = query.toLowerCase().split(/\s+/).filter(Boolean);
    return (all ?? []).filter((r) => {
      const text = `${r.code} ${r.title} ${r.group} ${r.why} ${r.when} ${r.looks} ${r.mends}`.toLowerCase();
      return (!speaking || r.findings.length > 0) && words.every((w) => text.includes(w));
    });
  }, [all, query, speaking]);
  const groups = [...new Set(found.map((r) => r.group))];
  useEffect(() => {
    if (all && code) document.getElementById(code)?.scrollIntoView({ block: "center" });
  }, [all, code]);
  const loud = (all ?? []).filter((r) => r.findings.length > 0).length;
  return (
    <Shell head={<h1 className="font-semibold text-lg">Rule book</h1>} strip={<StatusStrip air={studio?.air} />}>
      <div className={`mx-auto w-full max-w-5xl px-3 py-4 sm:px-5 ${all || rules.isError ? "" : "invisible"}`}>
        <p className="max-w-3xl">
          What the check looks for, and why. <b className="font-semibold">Fail</b>: expected to go wrong.{" "}
          <b className="font-semibold">Watch</b>: may go wrong, or depends on something unknown.{" "}
          <b className="font-semibold">Note</b>: worth knowing. Labels, safety data sheets, local codes and licensed
          people decide.
        </p>
        <div className="sticky top-0 z-10 -mx-2 mt-3 flex flex-wrap items-center gap-3 bg-base-100 px-2 py-2">
          <label className="input h-12 min-w-60 flex-1">
            <Search className="size-5 text-secondary" aria-hidden="true" />
            <input
              ref={field}
              type="search"
              aria-label="Find a rule"
              placeholder="Type: wax, glaze, table top, too soon …"
              className="grow"
              value={query}
              onChange={(e) => setQuery(e.target.value)}
            />
          </label>
          <label className="flex min-h-11 cursor-pointer items-center gap-2">
            <input
              data-do="speaking"
              type="checkbox"
              className="checkbox checkbox-primary"
              checked={speaking}
              onChange={(e) => setSpeaking(e.target.checked)}
            />
            Only rules with findings now
          </label>
          <p className="text-secondary tabular-nums" role="status">
            {all &&
              (found.length === all.length
                ? `${count(all.length, "rule", "rules")}, ${loud} with findings now`
                : `${found.length} found`)}
          </p>
        </div>
        {rules.isError && <p role="alert">The server does not answer. Start it again and reload.</p>}
        {all && found.length === 0 && <p className="mt-4">No rule mentions “{query.slice(0, 40)}”.</p>}
        {groups.map((g) => (
          <section key={g} className="mt-5">
            <h2 className="mb-2 font-semibold text-primary text-xl">{g}</h2>
            <ul className="grid gap-2">
              {found
                .filter((r) => r.group === g)
                .map((r) => (
                  <Rule key={r.code} r={r} here={r.code === code} />
                ))}
            </ul>
          </section>
        ))}
      </div>
    </Shell>
  );
}

const SHOWN = 4;

function Rule({ r, here }: { r: Entry; here: boolean }) {
  const [more, setMore] = useState(false);
  const places = more ? r.findings : r.findings.slice(0, SHOWN);
  return (
    <li
      id={r.code}
      className={`sheet grid scroll-mt-20 gap-x-6 gap-y-1 rounded-r py-2.5 pr-4 pl-4 md:grid-cols-[minmax(0,1fr)_19rem] ${here ? "outline outline-2 outline-accent" : ""} wash`}
    >
      <div className="min-w-0">
        <h3 className="flex flex-wrap items-baseline gap-x-3 font-semibold text-base">{r.title}</h3>
        <p className="mt-0.5">{r.why}</p>
        {r.divided && (
          <p className="mt-1 text-primary text-sm">
            Painters divide here. On a piece, the ways of working can be compared side by side.
          </p>
        )}
        <dl className="mt-1.5 grid grid-cols-[auto_1fr] gap-x-3 gap-y-0.5 text-sm">
          {[
            ["When", r.when],
            ["Looks at", `${r.looks}.`],
            ["Fix", `${r.mends}.`],
          ].map(([t, d]) => (
            <div key={t} className="col-span-2 grid grid-cols-subgrid">
              <dt className="text-secondary">{t}</dt>
              <dd>{d}</dd>
            </div>
          ))}
        </dl>
      </div>
      <div className="min-w-0 text-sm max-md:border-base-300 max-md:border-t max-md:pt-1.5">
        {r.findings.length === 0 ? (
          <p className="text-secondary">No findings now.</p>
        ) : (
          <>
            <p className="text-secondary">Findings now</p>
            <ul>
              {places.map((s) => (
                <li key={`${s.piece}-${s.zone}-${s.step}-${s.title}`}>
                  <Link
                    data-speaks={`${s.piece}/${s.zone}`}
                    to={`/pieces/${s.piece}/${s.zone}/${s.step ? "plan" : ""}`}
                    className="flex min-h-9 items-center gap-2 rounded px-1 leading-tight hover:bg-base-200"
                    title={s.title}
                  >
                    <Joint verdict={AS[s.severity]} />
                    <span className="min-w-0 flex-1 truncate">
                      <span className="sr-only">{s.severity}: </span>
                      <bdi className="font-medium">{s.name}</bdi>, <bdi>{s.zone_name}</bdi>
                      {s.step ? `, step ${s.step}` : ""}
                    </span>
                  </Link>
                  {r.divided && (
                    <Link
                      data-compares={`${s.piece}/${s.zone}`}
                      to={`/pieces/${s.piece}/${s.zone}/compare`}
                      className="ml-8 inline-flex min-h-9 items-center text-primary underline underline-offset-2"
                      aria-label={`Compare the ways of working: ${s.name}, ${s.zone_name}`}
                    >
                      Compare the ways of working
                    </Link>
                  )}
                </li>
              ))}
            </ul>
            {r.findings.length > SHOWN && (
              <button type="button" className="min-h-9 text-primary underline" onClick={() => setMore(!more)}>
                {more ? "Show fewer" : `${r.findings.length - SHOWN} more`}
              </button>
            )}
          </>
        )}
      </div>
    </li>
  );
}
