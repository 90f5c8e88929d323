import { Plus } from "lucide-react";
import { useState } from "react";
import { Link } from "react-router";
import { type Schemas, why } from "../api/client";
import { type Settings, useSaveStudio, useStudio } from "../api/studio";
import { useVocab, useVocabQuery, VocabContext } from "../api/vocab";
import { Shell } from "../frame/Shell";
import { StatusStrip } from "../frame/StatusStrip";
import { useShelf } from "../shelf/useShelf";
import { Check, Choice } from "../ui/Choice";
import { count } from "../ui/units";
import { KitEditor } from "./KitEditor";

type Kit = Schemas["Kit"];

/** KitPage is what a studio has, what it does out of habit, and when it works: all that plans are made by. */
export default function KitPage() {
  const studio = useStudio();
  const v = useVocabQuery();
  return (
    <Shell head={<h1 className="font-semibold text-lg">Kit and habits</h1>} strip={<StatusStrip air={studio?.air} />}>
      {v.isError && <p role="alert">The server does not answer. Start it again and reload.</p>}
      {v.data && studio && (
        <VocabContext value={v.data}>
          <KitView studio={studio} />
        </VocabContext>
      )}
    </Shell>
  );
}

const DAYS = [
  ["mon", "Mon"],
  ["tue", "Tue"],
  ["wed", "Wed"],
  ["thu", "Thu"],
  ["fri", "Fri"],
  ["sat", "Sat"],
  ["sun", "Sun"],
] as const;

function KitView({ studio }: { studio: Schemas["Studio"] }) {
  const v = useVocab().kits;
  const save = useSaveStudio(() => undefined);
  const [editing, edit] = useState<string>(); // id of the kit that is open, "" for a new one
  const own = studio.own_kits ?? [];
  const shipped = v.kits.map((k) => own.find((o) => o.id === k.id) ?? k);
  const all: Kit[] = [...shipped, ...own.filter((o) => !v.kits.some((k) => k.id === o.id))];
  const usual = v.kits[0]?.id ?? "";
  const has = studio.kits?.length ? studio.kits : [usual];
  const set = (change: (now: Settings) => Partial<Settings>) => save.mutate((now) => ({ ...now, ...change(now) }));
  const tick = (id: string, on: boolean) =>
    set((now) => {
      const rest = (now.kits?.length ? now.kits : [usual]).filter((x) => x !== id);
      return { kits: on ? [...rest, id] : rest };
    });
  const bench = studio.bench ?? v.bench;
  const hours = (change: Partial<Schemas["Bench"]>) =>
    set((now) => ({ bench: { ...(now.bench ?? v.bench), ...change } }));
  return (
    <div className="mx-auto w-full max-w-5xl px-3 py-4 sm:px-5">
      <p className="max-w-3xl">
        Plans use what is in your kits. What lies outside is named as “buy or borrow”, with what it gains, and only
        where it gains enough.
      </p>
      {save.isError && (
        <p role="alert" className="mt-2 font-medium text-error">
          Not saved: {why(save.error)}
        </p>
      )}
      <section aria-label="Kits" className="mt-4">
        <h2 className="font-semibold text-primary text-xl">Your kits</h2>
        <ul className="mt-2 grid gap-2 md:grid-cols-2">
          {all.map((k) => (
            <li key={k.id} data-kit={k.id} className="sheet rounded px-3 py-2">
              <div className="flex items-start gap-2">
                <label className="flex min-h-11 min-w-0 flex-1 cursor-pointer items-start gap-2 py-1">
                  <input
                    type="checkbox"
                    data-tick-kit={k.id}
                    className="checkbox checkbox-primary mt-0.5"
                    checked={has.includes(k.id)}
                    disabled={has.includes(k.id) && has.length === 1}
                    onChange={(e) => tick(k.id, e.target.checked)}
                  />
                  <span className="min-w-0 leading-tight">
                    <b className="font-semibold">{k.name}</b>
                    <span className="block text-secondary text-sm">{k.says}</span>
                    <span className="block text-sm">{contents(k, v)}</span>
                  </span>
                </label>
                <button
                  data-edit-kit={k.id}
                  type="button"
                  className="btn btn-ghost px-2"
                  aria-label={`Edit ${k.name}`}
                  onClick={() => edit(k.id)}
                >
                  Edit
                </button>
              </div>
            </li>
          ))}
        </ul>
        <button data-do="new-kit" type="button" className="btn btn-ghost mt-2" onClick={() => edit("")}>
          <Plus className="size-5" aria-hidden="true" /> New kit
        </button>
      </section>
      <OnTheShelf />
      <section aria-label="Habits" className="mt-5">
        <h2 className="font-semibold text-primary text-xl">Habits of planning</h2>
        <p className="mt-1 max-w-3xl text-secondary">
          What good painters do without asking. Every plan keeps those that are on, and a plan that cannot keep one says
          what that risks. A way of working may leave some out.
        </p>
        <ul className="mt-2 grid gap-x-6 md:grid-cols-2">
          {v.habits.map((h) => {
            const off = studio.habits_off?.includes(h.id) ?? false;
            return (
              <li key={h.id} className="border-base-300 border-b py-1">
                <label className="flex min-h-11 cursor-pointer items-start gap-2 py-1">
                  <input
                    type="checkbox"
                    data-habit={h.id}
                    className="checkbox checkbox-primary mt-0.5 flex-none"
                    checked={!off}
                    onChange={(e) => {
                      const on = e.target.checked;
                      set((now) => {
                        const rest = (now.habits_off ?? []).filter((x) => x !== h.id);
                        return { habits_off: on ? rest : [...rest, h.id] };
                      });
                    }}
                  />
                  <span className="min-w-0 leading-tight">
                    {h.name}
                    <span className={`block text-sm ${off ? "text-warning" : "text-secondary"}`}>
                      {off ? h.risk : h.note}
                    </span>
                  </span>
                </label>
              </li>
            );
          })}
        </ul>
      </section>
      <section aria-label="Working hours" className="mt-5">
        <h2 className="font-semibold text-primary text-xl">Working hours</h2>
        <p className="mt-1 max-w-3xl text-secondary">
          Plans are laid out in these hours: a wait that ends at night ends in the morning.
        </p>
        <div className="mt-2 flex flex-wrap items-end gap-x-4">
          <div className="w-36">
            <Choice
              label="From"
              name="bench.from_h"
              words={clocks(0, bench.to_h - 1)}
              value={String(bench.from_h)}
              onChange={(h) => hours({ from_h: Number(h) })}
            />
          </div>
          <div className="w-36">
            <Choice
              label="To"
              name="bench.to_h"
              words={clocks(bench.from_h + 1, 24)}
              value={String(bench.to_h)}
              onChange={(h) => hours({ to_h: Number(h) })}
            />
          </div>
          <fieldset className="flex flex-wrap gap-x-4">
            <legend className="font-medium text-secondary text-sm">Working days</legend>
            {DAYS.map(([id, name]) => (
              <Check
                key={id}
                label={name}
                name={`bench.${id}`}
                on={bench.days.includes(id)}
                onChange={(on) => {
                  const days = DAYS.map(([d]) => d).filter((d) => (d === id ? on : bench.days.includes(d)));
                  if (days.length > 0) hours({ days });
                }}
              />
            ))}
          </fieldset>
        </div>
      </section>
      {editing !== undefined && (
        <KitEditor
          kit={all.find((k) => k.id === editing)}
          taken={all}
          changed={own.some((o) => o.id === editing) && v.kits.some((k) => k.id === editing)}
          onClose={() => edit(undefined)}
        />
      )}
    </div>
  );
}

