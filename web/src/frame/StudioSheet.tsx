import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { answer, api, type Schemas, why } from "../api/client";
import { useVocabQuery } from "../piece/vocab";
import { Choice } from "../ui/Choice";
import { Dialog } from "../ui/Dialog";
import { NumberField, TextField } from "../ui/Field";
import { TempField } from "../ui/TempField";

type Settings = Schemas["Settings"];

/** StudioSheet takes what a studio chooses once for all its pieces. */
export function StudioSheet({ studio, onClose }: { studio: Schemas["Studio"]; onClose: () => void }) {
  const queries = useQueryClient();
  const { demo, air: _, ...settings } = studio;
  const [s, setS] = useState<Settings>(settings);
  const v = useVocabQuery().data;
  const save = useMutation({
    mutationFn: (body: Settings) => answer(api.PUT("/api/studio", { body })),
    onSuccess: (saved) => {
      queries.setQueryData(["studio"], saved);
      void queries.invalidateQueries({ queryKey: ["pieces"] });
      onClose();
    },
  });
  const u = s.units;
  return (
    <Dialog title="The studio" onClose={onClose}>
      {demo && <p className="mb-3 text-secondary">A demo studio: it is thrown away when the server stops.</p>}
      <form
        onSubmit={(e) => {
          e.preventDefault();
          save.mutate(s);
        }}
      >
        <TextField label="Name" value={s.name} max={200} onChange={(name) => setS({ ...s, name })} />
        <Choice
          label="Sizes and temperatures"
          words={[
            { id: "metric", name: "Metric: cm, m², °C, µm" },
            { id: "us", name: "US: inches, sq ft, °F, mil" },
          ]}
          value={u}
          hint="Piece files are metric whatever is chosen."
          onChange={(id) => setS({ ...s, units: id as Settings["units"] })}
        />
        <div className="grid grid-cols-2 gap-3">
          <TempField
            label="The workshop usually has"
            units={u}
            value={s.site.temp_c}
            required
            onChange={(c) => c !== undefined && setS({ ...s, site: { ...s.site, temp_c: c } })}
          />
          <NumberField
            label="and a humidity of"
            unit="%"
            value={s.site.rh_pct}
            min={0}
            max={100}
            required
            onChange={(h) => h !== undefined && setS({ ...s, site: { ...s.site, rh_pct: h } })}
          />
        </div>
        <NumberField
          label="Old paint is suspected of lead before"
          value={s.lead_year}
          min={1900}
          max={2100}
          whole
          hint="The year that local rules name. Empty: 1980."
          onChange={(lead_year) => setS({ ...s, lead_year })}
        />
        {v && (
          <Choice
            label="Plans are made by the way"
            words={[...(s.ways ?? []), ...v.ways.ways]}
            value={s.way || v.ways.ways[0]?.id}
            hint="Where no other is chosen."
            onChange={(way) => setS({ ...s, way })}
          />
        )}
        {save.isError && (
          <p role="alert" className="mb-2 text-error">
            Not saved: {why(save.error)}
          </p>
        )}
        <div className="mt-2 flex gap-2">
          <button type="submit" className="btn btn-primary" disabled={save.isPending}>
            Save
          </button>
          <button type="button" className="btn btn-ghost" onClick={onClose}>
            Leave it
          </button>
        </div>
      </form>
    </Dialog>
  );
}
