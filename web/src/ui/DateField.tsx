import { Field } from "./Field";

type Props = {
  label: string;
  value: string | undefined;
  error?: string;
  latest?: string; // the last day one can pick
  onChange: (d: string | undefined) => void;
};

/** DateField takes a day as files write it. */
export function DateField({ label, value, error, latest, onChange }: Props) {
  return (
    <Field label={label} error={error}>
      {(id) => (
        <input
          id={id}
          type="date"
          className={`input w-full ${error ? "input-error" : ""}`}
          value={value ?? ""}
          max={latest}
          onChange={(e) => onChange(e.target.value || undefined)}
        />
      )}
    </Field>
  );
}
