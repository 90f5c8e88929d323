import { Field } from "./Field";

type Word = { id: string; name: string; group?: string };

type Props = {
  label: string;
  words: Word[]; // gathered by their groups, where they have any
  value: string | undefined;
  none?: string; // what an empty choice means; without it there is none
  hint?: string;
  name?: string;
  onChange: (id: string) => void;
};

/** Choice picks one of many ids by its name. */
export function Choice({ label, words, value, none, hint, name, onChange }: Props) {
  const groups = [...new Set(words.map((w) => w.group ?? ""))];
  const options = (of: Word[]) =>
    of.map((w) => (
      <option key={w.id} value={w.id}>
        {w.name}
      </option>
    ));
  return (
    <Field label={label} hint={hint}>
      {(id) => (
        <select
          id={id}
          data-field={name}
          className="select w-full truncate pr-8"
          value={value ?? ""}
          onChange={(e) => onChange(e.target.value)}
        >
          {none !== undefined && <option value="">{none}</option>}
          {groups.length === 1
            ? options(words)
            : groups.map((g) => (
                <optgroup key={g} label={g[0]?.toUpperCase() + g.slice(1)}>
                  {options(words.filter((w) => w.group === g))}
                </optgroup>
              ))}
        </select>
      )}
    </Field>
  );
}

/** Check is one thing that is so or not. */
export function Check({ label, on, onChange }: { label: string; on: boolean; onChange: (on: boolean) => void }) {
  return (
    <label className="mb-2 flex min-h-10 cursor-pointer items-center gap-2">
      <input
        type="checkbox"
        className="checkbox checkbox-primary"
        checked={on}
        onChange={(e) => onChange(e.target.checked)}
      />
      {label}
    </label>
  );
}
