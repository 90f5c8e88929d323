import { useLimit } from "../api/vocab";
import { NumberField } from "./Field";
import { tempKept, tempShown, tempUnit, type Units } from "./units";

type Props = {
  label: string;
  units: Units;
  value: number | undefined; // in degrees Celsius
  hint?: string;
  required?: boolean;
  name?: string;
  onChange: (c: number | undefined) => void;
};

/** TempField takes a workshop's temperature in the studio's units and gives it in degrees Celsius. */
export function TempField({ units: u, value, onChange, ...field }: Props) {
  const { least, most } = useLimit("site.temp_c");
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
