import { Field } from "./Field";
import { useName } from "./focus";
import { useOptimisticValue } from "./optimistic";

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
  const ref = useName<HTMLSelectElement>(name && `field ${name}`);
  const [shown, change] = useOptimisticValue(value ?? "", onChange);
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
          ref={ref}
          id={id}
          data-field={name}
          className="select w-full overflow-clip pr-8 [overflow-clip-margin:content-box]"
          value={shown}
          onChange={(e) => change(e.target.value)}
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

type BoxProps = {
  on: boolean;
  label?: string;
  name?: string;
  tick?: number;
  className?: string;
  onChange: (on: boolean) => void;
};

/** Box is a checkbox. */
export function Box({ on, label, name, tick, className = "", onChange }: BoxProps) {
  const ref = useName<HTMLInputElement>(name && `field ${name}`);
  const [shown, change] = useOptimisticValue(on, onChange);
  return (
    <input
      ref={ref}
      type="checkbox"
      data-field={name}
      data-tick={tick}
      aria-label={label}
      className={`checkbox checkbox-primary ${className}`}
      checked={shown}
      onChange={(e) => change(e.target.checked)}
    />
  );
}

type CheckProps = { label: string; on: boolean; name?: string; onChange: (on: boolean) => void };

/** Check is a checkbox with a label. */
export function Check({ label, on, name, onChange }: CheckProps) {
  return (
    <label className="mb-2 flex min-h-10 cursor-pointer items-center gap-2">
      <Box on={on} name={name} onChange={onChange} />
      {label}
    </label>
  );
}
