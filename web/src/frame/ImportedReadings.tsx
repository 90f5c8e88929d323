import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { Pencil, Trash2 } from "lucide-react";
import { useState } from "react";
import { answer, api, removed, type Schemas, why } from "../api/client";
import { NumberField } from "../ui/Field";
import { RemoveDialog } from "../ui/RemoveDialog";
import { TempField } from "../ui/TempField";
import { clock, count, tempShown, tempUnit, useUnits } from "../ui/units";

type Source = Schemas["Source"];
type Reading = Schemas["KeptReading"];

const PAGE = 100; // readings that the server sends at once

/** ImportedReadings lists the files of imported readings, to look at, correct and remove. */
export function ImportedReadings() {
  const u = useUnits();
  const sources = useQuery({
    queryKey: ["sources"],
    queryFn: ({ signal }) => answer(api.GET("/api/instruments/sources", { signal })),
  });
  const [shown, setShown] = useState<string>();
  const [asked, setAsked] = useState<Source>();
  const [gone, setGone] = useState<Reading>(); // its file may be gone with it
  const changed = useChanged();
  const back = useMutation({
    mutationFn: (r: Reading) => put(r),
    onSuccess: () => {
      setGone(undefined);
      changed();
    },
  });
  const remove = useMutation({
    mutationFn: (source: string) => removed(api.DELETE("/api/instruments/sources", { params: { query: { source } } })),
    onSuccess: () => {
      setAsked(undefined);
      changed();
    },
  });
  if (sources.error) {
    return (
      <p role="alert" className="mt-1 text-warning">
        The imported readings could not be loaded: {why(sources.error)}
      </p>
    );
  }
  if (!sources.data?.length && !gone) return null;
  return (
    <section className="mt-3 border-base-300 border-t pt-2">
      <h3 className="font-semibold">Imported readings</h3>
      {gone && (
        <p role="status" className="flex flex-wrap items-center gap-2">
          The reading of {clock(gone.at, u)} was removed.
          <button data-do="put-back" type="button" className="btn btn-sm" onClick={() => back.mutate(gone)}>
            Put it back
          </button>
        </p>
      )}
      {back.error && (
        <p role="alert" className="text-error">
          {why(back.error)}
        </p>
      )}
      <ul>
        {sources.data?.map((s) => (
          <li key={s.name} data-source={s.name} className="border-base-300 border-b py-1 last:border-b-0">
            <div className="flex flex-wrap items-center gap-x-3 gap-y-1">
              <span className="min-w-0 flex-1 leading-tight">
                <bdi className="break-all">{s.name}</bdi>
                <span className="block text-secondary text-sm">
                  {count(s.count, "reading", "readings")}, {clock(s.from, u)}
                  {s.to !== s.from && ` to ${clock(s.to, u)}`}
                </span>
              </span>
              <button
                data-do="show-readings"
                type="button"
                className="btn border-base-300 bg-base-100 font-normal"
                aria-expanded={shown === s.name}
                onClick={() => setShown(shown === s.name ? undefined : s.name)}
              >
                {shown === s.name ? "Hide" : "Show"}
              </button>
              <button
                data-do="remove-source"
                type="button"
                className="btn border-base-300 bg-base-100 font-normal"
                onClick={() => setAsked(s)}
              >
                <Trash2 className="size-4" aria-hidden="true" /> Remove all
              </button>
            </div>
            {shown === s.name && <Readings source={s.name} onRemoved={setGone} />}
          </li>
        ))}
      </ul>
      {asked && (
        <RemoveDialog
          title="Remove these readings?"
          what="them"
          removal={{ ...remove, mutate: () => remove.mutate(asked.name) }}
          onClose={() => setAsked(undefined)}
        >
          {count(asked.count, "reading", "readings")} of <bdi className="break-all">{asked.name}</bdi>. Pieces keep the
          values that were taken from them.
        </RemoveDialog>
      )}
    </section>
  );
}

/** useChanged has everything that follows from imported readings loaded again. */
function useChanged() {
  const queries = useQueryClient();
  return () => {
    for (const key of ["sources", "readings", "course"]) void queries.invalidateQueries({ queryKey: [key] });
  };
}

