import { Minus, PaintBucket, Plus, Save, X } from "lucide-react";
import { useState } from "react";
import { type Schemas, type ShelfCan, why } from "../api/client";
import { useVocab } from "../api/vocab";
import { CanEditor } from "../shelf/CanEditor";
import { today } from "../ui/clock";
import { NumberField, TextField } from "../ui/Field";
import { perLitre, useUnits, volumeUnit } from "../ui/units";
import { Beside, Swatch } from "./Swatch";
import { type Blend, type Part, type SavedBlend, useBlend, useSaveBlend } from "./useColour";

type Props = {
  draft: Blend;
  saved: { id: string; rev: number } | undefined; // the recipe that it came from
  want: string;
  cans: ShelfCan[];
  palettes: Schemas["Palette"][];
  onDraft: (b: Blend) => void;
  onSaved: (b: SavedBlend) => void;
  onClear: () => void;
};

const MOST = 5; // paints of a blend
const SAME = "the same to the eye"; // as the server says it

/** BlendEditor mixes parts of paints: the result beside the wanted colour, and what to change. */
export function BlendEditor({ draft, saved, want, cans, palettes, onDraft, onSaved, onClear }: Props) {
  const v = useVocab();
  const u = useUnits();
  const [litres, setLitres] = useState<number>();
  const [other, setOther] = useState("");
  const [tin, setTin] = useState(false);
  const parts = draft.parts;
  const colour = want || draft.colour;
  const q = useBlend({ ...draft, colour }, { litres, other });
  const save = useSaveBlend(onSaved);
  const set = (next: Part[]) => onDraft({ ...draft, colour, parts: next });
  const step = (i: number, by: number) =>
    set(parts.map((p, k) => (k === i ? { ...p, parts: Math.max(0, p.parts + by) } : p)));
  const paints = choices(cans, palettes, v.products, parts[0]?.kind);
  const others = paints.filter((p) => !parts.some((x) => x.colour === p.part.colour));
  const result = parts.some((p) => p.parts > 0) && !q.isError ? q.data : undefined;
  const add = (key: string) => {
    const found = paints.find((p) => p.key === key);
    if (found) set([...parts, { ...found.part, parts: 1 }]);
  };
  // A tin of a recipe was mixed: the recipe keeps the day.
  const mixed = () => {
    const blend = { ...draft, colour: colour || undefined, made: today() };
    if (saved) save.mutate({ blend, rev: saved.rev });
    else onDraft(blend);
  };
  return (
    <section aria-label="Blend" data-blend-parts={parts.length}>
      <div className="flex flex-wrap items-center gap-2">
        <h2 className="font-semibold text-primary text-xl">{draft.name || "Your blend"}</h2>
        <span className="flex-1" />
        {parts.length > 0 && (
          <button type="button" data-do="clear-blend" className="btn btn-ghost" onClick={onClear}>
            <X className="size-4" aria-hidden="true" /> Start anew
          </button>
        )}
      </div>
      {parts.length === 0 && (
        <p className="mt-1 text-secondary">Take one of the nearest blends, open a recipe, or add a first paint.</p>
      )}
      <ul className="mt-2 grid gap-1">
        {parts.map((p, i) => (
          <li key={`${p.kind}${p.colour}${p.can ?? ""}`} className="flex items-center gap-2" data-part={i}>
            <Swatch colour={p.colour} size={36} />
            <span className="min-w-0 flex-1 truncate">
              <bdi>{p.name || p.colour}</bdi>
            </span>
            <button
              type="button"
              className="btn btn-square"
              aria-label={`One part less of ${p.name}`}
              data-do="less"
              onClick={() => step(i, -1)}
            >
              <Minus className="size-4" aria-hidden="true" />
            </button>
            <output className="w-14 text-center tabular-nums" data-parts>
              {p.parts} {p.parts === 1 ? "part" : "parts"}
            </output>
            <button
              type="button"
              className="btn btn-square"
              aria-label={`One part more of ${p.name}`}
              data-do="more"
              onClick={() => step(i, 1)}
            >
              <Plus className="size-4" aria-hidden="true" />
            </button>
            <button
              type="button"
              className="btn btn-ghost btn-square"
              aria-label={`Remove ${p.name}`}
              data-do="drop"
              onClick={() => set(parts.filter((_, k) => k !== i))}
            >
              <X className="size-4" aria-hidden="true" />
            </button>
          </li>
        ))}
      </ul>
      {parts.length < MOST && (
        <select
          className="select mt-2 w-full sm:w-80"
          aria-label="Add a paint"
          data-field="add-paint"
          value=""
          onChange={(e) => add(e.target.value)}
        >
          <option value="">Add a paint…</option>
          {[...new Set(paints.map((p) => p.group))].map((g) => (
            <optgroup key={g} label={g}>
              {paints
                .filter(
                  (p) => p.group === g && !parts.some((x) => x.colour === p.part.colour && x.kind === p.part.kind),
                )
                .map((p) => (
                  <option key={p.key} value={p.key}>
                    {p.part.name}
                  </option>
                ))}
            </optgroup>
          ))}
        </select>
      )}
      {q.isError && (
        <p role="alert" className="mt-2 text-error">
          {why(q.error)}
        </p>
      )}
      {result && (
        <div className={`mt-3 ${q.isPlaceholderData ? "opacity-60" : ""}`} data-result={result.colour}>
          <Beside left={result.colour} right={colour || result.colour} />
          <div className="flex justify-between text-secondary text-sm">
            <span>
              the blend: {result.name}, {result.colour}
            </span>
            {colour && <span>wanted</span>}
          </div>
          {result.against && (
            <p className="font-medium" data-against>
              {result.against === SAME ? `It is ${SAME}.` : `It is ${result.against} than the colour you want.`}
            </p>
          )}
          <div className="mt-2 flex flex-wrap gap-1">
            {result.nudges.map((n) => (
              <button
                key={n.id}
                type="button"
                className="btn"
                data-nudge={n.id}
                title={n.says}
                onClick={() => set(n.parts.filter((p) => p.parts > 0))}
              >
                <Swatch colour={n.colour} size={18} /> {n.name}
              </button>
            ))}
          </div>
          <div className="mt-3 grid gap-x-3 sm:grid-cols-2">
            <NumberField
              label="How much of it"
              name="litres"
              unit={volumeUnit(u)}
              times={perLitre(u)}
              min={0}
              max={200 * perLitre(u)}
              value={litres}
              onChange={setLitres}
            />
            {others.length > 0 && (
              <label className="mb-2 block">
                <span className="mb-0.5 block font-medium text-secondary text-sm">
                  Topped up half-way with another paint
                </span>
                <select
                  className="select w-full"
                  data-field="top-up"
                  value={other}
                  onChange={(e) => setOther(e.target.value)}
                >
                  <option value="">no</option>
                  {others.map((p) => (
                    <option key={p.key} value={p.part.colour}>
                      {p.part.name}
                    </option>
                  ))}
                </select>
              </label>
            )}
          </div>
          {result.amounts && (
            <table className="w-full text-left" data-amounts>
              <tbody>
                {result.amounts.map((a) => (
                  <tr key={a.name} className="border-base-300 border-b">
                    <td className="py-1">
                      <bdi>{a.name}</bdi>
                      {a.missing && <span className="block text-sm text-warning">{a.missing}</span>}
                    </td>
                    <td className="text-right tabular-nums">{a.says}</td>
                  </tr>
                ))}
              </tbody>
            </table>
          )}
          {result.top_up && (
            <p className="mt-2 flex items-center gap-2" data-top-up>
              <Swatch colour={result.top_up_colour} size={28} /> {result.top_up}
            </p>
          )}
          <div className="mt-3 flex flex-wrap items-end gap-2">
            <div className="min-w-40 flex-1">
              <TextField
                label="Name of the recipe"
                of="blend.name"
                value={draft.name ?? ""}
                onChange={(name) => onDraft({ ...draft, name })}
              />
            </div>
            <button
              type="button"
              data-do="save-blend"
              className="btn btn-primary mb-2"
              disabled={!draft.name?.trim() || save.isPending}
              onClick={() => save.mutate({ blend: { ...draft, colour: colour || undefined }, rev: saved?.rev })}
            >
              <Save className="size-4" aria-hidden="true" /> {saved ? "Save the recipe" : "Save as a recipe"}
            </button>
            <button type="button" data-do="make-tin" className="btn mb-2" onClick={() => setTin(true)}>
              <PaintBucket className="size-4" aria-hidden="true" /> Put a tin of it on the shelf
            </button>
          </div>
          {save.isError && (
            <p role="alert" className="text-error">
              Not saved: {why(save.error)}
            </p>
          )}
          <p className="text-secondary text-sm">{result.caution}</p>
          {tin && (
            <CanEditor
              can={undefined}
              start={{
                kind: parts[0]?.kind ?? "",
                name: draft.name || undefined,
                colour: result.colour,
                size_l: litres || 0.5,
                mixed: today(),
                opened: today(),
                mixed_from: parts
                  .filter((p) => p.parts > 0)
                  .map((p) => `${p.parts} ${p.parts === 1 ? "part" : "parts"} of ${p.name || p.colour}`),
              }}
              onClose={() => setTin(false)}
              onSaved={mixed}
              onRemoved={() => undefined}
            />
          )}
        </div>
      )}
    </section>
  );
}

type Paint = { key: string; group: string; part: Part };

/** choices are the paints that can be added: those of the shelf of the same kind, then those of the palettes. */
function choices(
  cans: ShelfCan[],
  palettes: Schemas["Palette"][],
  products: Schemas["ProductWord"][],
  kind: string | undefined,
): Paint[] {
  const blends = new Set(products.filter((p) => p.blends).map((p) => p.id));
  const own = cans
    .filter((c) => c.colour && blends.has(c.kind) && (!kind || c.kind === kind) && c.left !== "empty")
    .map((c) => ({
      key: c.id,
      group: "On the shelf",
      part: {
        kind: c.kind,
        colour: c.colour ?? "",
        parts: 0,
        can: c.id,
        name: c.title,
        cover_m2_l: c.label?.cover_m2_l,
      },
    }));
  const others = palettes.flatMap((p) =>
    p.swatches.slice(0, 200).map((s) => ({
      key: `${p.id}/${s.name}/${s.colour}`,
      group: `Palette ${p.name}`,
      part: { kind: kind ?? "paint_acrylic", colour: s.colour, parts: 0, name: s.name },
    })),
  );
  return [...own, ...others];
}
