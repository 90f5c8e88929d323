import type { Schemas } from "../api/client";
import { useVocab } from "../api/vocab";
import { NumberField } from "../ui/Field";
import { TempField } from "../ui/TempField";
import { coverUnit, perCover, temp, useUnits } from "../ui/units";

type Label = Schemas["Label"];
type Figure =
  | "touch_h"
  | "recoat_from_h"
  | "recoat_to_h"
  | "sand_h"
  | "cure_days"
  | "cover_m2_l"
  | "pot_life_h"
  | "ratio"
  | "thin_pct"
  | "min_c"
  | "max_c"
  | "max_rh_pct";
type List = "on" | "not_on" | "for" | "not_for" | "stops";
type Word = { id: string; name: string };

type Props = {
  product: Schemas["ProductWord"];
  label: Label | undefined;
  onChange: (l: Label | undefined) => void;
};

/** LabelFields are what the label of a can says in place of what is usual for its kind. */
export function LabelFields({ product, label, onChange }: Props) {
  const v = useVocab();
  const u = useUnits();
  const l = label ?? {};
  const set = (part: Partial<Label>) => {
    const next = Object.fromEntries(
      Object.entries({ ...l, ...part }).filter(([, x]) => x !== undefined && !(Array.isArray(x) && !x.length)),
    ) as Label;
    onChange(Object.keys(next).length ? next : undefined);
  };
  const mixed = product.powder || product.usual.ratio !== undefined;
  const figures = v.label.filter((f) => mixed || (f.id !== "ratio" && f.id !== "pot_life_h"));
  const said = Object.keys(l).length;
  return (
    <details className="mt-3 border-base-300 border-t pt-2" open={said > 0} data-label-fields>
      <summary className="min-h-11 py-2 font-semibold">
        What its label says{said > 0 && <span className="font-normal text-secondary"> ({said} entered)</span>}
      </summary>
      <p className="mb-2 text-secondary text-sm">
        Copy what differs. It takes the place of what is usual, wherever it counts: check, plan, waits and amounts.
        Empty: as is usual.
      </p>
      <div className="grid gap-x-3 sm:grid-cols-2 lg:grid-cols-3">
        {figures.map((f) => {
          const id = f.id as Figure;
          const usual = product.usual[f.id];
          if (f.id === "min_c" || f.id === "max_c") {
            return (
              <TempField
                key={f.id}
                label={f.name}
                units={u}
                of={`label.${f.id}`}
                name={`label.${f.id}`}
                value={l[id]}
                hint={usual === undefined ? "Usual: no limit" : `Usual: ${temp(usual, u)}`}
                onChange={(n) => set({ [id]: n })}
              />
            );
          }
          const cover = f.id === "cover_m2_l";
          const times = cover ? perCover(u) : 1;
          const unit = cover ? coverUnit(u) : f.unit;
          return (
            <NumberField
              key={f.id}
              label={f.name}
              of={`label.${f.id}`}
              unit={unit}
              times={times}
              value={l[id]}
              hint={
                usual === undefined
                  ? "Usual: no limit"
                  : `Usual: ${Number((usual * times).toFixed(times === 1 ? 3 : 0))} ${unit}`
              }
              onChange={(n) => set({ [id]: n })}
            />
          );
        })}
      </div>
      <Several
        legend="Suitable for these surfaces"
        name="on"
        words={v.families}
        ids={l.on}
        onChange={(on) => set({ on })}
      />
      <Several
        legend="Not for these surfaces"
        name="not_on"
        words={v.families}
        ids={l.not_on}
        onChange={(not_on) => set({ not_on })}
      />
      <div className="grid gap-x-6 sm:grid-cols-2">
        <Several
          legend="Suitable for these uses"
          name="for"
          words={v.uses}
          ids={l.for}
          onChange={(x) => set({ for: x })}
        />
        <Several
          legend="Not for these uses"
          name="not_for"
          words={v.uses}
          ids={l.not_for}
          onChange={(not_for) => set({ not_for })}
        />
      </div>
      <Several
        legend="Blocks these stains"
        name="stops"
        words={v.bleeders}
        ids={l.stops}
        onChange={(stops) => set({ stops })}
      />
    </details>
  );
}

type SeveralProps = {
  legend: string;
  name: List;
  words: Word[];
  ids: string[] | undefined;
  onChange: (ids: string[] | undefined) => void;
};

/** Several shows the chosen words as buttons that take them out again, and a list to add one from. */
function Several({ legend, name, words, ids = [], onChange }: SeveralProps) {
  const left = words.filter((w) => !ids.includes(w.id));
  return (
    <fieldset className="mb-2" data-several={name}>
      <legend className="mb-0.5 font-medium text-secondary text-sm">{legend}</legend>
      <div className="flex flex-wrap items-center gap-1">
        {ids.map((id) => (
          <button
            key={id}
            type="button"
            className="btn btn-sm border-base-300 bg-base-200 font-normal"
            aria-label={`Remove ${words.find((w) => w.id === id)?.name ?? id}`}
            onClick={() => onChange(ids.filter((x) => x !== id))}
          >
            {words.find((w) => w.id === id)?.name ?? id} ×
          </button>
        ))}
        <select
          className="select w-44"
          aria-label={`Add: ${legend}`}
          data-field={`label.${name}`}
          value=""
          onChange={(e) => e.target.value && onChange([...ids, e.target.value])}
        >
          <option value="">Add…</option>
          {left.map((w) => (
            <option key={w.id} value={w.id}>
              {w.name}
            </option>
          ))}
        </select>
      </div>
    </fieldset>
  );
}
