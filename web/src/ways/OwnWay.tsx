import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { answer, api, type Schemas } from "../api/client";
import { useVocab } from "../piece/vocab";
import { Check, Choice } from "../ui/Choice";
import { Dialog } from "../ui/Dialog";
import { TextField } from "../ui/Field";

type Way = Schemas["Way"];
type Word = { id: string; name: string };
type ChoiceKey = "holds" | "sand" | "seal" | "flake_seal" | "resist" | "crackle" | "knots" | "method";

const FIGURES: { key: "additive" | "water" | "cure"; label: string; words: Word[]; usual: number }[] = [
  {
    key: "additive",
    label: "Bonding additive in powder paint",
    words: [
      { id: "0.1", name: "A dash" },
      { id: "0.5", name: "Half as much as paint" },
      { id: "1", name: "As much as paint" },
    ],
    usual: 0.5,
  },
  {
    key: "water",
    label: "Water to powder",
    words: [
      { id: "0.8", name: "A little less than powder" },
      { id: "1", name: "Equal parts" },
      { id: "1.5", name: "Half as much again" },
      { id: "2", name: "Twice as much" },
    ],
    usual: 1,
  },
  {
    key: "cure",
    label: "Put back together",
    words: [
      { id: "0.3", name: "As soon as careful hands may" },
      { id: "0.6", name: "Once it is hard for every day" },
    ],
    usual: 0.3,
  },
];

const CHECKS: { key: "next_day" | "scuff_first" | "no_smell" | "deep" | "additive_first"; label: string }[] = [
  { key: "next_day", label: "Every coat waits until the next day" },
  { key: "scuff_first", label: "Sand first, wipe with solvent after" },
  { key: "no_smell", label: "Nothing carried in solvent" },
  { key: "deep", label: "Wear dry paint down to the material" },
  { key: "additive_first", label: "Additive in the first coat only" },
];
type Props = { studio: Schemas["Studio"]; id: string; onClose: () => void; onSaved: (id: string | undefined) => void };

