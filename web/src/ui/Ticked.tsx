import { Check } from "./Choice";

type Props = {
  legend: string;
  products: { id: string; name: string; role: string }[];
  ids: string[];
  onChange: (ids: string[]) => void;
};

/** Ticked are several products with checkboxes, grouped by role. */
export function Ticked({ legend, products, ids, onChange }: Props) {
  const roles = [...new Set(products.map((p) => p.role))];
  return (
    <fieldset className="mb-2" data-ticked={legend}>
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
