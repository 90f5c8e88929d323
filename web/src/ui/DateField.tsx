import { Field } from "./Field";

type Props = {
  label: string;
  name: string;
  value: string | undefined;
  error?: string;
  latest?: string; // the last day one can pick
  onChange: (d: string | undefined) => void;
};

/** DateField takes a day as files write it. */
export function DateField({ label, name, value, error, latest, onChange }: Props) {
  return (
    <Field label={label} error={error}>
      {(id) => (
        <input
          id={id}
          type="date"
          data-field={name}
          data-wrong={error ? "" : undefined}
          className={`input w-full ${error ? "input-error" : ""}`}
          value={value ?? ""}
          max={latest}
          onChange={(e) => onChange(e.target.value || undefined)}
        />
      )}
    </Field>
  );
}
