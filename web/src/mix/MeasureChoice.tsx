import { why } from "../api/client";
import { type Settings, useSaveStudio, useStudio } from "../api/studio";
import { useVocab } from "../api/vocab";
import { NumberField } from "../ui/Field";

/** MeasureChoice is what the studio measures with when it mixes. */
export function MeasureChoice() {
  const v = useVocab();
  const studio = useStudio();
  const save = useSaveStudio(() => {});
  if (!studio) return null;
  const usual = studio.units === "us" ? "cups" : "ml";
  const measure = studio.measure || usual;
  return (
    <div className="flex flex-wrap items-start gap-x-3">
      <label className="mb-2 block">
        <span className="mb-0.5 block font-medium text-secondary text-sm">Measured in</span>
        <select
          className="select"
          data-field="settings.measure"
          value={measure}
          onChange={(e) => {
            const next = e.target.value as NonNullable<Settings["measure"]>;
            save.mutate((now) => ({ ...now, measure: next }));
          }}
        >
          {v.measures.map((m) => (
            <option key={m.id} value={m.id}>
              {m.name}
            </option>
          ))}
        </select>
      </label>
      {measure === "cups" && (
        <div className="w-44">
          <NumberField
            label="Your cup holds"
            of="settings.cup_ml"
            unit="ml"
            value={studio.cup_ml || (studio.units === "us" ? 237 : 250)}
            required
            onChange={(cup) => cup && save.mutate((now) => ({ ...now, cup_ml: cup }))}
          />
        </div>
      )}
      {save.isError && (
        <p role="alert" className="text-error">
          Not saved: {why(save.error)}
        </p>
      )}
    </div>
  );
}
