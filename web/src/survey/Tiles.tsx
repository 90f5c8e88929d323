import { ChevronDown } from "lucide-react";
import { memo, useId, useState } from "react";
import { Texture } from "../section/texture";
import { Chooser, type Option } from "../ui/Chooser";
import { focusOn, useName } from "../ui/focus";

export type Tile = {
  id: string;
  name: string;
  note?: string;
  also?: string;
  group?: string;
  colour?: string;
  mark?: string;
  mirrors?: boolean;
  less?: boolean; // uncommon here
};

type Props = {
  label: string;
  words: Tile[];
  value: string | undefined;
  name: string; // the field an answer may ask for
  eg: string; // an example to type
  hint?: string;
  open?: boolean; // always shows all its tiles
  begin?: boolean; // and this one only until the first is chosen
  eager?: boolean; // gets the focus at once
  onChange: (id: string) => void;
};

/** Tiles picks a material or a finish by its picture, its name or a trade name. Closed it shows what is chosen. */
export const Tiles = memo(function Tiles(p: Props) {
  const { label, words, value, name, eg, hint, open: always, begin, eager, onChange } = p;
  const [open, setOpen] = useState(!!always || !!begin);
  const face = useName<HTMLButtonElement>(`field ${name}`);
  const chosen = words.find((w) => w.id === value);
  const shut = () => {
    setOpen(!!always);
    focusOn(`field ${name}`);
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
      <Chooser<Tile & Option>
        label={label}
        headed
        name={name}
        placeholder={`Type or choose: ${eg}`}
        hint={hint}
        options={words.map((w) => ({ ...w, group: w.group ?? "", finds: w.also }))}
        grid={() => "grid-cols-[repeat(auto-fill,minmax(6.75rem,1fr))] gap-1.5"}
        tall={always ? "" : "max-h-[min(24rem,50dvh)]"}
        chosen={value ?? ""}
        look={(w, here) =>
          `flex cursor-pointer flex-col overflow-hidden rounded border bg-base-100 ${here ? "border-accent outline outline-3 outline-accent" : w.id === value ? "border-primary" : "border-base-300 hover:border-accent"}`
        }
        option={(w) => (
          <>
            <Swatch tile={w} className="h-9 w-full rounded-none border-0" />
            <span className="break-words px-1.5 py-1 text-sm leading-tight">{w.name}</span>
          </>
        )}
        nothing={(q) => `Nothing is called “${q}”. Try what it looks like, or “not sure”.`}
        eager={eager || !always}
        onPick={(w) => {
          onChange(w.id);
          shut();
        }}
        onShut={always ? undefined : shut}
      />
    </div>
  );
});

/** Swatch is a sample of a material or a finish. */
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
