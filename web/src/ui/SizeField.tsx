import { useLimit } from "../api/vocab";
import { NumberField } from "./Field";
import { longKept, longShown, longUnit, smallKept, smallShown, smallUnit, useUnits } from "./units";

type Props = {
  label: string;
  value: number | undefined; // in millimetres, or long ones in centimetres
  long?: boolean;
  of: string; // the field with its limits
  above?: boolean; // zero is not allowed
  hint?: string;
  onChange: (v: number | undefined) => void;
};

/** SizeField takes a small size in millimetres, or a length in centimetres; in US units both in inches. */
export function SizeField({ label, value, long, of, above, hint, onChange }: Props) {
  const u = useUnits();
  const { most } = useLimit(of);
  const [shown, kept, unit] = long ? [longShown, longKept, longUnit] : [smallShown, smallKept, smallUnit];
  return (
    <NumberField
      key={u}
      label={label}
      unit={unit(u)}
      value={value === undefined ? undefined : shown(value, u)}
      of={of}
      max={shown(most ?? 0, u)}
      above={above}
      hint={hint}
      onChange={(v) => onChange(v === undefined ? undefined : kept(v, u))}
    />
  );
}