/** OwnWay makes, changes or removes a way of working of the studio's own. */
export function OwnWay({ studio, id, onClose, onSaved }: Props) {
  const v = useVocab();
  const queries = useQueryClient();
  const ways = studio.ways ?? [];
  const [w, setW] = useState<Way>(ways.find((x) => x.id === id) ?? { id: "", name: "" });
  const save = useMutation({
    mutationFn: (next: { ways: Way[]; id?: string }) => {
      const { demo: _, air: __, ...settings } = studio;
      const way = next.ways.some((x) => x.id === settings.way) || !ways.some((x) => x.id === settings.way);
      return answer(
        api.PUT("/api/studio", { body: { ...settings, ways: next.ways, way: way ? settings.way : undefined } }),
      );
    },
    onSuccess: (saved, next) => {
      queries.setQueryData(["studio"], saved);
      onSaved(next.id);
    },
  });
  const set = (x: Partial<Way>) => setW({ ...w, ...x });
  const keep = () => {
    const made = w.id || named(w.name, [...ways, ...v.ways.ways]);
    const own = { ...w, id: made, name: w.name.trim() };
    save.mutate({ ways: id ? ways.map((x) => (x.id === id ? own : x)) : [...ways, own], id: made });
  };
  const q = v.ways;
  const methods = v.methods.filter((m) => ["brush", "roller", "spray"].includes(m.id));
  const choices: { key: ChoiceKey; label: string; words: Word[]; usual: string }[] = [
    { key: "holds", label: "What makes paint hold", words: q.holds, usual: "any" },
    { key: "sand", label: "Sanding an old surface", words: q.sand, usual: "by_need" },
    { key: "seal", label: "What closes an everyday paint", words: q.seal, usual: "by_wear" },
    { key: "flake_seal", label: "What closes a flaking paint", words: q.flake_seal, usual: "wax" },
    { key: "resist", label: "What makes paint flake in patches", words: q.resist, usual: "either" },
    { key: "crackle", label: "Cracks", words: q.crackle, usual: "medium" },
    { key: "knots", label: "Blocking knots", words: q.knots, usual: "either" },
    { key: "method", label: "Laid on by", words: methods, usual: "brush" },
  ];
  return (
    <Dialog title={id ? "Your way of working" : "A way of your own"} wide onClose={onClose}>
      <form
        onSubmit={(e) => {
          e.preventDefault();
          if (w.name.trim()) keep();
        }}
      >
        <TextField label="Name" value={w.name} max={60} eager onChange={(name) => set({ name })} />
        <div className="grid gap-x-4 sm:grid-cols-2">
          {choices.map((c) => (
            <Choice
              key={c.key}
              label={c.label}
              words={c.words}
              value={w[c.key] ?? c.usual}
              onChange={(x) => set({ [c.key]: x })}
            />
          ))}
          {FIGURES.map((f) => (
            <Choice
              key={f.key}
              label={f.label}
              words={[...f.words, ...more(f.words, w[f.key])]}
              value={String(w[f.key] ?? f.usual)}
              onChange={(x) => set({ [f.key]: Number(x) })}
            />
          ))}
        </div>
        <div className="grid gap-x-4 sm:grid-cols-2">
          {CHECKS.map((c) => (
            <Check key={c.key} label={c.label} on={!!w[c.key]} onChange={(on) => set({ [c.key]: on })} />
          ))}
        </div>
        <Ticked
          legend="Only these paints (none ticked: all)"
          products={v.products.filter((p) => p.role === "paint")}
          ids={w.paints ?? []}
          onChange={(paints) => set({ paints })}
        />
        <Check
          label="Only what is on my shelf"
          on={!!w.shelf}
          onChange={(on) => set({ shelf: on ? v.products.map((p) => p.id) : undefined })}
        />
        {w.shelf && (
          <Ticked
            legend={`On my shelf: ${w.shelf.length} of ${v.products.length}`}
            products={v.products}
            ids={w.shelf}
            onChange={(shelf) => set({ shelf })}
          />
        )}
        {save.isError && (
          <p role="alert" className="mb-2 text-error">
            Not saved: {save.error.message === "Failed to fetch" ? "the server does not answer." : save.error.message}
          </p>
        )}
        <div className="mt-2 flex gap-2">
          <button type="submit" className="btn btn-primary" disabled={save.isPending || !w.name.trim()}>
            Save
          </button>
          <button type="button" className="btn btn-ghost" onClick={onClose}>
            Leave it
          </button>
          <span className="flex-1" />
          {id && (
            <button
              type="button"
              className="btn btn-ghost text-error"
              onClick={() => save.mutate({ ways: ways.filter((x) => x.id !== id) })}
            >
              Remove it
            </button>
          )}
        </div>
      </form>
    </Dialog>
  );
}

type TickedProps = {
  legend: string;
  products: { id: string; name: string; role: string }[];
  ids: string[];
  onChange: (ids: string[]) => void;
};

/** Ticked are some of several products, gathered by what they do. */
function Ticked({ legend, products, ids, onChange }: TickedProps) {
  const roles = [...new Set(products.map((p) => p.role))];
  return (
    <fieldset className="mb-2">
      <legend className="font-medium">{legend}</legend>
      {roles.map((role) => (
        <div key={role} className="grid sm:grid-cols-2 lg:grid-cols-3">
          {roles.length > 1 && (
            <p className="col-span-full text-secondary text-sm">{role[0]?.toUpperCase() + role.slice(1)}</p>
          )}
          {products
            .filter((p) => p.role === role)
            .map((p) => (
              <Check
                key={p.id}
                label={p.name}
                on={ids.includes(p.id)}
                onChange={(on) => onChange(on ? [...ids, p.id] : ids.filter((x) => x !== p.id))}
              />
            ))}
        </div>
      ))}
    </fieldset>
  );
}

/** more is the word for a figure that none of the words stands for. */
function more(words: Word[], value: number | undefined): Word[] {
  const id = String(value);
  return value === undefined || words.some((x) => x.id === id) ? [] : [{ id, name: id }];
}

/** named is an id for a way of that name that no other has. */
function named(name: string, taken: { id: string }[]): string {
  const base =
    name
      .toLowerCase()
      .replace(/[^a-z0-9]+/g, "-")
      .replace(/^-+|-+$/g, "")
      .slice(0, 30) || "way";
  let id = base;
  for (let n = 2; taken.some((w) => w.id === id); n++) id = `${base}-${n}`;
  return id;
}
