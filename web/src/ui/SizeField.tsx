import { NumberField } from "./Field";
import { longKept, longShown, longUnit, smallKept, smallShown, smallUnit, useUnits } from "./units";

type Props = {
  label: string;
  value: number | undefined; // in millimetres, or of what is long in centimetres
  long?: boolean;
  max: number;
  above?: boolean; // nought is too little
  hint?: string;
  onChange: (v: number | undefined) => void;
};

/** SizeField takes a small size in millimetres, or a length in centimetres; in US units both in inches. */
export function SizeField({ label, value, long, max, above, hint, onChange }: Props) {
  const u = useUnits();
  const [shown, kept, unit] = long ? [longShown, longKept, longUnit] : [smallShown, smallKept, smallUnit];
  return (
    <NumberField
      key={u}
      label={label}
      unit={unit(u)}
      value={value === undefined ? undefined : shown(value, u)}
      min={0}
      max={shown(max, u)}
      above={above}
      hint={hint}
      onChange={(v) => onChange(v === undefined ? undefined : kept(v, u))}
    />
  );
}