/** Readings shows the readings of a source, the newest first. */
function Readings({ source, onRemoved }: { source: string; onRemoved: (r: Reading) => void }) {
  const u = useUnits();
  const [skip, setSkip] = useState(0);
  const [open, setOpen] = useState<number>();
  const changed = useChanged();
  const page = useQuery({
    queryKey: ["readings", source, skip],
    queryFn: ({ signal }) =>
      answer(api.GET("/api/instruments/readings", { params: { query: { source, skip } }, signal })),
  });
  const remove = useMutation({
    mutationFn: async (r: Reading) => {
      await removed(api.DELETE("/api/instruments/readings/{id}", { params: { path: { id: r.id } } }));
      return r;
    },
    onSuccess: (r) => {
      onRemoved(r);
      changed();
    },
  });
  const wrong = page.error ?? remove.error;
  return (
    <div className="mt-1">
      {wrong && (
        <p role="alert" className="text-error">
          {why(wrong)}
        </p>
      )}
      <ul className="max-h-72 overflow-y-auto overscroll-contain border-base-300 border-t">
        {page.data?.readings.map((r) => (
          <li key={r.id} data-reading={r.id} className="border-base-300 border-b py-1 pr-2">
            {open === r.id ? (
              <Correct
                r={r}
                onClose={() => {
                  setOpen(undefined);
                  changed();
                }}
              />
            ) : (
              <div className="flex items-center gap-2">
                <span className="flex-1 leading-tight">
                  {clock(r.at, u)}
                  <span className="block text-secondary text-sm">{values(r, u)}</span>
                </span>
                <button
                  data-do="correct-reading"
                  type="button"
                  className="btn btn-ghost btn-square"
                  aria-label={`Correct the reading of ${clock(r.at, u)}`}
                  onClick={() => setOpen(r.id)}
                >
                  <Pencil className="size-4" aria-hidden="true" />
                </button>
                <button
                  data-do="remove-reading"
                  type="button"
                  className="btn btn-ghost btn-square"
                  aria-label={`Remove the reading of ${clock(r.at, u)}`}
                  disabled={remove.isPending}
                  onClick={() => remove.mutate(r)}
                >
                  <Trash2 className="size-4" aria-hidden="true" />
                </button>
              </div>
            )}
          </li>
        ))}
      </ul>
      {(skip > 0 || page.data?.more) && (
        <div className="mt-1 flex gap-2">
          <button type="button" className="btn btn-sm" disabled={skip === 0} onClick={() => setSkip(skip - PAGE)}>
            Newer
          </button>
          <button type="button" className="btn btn-sm" disabled={!page.data?.more} onClick={() => setSkip(skip + PAGE)}>
            Older
          </button>
        </div>
      )}
    </div>
  );
}

/** put keeps a reading as it is here. */
function put(r: Reading) {
  const { id, by, ...body } = r;
  return answer(api.PUT("/api/instruments/readings/{id}", { params: { path: { id }, query: { source: by } }, body }));
}

/** Correct edits one reading. */
function Correct({ r, onClose }: { r: Reading; onClose: () => void }) {
  const u = useUnits();
  const [now, setNow] = useState(r);
  const save = useMutation({ mutationFn: () => put(now), onSuccess: onClose });
  const set = (part: Partial<Reading>) => setNow({ ...now, ...part });
  return (
    <form
      data-correct={r.id}
      onSubmit={(e) => {
        e.preventDefault();
        save.mutate();
      }}
    >
      <div className="grid grid-cols-2 gap-x-3 sm:grid-cols-3">
        <label className="mb-2 block">
          <span className="mb-0.5 block font-medium text-secondary text-sm">Time</span>
          <input
            type="datetime-local"
            className="input w-full"
            data-field="reading.at"
            required
            value={now.at}
            onChange={(e) => set({ at: e.target.value })}
          />
        </label>
        <TempField
          label="Air"
          name="reading.temp_c"
          units={u}
          value={now.temp_c}
          onChange={(temp_c) => set({ temp_c })}
        />
        <NumberField
          label="Humidity"
          name="reading.rh_pct"
          of="site.rh_pct"
          unit="%"
          value={now.rh_pct}
          onChange={(rh_pct) => set({ rh_pct })}
        />
        <TempField
          label="Surface"
          name="reading.surface_c"
          units={u}
          value={now.surface_c}
          onChange={(surface_c) => set({ surface_c })}
        />
        <NumberField
          label="Gloss at 60°"
          of="zone.gloss_gu"
          name="reading.gloss_gu"
          unit="GU"
          value={now.gloss_gu}
          onChange={(gloss_gu) => set({ gloss_gu })}
        />
        <NumberField
          label="Moisture"
          of="zone.moisture_pct"
          name="reading.moisture_pct"
          unit="%"
          value={now.moisture_pct}
          onChange={(moisture_pct) => set({ moisture_pct })}
        />
      </div>
      {save.error && (
        <p role="alert" className="mb-1 text-error">
          Not saved: {why(save.error)}
        </p>
      )}
      <div className="flex gap-2">
        <button data-do="save-reading" type="submit" className="btn btn-primary" disabled={save.isPending}>
          Save
        </button>
        <button type="button" className="btn btn-ghost" onClick={onClose}>
          Cancel
        </button>
      </div>
    </form>
  );
}

/** values says what a reading measured. */
function values(r: Reading, u: ReturnType<typeof useUnits>): string {
  const t = (c: number) => `${tempShown(c, u)} ${tempUnit(u)}`;
  return [
    r.temp_c !== undefined && `air ${t(r.temp_c)}`,
    r.rh_pct !== undefined && `${r.rh_pct} % humidity`,
    r.surface_c !== undefined && `surface ${t(r.surface_c)}`,
    r.gloss_gu !== undefined && `gloss ${r.gloss_gu} GU`,
    r.moisture_pct !== undefined && `moisture ${r.moisture_pct} %`,
  ]
    .filter(Boolean)
    .join(", ");
}