/** clocks are the half hours from one to another. */
function clocks(from: number, to: number) {
  const out = [];
  for (let h = Math.ceil(from * 2) / 2; h <= to; h += 0.5) {
    out.push({ id: String(h), name: `${Math.floor(h)}:${h % 1 ? "30" : "00"}` });
  }
  return out;
}

/** contents says what is in a kit, in a line. */
function contents(k: Kit, v: Schemas["KitWords"]): string {
  const tools = (k.tools ?? []).map((t) => v.tools.find((w) => w.id === t)?.name.toLowerCase() ?? t);
  const n = k.products?.length ?? 0;
  return [`${n} ${n === 1 ? "product" : "products"}`, ...tools].join(", ");
}

/** OnTheShelf is what the shelf adds to the kits: they are one store, seen twice. */
function OnTheShelf() {
  const shelf = useShelf();
  const cans = (shelf.data?.cans ?? []).filter((c) => c.usable);
  const kinds = [...new Set(cans.map((c) => c.kind_name))].sort();
  return (
    <section aria-label="Shelf" className="mt-5">
      <h2 className="font-semibold text-primary text-xl">On your shelf</h2>
      <p className="mt-1 max-w-3xl text-secondary">
        What stands there counts as yours too. Plans take an open can before a closed one, and both before what must be
        bought, if its colour and sheen suit the zone and there is enough.
      </p>
      <ul className="mt-1 flex flex-wrap gap-x-5 gap-y-1" data-shelf-kinds={kinds.length}>
        {kinds.map((k) => {
          const of = cans.filter((c) => c.kind_name === k);
          const open = of.filter((c) => c.open).length;
          return (
            <li key={k}>
              {k} <span className="text-secondary">{open ? `${open} open` : count(of.length, "can", "cans")}</span>
            </li>
          );
        })}
        {shelf.data && !kinds.length && <li className="text-secondary">Nothing yet.</li>}
      </ul>
      <Link to="/shelf" className="btn btn-ghost mt-1">
        Open the shelf
      </Link>
    </section>
  );
}
