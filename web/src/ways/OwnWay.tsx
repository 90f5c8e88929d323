import { useRef, useState } from "react";
import type { Schemas } from "../api/client";
import { useSaveStudio } from "../api/studio";
import { useVocab } from "../api/vocab";
import { Check, Choice } from "../ui/Choice";
import { Dialog } from "../ui/Dialog";
import { TextField } from "../ui/Field";
import { named } from "../ui/named";
import { SaveBar } from "../ui/SaveBar";
import { Ticked } from "../ui/Ticked";

type Way = Schemas["Way"];
type Word = { id: string; name: string };
type ChoiceKey = "holds" | "sand" | "seal" | "flake_seal" | "resist" | "crackle" | "knots" | "method";
type AmountKey = "additive" | "water" | "cure";

const CHOICES: { key: ChoiceKey; label: string }[] = [
  { key: "holds", label: "What makes the paint hold" },
  { key: "sand", label: "Sanding an old surface" },
  { key: "seal", label: "What seals everyday paint" },
  { key: "flake_seal", label: "What seals flaking paint" },
  { key: "resist", label: "What makes paint flake in patches" },
  { key: "crackle", label: "What the coat cracks over" },
  { key: "knots", label: "Blocking knots" },
  { key: "method", label: "Applied with" },
];

const AMOUNTS: { key: AmountKey; label: string }[] = [
  { key: "additive", label: "Bonding additive in powder paint" },
  { key: "water", label: "Water to powder" },
  { key: "cure", label: "Reassembly" },
];

const CHECKS: { key: "next_day" | "scuff_first" | "no_smell" | "deep" | "additive_first"; label: string }[] = [
  { key: "next_day", label: "Every coat dries until the next day" },
  { key: "scuff_first", label: "Sand first, then wipe with solvent" },
  { key: "no_smell", label: "Nothing with solvent or alcohol" },
  { key: "deep", label: "Wear dry paint down to the material" },
  { key: "additive_first", label: "Additive in the first coat only" },
];

type Props = { studio: Schemas["Studio"]; id: string; onClose: () => void; onSaved: (id: string | undefined) => void };

/** OwnWay creates, changes or removes a way of working of the studio. */
export function OwnWay({ studio, id, onClose, onSaved }: Props) {
  const v = useVocab();
  const ways = studio.ways ?? [];
  const [w, setW] = useState<Way>(ways.find((x) => x.id === id) ?? { id: "", name: "" });
  const kept = useRef<string>(undefined); // id of the way that is being saved
  const save = useSaveStudio(() => onSaved(kept.current));
  const set = (x: Partial<Way>) => setW({ ...w, ...x });
  const keep = () => {
    const made = w.id || named(w.name, [...ways, ...v.ways.ways]);
    const own = { ...w, id: made, name: w.name.trim() };
    kept.current = made;
    save.mutate((now) => {
      const others = (now.ways ?? []).filter((x) => x.id !== made);
      const at = (now.ways ?? []).findIndex((x) => x.id === made);
      return { ...now, ways: at < 0 ? [...others, own] : others.toSpliced(at, 0, own) };
    });
  };
  const remove = () => {
    kept.current = undefined;
    save.mutate((now) => ({
      ...now,
      ways: (now.ways ?? []).filter((x) => x.id !== id),
      way: now.way === id ? undefined : now.way,
    }));
  };
  return (
    <Dialog title={id ? "Edit your way of working" : "New way of working"} wide onClose={onClose}>
      <form
        onSubmit={(e) => {
          e.preventDefault();
          if (w.name.trim()) keep();
        }}
      >
        <TextField label="Name" of="way.name" value={w.name} eager onChange={(name) => set({ name })} />
        <div className="grid gap-x-4 sm:grid-cols-2">
          {CHOICES.map((c) => (
            <Choice
              key={c.key}
              label={c.label}
              name={`way.${c.key}`}
              words={v.ways[c.key]}
              value={w[c.key] ?? v.ways[c.key][0]?.id}
              onChange={(x) => set({ [c.key]: x })}
            />
          ))}
          {AMOUNTS.map((a) => (
            <Choice
              key={a.key}
              label={a.label}
              name={`way.${a.key}`}
              words={[...v.ways[a.key], ...more(v.ways[a.key], w[a.key])]}
              value={String(w[a.key] ?? v.ways[a.key][0]?.id)}
              onChange={(x) => set({ [a.key]: Number(x) })}
            />
          ))}
        </div>
        <div className="grid gap-x-4 sm:grid-cols-2">
          {CHECKS.map((c) => (
            <Check key={c.key} label={c.label} on={!!w[c.key]} onChange={(on) => set({ [c.key]: on })} />
          ))}
        </div>
        <fieldset className="mb-2">
          <legend className="font-medium">Habits that this way leaves out</legend>
          <div className="grid sm:grid-cols-2">
            {v.kits.habits.map((h) => (
              <Check
                key={h.id}
                label={h.name}
                on={w.habits_off?.includes(h.id) ?? false}
                onChange={(on) => {
                  const rest = (w.habits_off ?? []).filter((x) => x !== h.id);
                  set({ habits_off: on ? [...rest, h.id] : rest });
                }}
              />
            ))}
          </div>
        </fieldset>
        <Ticked
          legend="Only these paints (none ticked: all)"
          products={v.products.filter((p) => p.role === "paint")}
          ids={w.paints ?? []}
          onChange={(paints) => set({ paints })}
        />
        <Check
          label="Only the products I have"
          name="way.shelf"
          on={!!w.shelf}
          onChange={(on) => set({ shelf: on ? v.products.map((p) => p.id) : undefined })}
        />
        {w.shelf && (
          <Ticked
            legend={`Products I have: ${w.shelf.length} of ${v.products.length}`}
            products={v.products}
            ids={w.shelf}
            onChange={(shelf) => set({ shelf })}
          />
        )}
        <SaveBar
          saving={save}
          ready={!!w.name.trim()}
          onClose={onClose}
          remove={id ? { name: "remove-way", says: "Remove it", run: remove } : undefined}
        />
      </form>
    </Dialog>
  );
}

/** more is the word for an amount without a word. */
function more(words: Word[], value: number | undefined): Word[] {
  const id = String(value);
  return value === undefined || words.some((x) => x.id === id) ? [] : [{ id, name: id }];
}
