import { useLimit } from "../api/vocab";
import { NumberField } from "./Field";
import { tempKept, tempShown, tempUnit, type Units } from "./units";

type Props = {
  label: string;
  units: Units;
  of?: string; // the field with its limits, if not the workshop's
  value: number | undefined; // in degrees Celsius
  hint?: string;
  required?: boolean;
  name?: string;
  onChange: (c: number | undefined) => void;
};

/** TempField takes a temperature in the studio's units and gives it in degrees Celsius. */
export function TempField({ units: u, of = "site.temp_c", value, onChange, ...field }: Props) {
  const { least, most } = useLimit(of);
  return (
    <NumberField
      key={u}
      {...field}
      unit={tempUnit(u)}
      value={value === undefined ? undefined : tempShown(value, u)}
      min={tempShown(least ?? 0, u)}
      max={tempShown(most ?? 0, u)}
      onChange={(t) => onChange(t === undefined ? undefined : tempKept(t, u))}
    />
  );
}
