import { ChevronDown } from "lucide-react";
import { useEffect, useId, useRef, useState } from "react";
import { Texture } from "../section/texture";
import { focusSoon } from "../ui/focus";

export type Tile = {
  id: string;
  name: string;
  note?: string;
  also?: string;
  group?: string;
  colour?: string;
  mark?: string;
  mirrors?: boolean;
};

type Props = {
  label: string;
  words: Tile[];
  value: string | undefined;
  name?: string; // the field a finding may ask for
  eg: string; // what one might type
  hint?: string;
  open?: boolean; // shows all its tiles always
  begin?: boolean; // and this one only until the first is chosen
  eager?: boolean; // asks to be typed into at once
  onChange: (id: string) => void;
};

/**
 * Tiles picks a material or a finish by its look, its name or what painters call it. Closed it shows what is chosen;
 * open, typing narrows the tiles and the arrow keys walk them.
 */
export function Tiles({ label, words, value, name, eg, hint, open: always, begin, eager, onChange }: Props) {
  const [open, setOpen] = useState(!!always || !!begin);
  const [query, setQuery] = useState("");
  const [active, setActive] = useState(-1);
  const id = useId();
  const box = useRef<HTMLDivElement>(null);
  const face = useRef<HTMLButtonElement>(null);
  const q = query.trim().toLowerCase().split(/\s+/);
  const found = words.filter((w) => {
    const text = `${w.name} ${w.also ?? ""} ${w.group ?? ""}`.toLowerCase();
    return q.every((x) => text.includes(x));
  });
  // Whoever types a name means that name first.
  if (query.trim()) {
    const named = (w: Tile) => (w.name.toLowerCase().startsWith(query.trim().toLowerCase()) ? 0 : 1);
    found.sort((a, b) => named(a) - named(b));
  }
  const groups = [...new Set(found.map((w) => w.group ?? ""))];
  const order = groups.flatMap((g) => found.filter((w) => (w.group ?? "") === g));
  const here = query.trim() ? Math.max(0, Math.min(active, order.length - 1)) : Math.min(active, order.length - 1);
  const chosen = words.find((w) => w.id === value);
  const shut = (back: boolean) => {
    setOpen(!!always);
    setQuery("");
    setActive(-1);
    if (back) focusSoon(() => face.current);
  };
  const pick = (w: Tile | undefined) => {
    if (!w) return;
    onChange(w.id);
    shut(true);
  };
  const go = (by: number) => setActive(Math.max(0, Math.min(order.length - 1, here + by)));
  useEffect(() => {
    if (active >= 0) box.current?.querySelector(`[data-n="${active}"]`)?.scrollIntoView({ block: "nearest" });
  }, [active]);
  /** How many tiles stand in a row, so that up and down do what the eye expects. */
  const across = () => {
    const tiles = [...(box.current?.querySelectorAll<HTMLElement>("[data-n]") ?? [])];
    const top = tiles[0]?.offsetTop;
    return Math.max(1, tiles.filter((t) => t.offsetTop === top).length);
  };
  if (!open) {
    return (
      <div className="mb-3">
        <button
          ref={face}
          type="button"
          data-field={name}
          aria-expanded="false"
          className="flex min-h-14 w-full items-center gap-3 rounded border border-base-300 bg-base-100 p-1.5 text-left hover:bg-base-200"
          onClick={() => setOpen(true)}
        >
          <Swatch tile={chosen} className="h-11 w-16" />
          <span className="min-w-0 flex-1 leading-tight">
            <span className="block text-secondary text-sm">{label}</span>
            <span className="block font-semibold">{chosen?.name ?? "Choose …"}</span>
            {chosen?.note && <span className="block text-secondary text-sm">{chosen.note}</span>}
          </span>
          <ChevronDown className="size-5 shrink-0" aria-hidden="true" />
        </button>
      </div>
    );
  }
  return (
    <div className="sheet wash mb-3 rounded-r p-3">
      <label htmlFor={id} className="mb-0.5 block font-medium">
        {label}
      </label>
      <div className="flex gap-2">
        <input
          id={id}
          data-field={name}
          // biome-ignore lint/a11y/noAutofocus: the painter has just asked for it
          autoFocus={eager || !always}
          role="combobox"
          aria-expanded="true"
          aria-controls={`${id}l`}
          aria-activedescendant={here >= 0 && order[here] ? `${id}-${order[here].id}` : undefined}
          className="input h-12 flex-1 text-base"
          placeholder={`Type or press: ${eg}`}
          value={query}
          onChange={(e) => {
            setQuery(e.target.value);
            setActive(-1);
          }}
          onKeyDown={(e) => {
            if (e.key === "Escape" && !always) shut(true);
            else if (e.key === "ArrowRight" && (here >= 0 || !query)) go(1);
            else if (e.key === "ArrowLeft" && here > 0) go(-1);
            else if (e.key === "ArrowDown") go(here < 0 ? 1 : across());
            else if (e.key === "ArrowUp") go(-across());
            else if (e.key === "Enter") pick(order[here]);
            else return;
            e.preventDefault();
            e.stopPropagation();
          }}
        />
        {!always && (
          <button type="button" className="btn btn-ghost h-12" onClick={() => shut(true)}>
            Close
          </button>
        )}
      </div>
      {hint && <p className="mt-1 text-secondary text-sm">{hint}</p>}
      <div
        ref={box}
        id={`${id}l`}
        role="listbox"
        aria-label={label}
        className={`mt-2 grid gap-2 overflow-y-auto p-0.5 ${always ? "" : "max-h-[min(24rem,50dvh)]"}`}
      >
        {order.length === 0 && (
          <p className="text-secondary">
            Nothing is called “{query.slice(0, 40)}”. Try what it looks like, or “not sure”.
          </p>
        )}
        {groups.map((g) => (
          // biome-ignore lint/a11y/useSemanticElements: options stand in groups
          <div key={g} role="group" aria-label={g || label}>
            {g && (
              <div
                className="mb-0.5 font-head font-semibold text-secondary text-sm first-letter:uppercase"
                aria-hidden="true"
              >
                {g}
              </div>
            )}
            <div className="grid grid-cols-[repeat(auto-fill,minmax(6.75rem,1fr))] gap-1.5">
              {found
                .filter((w) => (w.group ?? "") === g)
                .map((w) => {
                  const n = order.indexOf(w);
                  return (
                    // biome-ignore lint/a11y/useKeyWithClickEvents: the field above takes the keys
                    <div
                      key={w.id}
                      id={`${id}-${w.id}`}
                      data-n={n}
                      role="option"
                      tabIndex={-1}
                      aria-selected={w.id === value}
                      title={w.note}
                      className={`flex cursor-pointer flex-col overflow-hidden rounded border bg-base-100 ${n === here ? "border-accent outline outline-3 outline-accent" : w.id === value ? "border-primary" : "border-base-300 hover:border-accent"}`}
                      onClick={() => pick(w)}
                    >
                      <Swatch tile={w} className="h-9 w-full rounded-none border-0" />
                      <span className="break-words px-1.5 py-1 text-sm leading-tight">{w.name}</span>
                    </div>
                  );
                })}
            </div>
          </div>
        ))}
      </div>
    </div>
  );
}

/** Swatch is a piece of a material or a finish as the eye meets it. */
export function Swatch({ tile, className }: { tile: Tile | undefined; className: string }) {
  const id = useId().replaceAll(":", "");
  const film = tile && !tile.group && tile.id !== "none";
  return (
    <svg
      viewBox="0 0 64 44"
      preserveAspectRatio="xMidYMid slice"
      className={`shrink-0 rounded border border-base-300 ${className}`}
      aria-hidden="true"
    >
      <defs>
        <Texture id={id} mark={tile?.mark || "wood"} size={32} />
      </defs>
      <rect width="64" height="44" fill={tile?.colour ?? "#efe9dd"} />
      {tile && <rect width="64" height="44" fill={`url(#${id})`} fillOpacity={film ? 0.7 : 1} />}
      {film && tile.mirrors && <path d="M6 40 34 4h8L14 40zM20 40 48 4h3L23 40z" fill="#fff" fillOpacity="0.45" />}
      {!tile && <path d="M0 44 64 0" stroke="#8a8072" />}
    </svg>
  );
}
