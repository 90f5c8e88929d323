import { useState } from "react";
import { type Schemas, why } from "../api/client";
import { type Settings, useSaveStudio } from "../api/studio";
import { useVocab, useVocabQuery, VocabContext } from "../api/vocab";
import { same } from "../session/history";
import { Choice } from "../ui/Choice";
import { Dialog } from "../ui/Dialog";
import { NumberField, TextField } from "../ui/Field";
import { TempField } from "../ui/TempField";

type Props = { studio: Schemas["Studio"]; onClose: () => void };

/** StudioSheet edits the settings of a studio. */
export default function StudioSheet(p: Props) {
  const v = useVocabQuery();
  if (v.isError) {
    return (
      <Dialog title="Studio settings" onClose={p.onClose}>
        <p role="alert">The settings cannot be changed now: {why(v.error)}</p>
      </Dialog>
    );
  }
  if (!v.data) return null;
  return (
    <VocabContext value={v.data}>
      <Sheet {...p} />
    </VocabContext>
  );
}

function Sheet({ studio, onClose }: Props) {
  const { demo, air: _, read_only: __, rev: ___, device: ____, ...settings } = studio;
  const [s, setS] = useState<Settings>(settings);
  const v = useVocab();
  const save = useSaveStudio(onClose);
  const u = s.units;
  return (
    <Dialog title="Studio settings" onClose={onClose}>
      {demo && <p className="mb-3 text-secondary">This is a demo studio: its data is deleted when the server stops.</p>}
      <form
        onSubmit={(e) => {
          e.preventDefault();
          // Only what was changed here is saved; another tab's changes stay.
          save.mutate((now) => ({ ...now, ...changed(settings, s) }));
        }}
      >
        <TextField label="Name" of="settings.name" value={s.name} onChange={(name) => setS({ ...s, name })} />
        <Choice
          label="Units"
          name="settings.units"
          words={[
            { id: "metric", name: "Metric: cm, m², °C, µm" },
            { id: "us", name: "US: inches, sq ft, °F, mil" },
          ]}
          value={u}
          hint="Piece files are always metric."
          onChange={(id) => setS({ ...s, units: id as Settings["units"] })}
        />
        <div className="grid grid-cols-2 gap-3">
          <TempField
            label="Usual temperature"
            name="site.temp_c"
            units={u}
            value={s.site.temp_c}
            required
            onChange={(c) => c !== undefined && setS({ ...s, site: { ...s.site, temp_c: c } })}
          />
          <NumberField
            label="Usual humidity"
            of="site.rh_pct"
            unit="%"
            value={s.site.rh_pct}
            required
            onChange={(h) => h !== undefined && setS({ ...s, site: { ...s.site, rh_pct: h } })}
          />
        </div>
        <NumberField
          label="Suspect lead in old paint before"
          of="settings.lead_year"
          value={s.lead_year}
          onChange={(lead_year) => setS({ ...s, lead_year })}
        />
        <Choice
          label="Default way of working"
          name="settings.way"
          words={[...(s.ways ?? []), ...v.ways.ways]}
          value={s.way || v.ways.ways[0]?.id}
          hint="For plans where no other is chosen."
          onChange={(way) => setS({ ...s, way })}
        />
        {save.isError && (
          <p role="alert" className="mb-2 text-error">
            Not saved: {why(save.error)}
          </p>
        )}
        <div className="mt-2 flex gap-2">
          <button type="submit" className="btn btn-primary" disabled={save.isPending}>
            Save
          </button>
          <button data-do="leave" type="button" className="btn btn-ghost" onClick={onClose}>
            Cancel
          </button>
          <span className="flex-1" />
          <a
            className="link self-center text-secondary text-sm"
            href="/licences.txt"
            target="_blank"
            rel="noreferrer"
            data-do="licences"
          >
            Licences
          </a>
        </div>
      </form>
    </Dialog>
  );
}

/** changed are the settings that differ from what they were. */
function changed(was: Settings, is: Settings): Partial<Settings> {
  const keys = Object.keys({ ...was, ...is }) as (keyof Settings)[];
  return Object.fromEntries(keys.filter((k) => !same(was[k], is[k])).map((k) => [k, is[k]]));
}
