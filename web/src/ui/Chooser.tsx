import { type ReactNode, useEffect, useId, useRef, useState } from "react";
import { useName } from "./focus";

/** Option is something to choose: finds are its other search words, less that it is behind "more". */
export type Option = { id: string; name: string; group: string; finds?: string; less?: boolean; barred?: boolean };

type Props<T extends Option> = {
  label: string; // of the list and its field
  headed?: boolean; // the label stands above
  name?: string; // the field an answer may ask for
  placeholder: string;
  hint?: string;
  options: T[] | undefined; // in their groups, the most likely first; undefined while loading
  first?: string; // the group that stays first, whose first option is the default
  grid: (group: string) => string; // how a group is laid out
  tall: string; // height of the list
  option: (o: T, here: boolean) => ReactNode;
  look: (o: T, here: boolean) => string;
  chosen?: string;
  nothing: (query: string) => string;
  eager?: boolean; // asks to be typed into at once
  onPick: (o: T) => void;
  onShut?: () => void; // without it, it stays open
};

/**
 * Chooser chooses one of many by its name, by search words, or with the arrow keys, which move on the grid. A typed
 * name selects that name first.
 */
export function Chooser<T extends Option>(p: Props<T>) {
  const [query, setQuery] = useState("");
  const [active, setActive] = useState<number>();
  const [all, setAll] = useState(false);
  const [waits, setWaits] = useState(false); // Enter was pressed before there was anything to pick
  const id = useId();
  const field = useName<HTMLInputElement>(p.name && `field ${p.name}`);
  const shown = useRef(new Map<number, HTMLElement>());
  const q = query.trim().toLowerCase();
  const named = (o: T) => o.name.toLowerCase().startsWith(q);
  const fits = (o: T) => {
    const text = `${o.name} ${o.finds ?? ""} ${o.group}`.toLowerCase();
    return q.split(/\s+/).every((w) => text.includes(w));
  };
  const usual = (p.options ?? []).some((o) => !o.less);
  const found = (p.options ?? []).filter((o) => (q ? fits(o) : all || !usual || !o.less || o.id === p.chosen));
  if (q) found.sort((a, b) => Number(named(b)) - Number(named(a)));
  const groups = [...new Set(found.map((o) => o.group))];
  if (p.first !== undefined) groups.sort((a, b) => Number(b === p.first) - Number(a === p.first));
  const order = groups.flatMap((g) => found.filter((o) => o.group === g));
  const rest = (p.options?.length ?? 0) - found.length;
  const begins = q || (p.first !== undefined && groups[0] === p.first);
  const here = Math.min(active ?? (begins ? 0 : -1), order.length - 1);
  const pick = (o: T | undefined) => {
    if (o && !o.barred) p.onPick(o);
  };
  const go = (n: number) => {
    const to = Math.max(0, Math.min(order.length - 1, n));
    setActive(to);
    shown.current.get(to)?.scrollIntoView({ block: "nearest" });
  };
  /** The option one row further, as near as possible to the one below or above. */
  const row = (by: 1 | -1) => {
    const from = shown.current.get(here);
    if (!from) return go(by > 0 ? 0 : here);
    const at = from.getBoundingClientRect();
    let best: { n: number; far: number } | undefined;
    for (const [n, e] of shown.current) {
      const r = e.getBoundingClientRect();
      const down = (r.top - at.top) * by;
      if (down < 4) continue;
      const far = down * 4 + Math.abs(r.left - at.left);
      if (!best || far < best.far) best = { n, far };
    }
    go(best?.n ?? here);
  };
  // biome-ignore lint/correctness/useExhaustiveDependencies: once there are options, the first one fits what was typed
  useEffect(() => {
    if (!p.options || !waits) return;
    setWaits(false);
    pick(order[Math.max(0, here)]);
  }, [p.options, waits]);
  return (
    <>
      {p.headed && (
        <label htmlFor={id} className="mb-0.5 block font-medium">
          {p.label}
        </label>
      )}
      <div className="flex gap-2">
        <input
          ref={field}
          id={id}
          data-field={p.name}
          // biome-ignore lint/a11y/noAutofocus: the painter has just asked for it
          autoFocus={p.eager}
          role="combobox"
          aria-label={p.headed ? undefined : p.label}
          aria-expanded="true"
          aria-controls={`${id}l`}
          aria-activedescendant={order[here] ? `${id}-${here}` : undefined}
          className="input h-12 flex-1 text-base"
          placeholder={p.placeholder}
          value={query}
          onChange={(e) => {
            setQuery(e.target.value);
            setActive(undefined);
          }}
          onKeyDown={(e) => {
            if (e.key === "Escape" && p.onShut) p.onShut();
            else if (e.key === "ArrowDown") row(1);
            else if (e.key === "ArrowUp") row(-1);
            else if (e.key === "ArrowRight" && (active !== undefined || !query)) go(here + 1);
            else if (e.key === "ArrowLeft" && active !== undefined) go(here - 1);
            else if (e.key === "Enter" && !p.options) setWaits(true);
            else if (e.key === "Enter") pick(order[here]);
            else return;
            e.preventDefault();
            e.stopPropagation();
          }}
        />
        {p.onShut && (
          <button type="button" className="btn btn-ghost h-12" data-close onClick={p.onShut}>
            Close
          </button>
        )}
      </div>
      {p.hint && <p className="mt-1 text-secondary text-sm">{p.hint}</p>}
      {p.options && order.length === 0 && <p className="mt-2 text-secondary">{p.nothing(query.slice(0, 40))}</p>}
      <div
        id={`${id}l`}
        role="listbox"
        aria-label={p.label}
        className={`mt-2 grid content-start gap-2 overflow-y-auto p-0.5 ${p.tall}`}
      >
        {groups.map((g) => (
          // biome-ignore lint/a11y/useSemanticElements: options stand in groups
          <div key={g} role="group" aria-label={g || p.label}>
            {g && (
              <div
                className={`mb-0.5 font-head font-semibold first-letter:uppercase ${g === p.first ? "text-primary" : "text-secondary text-sm"}`}
                aria-hidden="true"
              >
                {g}
              </div>
            )}
            <div className={`grid ${p.grid(g)}`}>
              {order.map((o, n) =>
                o.group !== g ? null : (
                  // biome-ignore lint/a11y/useKeyWithClickEvents: the field above takes the keys
                  <div
                    key={o.id}
                    ref={(e) => {
                      if (e) shown.current.set(n, e);
                      return () => void shown.current.delete(n);
                    }}
                    id={`${id}-${n}`}
                    data-option={o.id}
                    role="option"
                    tabIndex={-1}
                    aria-selected={p.chosen === undefined ? n === here : o.id === p.chosen}
                    aria-disabled={o.barred || undefined}
                    className={p.look(o, n === here)}
                    onClick={() => pick(o)}
                  >
                    {p.option(o, n === here)}
                  </div>
                ),
              )}
            </div>
          </div>
        ))}
      </div>
      {!q && rest > 0 && (
        <button
          type="button"
          data-more
          className="mt-1 min-h-9 text-primary text-sm underline underline-offset-2"
          onClick={() => setAll(true)}
        >
          {rest} more
        </button>
      )}
    </>
  );
}
