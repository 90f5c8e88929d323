import type { Piece, Vocab, Zone } from "../api/client";
import { useVocab } from "../piece/vocab";
import { Check } from "../steps/StepEditor";
import { ColourField, Field, NumberField, TextField } from "../ui/Field";
import { Levels } from "./Levels";

type Props = { piece: Piece; zone: Zone; lead: boolean; onZone: (z: Zone) => void; onPiece: (p: Piece) => void };

/** Survey is what is known of a zone, and of the piece it belongs to. */
export function Survey({ piece, zone, lead, onZone, onPiece }: Props) {
  const v = useVocab();
  const set = (part: Partial<Zone>) => onZone({ ...zone, ...part });
  const target = (part: Partial<NonNullable<Zone["target"]>>) => set({ target: { ...zone.target, ...part } });
  const substrate = v.substrates.find((s) => s.id === zone.substrate);
  const finish = v.finishes.find((f) => f.id === (zone.finish ?? "unknown"));
  const damp = ["wood", "board", "mineral"].includes(substrate?.group ?? "");
  const knots = zone.defects?.find((d) => d.id === "knot");
  const flaking = zone.defects?.some((d) => d.id === "flaking") ?? false;
  const defects = (id: string, count: number | undefined) => {
    const rest = (zone.defects ?? []).filter((d) => d.id !== id);
    set({ defects: count ? [...rest, { id, count }] : rest });
  };
  return (
    <div>
      <TextField label="Zone" value={zone.name ?? ""} max={200} onChange={(name) => set({ name })} />
      <Field label="Made of" hint={substrate?.note}>
        {(id) => (
          <select
            id={id}
            data-field="substrate"
            className="select w-full"
            value={zone.substrate}
            onChange={(e) => set({ substrate: e.target.value })}
          >
            <Substrates v={v} />
          </select>
        )}
      </Field>
      <Field label="On it now" hint={finish?.note}>
        {(id) => (
          <select
            id={id}
            data-field="finish"
            className="select w-full"
            value={zone.finish ?? "unknown"}
            onChange={(e) => set({ finish: e.target.value })}
          >
            {v.finishes.map((f) => (
              <option key={f.id} value={f.id}>
                {f.name}
              </option>
            ))}
          </select>
        )}
      </Field>
      <div className="grid grid-cols-2 gap-x-3">
        <Field label="How it shines">
          {(id) => (
            <select
              id={id}
              className="select w-full"
              value={zone.gloss ?? ""}
              onChange={(e) => set({ gloss: e.target.value || undefined })}
            >
              <option value="">not looked at</option>
              {v.gloss.map((g) => (
                <option key={g.id} value={g.id}>
                  {g.name}
                </option>
              ))}
            </select>
          )}
        </Field>
        <NumberField
          label="Area"
          unit="m²"
          name="area_m2"
          value={zone.area_m2}
          min={0}
          above
          max={500}
          onChange={(area_m2) => set({ area_m2 })}
        />
      </div>
      <Levels
        label="Lying on it"
        field="soils"
        words={v.soils}
        value={zone.soils}
        unseen="Nobody has looked yet"
        seen="Looked at, nothing found"
        onChange={(soils) => set({ soils })}
      />
      <Levels
        label="May bleed from below"
        field="bleeders"
        words={v.bleeders}
        value={zone.bleeders}
        unseen={
          substrate?.bleeds.length
            ? `As the material implies: ${substrate.bleeds.map((b) => v.bleeders.find((w) => w.id === b)?.name ?? b).join(", ")}`
            : "As the material implies"
        }
        seen="Nothing"
        onChange={(bleeders) => set({ bleeders })}
      />
      <div className="grid grid-cols-2 gap-x-3">
        {damp && (
          <NumberField
            label="Moisture"
            unit="%"
            name="moisture_pct"
            value={zone.moisture_pct}
            min={0}
            max={100}
            onChange={(moisture_pct) => set({ moisture_pct })}
          />
        )}
        {substrate?.group === "wood" && (
          <NumberField
            label="Knots"
            value={knots?.count}
            min={0}
            max={1000}
            whole
            onChange={(n) => defects("knot", n)}
          />
        )}
      </div>
      <div className="flex flex-wrap gap-x-4">
        {substrate?.group === "wood" && (
          <Check label="Veneer" on={!!zone.veneer} onChange={(on) => set({ veneer: on || undefined })} />
        )}
        <Check label="Flaking" on={flaking} onChange={(on) => defects("flaking", on ? 1 : undefined)} />
      </div>

      <h3 className="mt-2 mb-1 border-base-300 border-t pt-2 font-semibold">What it is to become</h3>
      <ColourField label="Colour" value={zone.target?.colour} onChange={(colour) => target({ colour })} />
      <div className="grid grid-cols-2 gap-x-3">
        <Field label="Sheen">
          {(id) => (
            <select
              id={id}
              className="select w-full"
              value={zone.target?.sheen ?? ""}
              onChange={(e) => target({ sheen: e.target.value || undefined })}
            >
              <option value="">open</option>
              {v.gloss.map((g) => (
                <option key={g.id} value={g.id}>
                  {g.name}
                </option>
              ))}
            </select>
          )}
        </Field>
        <Field label="Look">
          {(id) => (
            <select
              id={id}
              className="select w-full"
              value={zone.target?.look ?? "solid"}
              onChange={(e) => target({ look: e.target.value })}
            >
              <option value="solid">Solid</option>
              {v.effects.map((f) => (
                <option key={f.id} value={f.id}>
                  {f.name}
                </option>
              ))}
            </select>
          )}
        </Field>
      </div>
      <Field label="How it will be used">
        {(id) => (
          <select
            id={id}
            className="select w-full"
            value={zone.wear ?? "handled"}
            onChange={(e) => set({ wear: e.target.value })}
          >
            {v.wears.map((w) => (
              <option key={w.id} value={w.id}>
                {w.name}
              </option>
            ))}
          </select>
        )}
      </Field>

      <h3 className="mt-2 mb-1 border-base-300 border-t pt-2 font-semibold">The whole piece</h3>
      <NumberField
        label="Year it was made"
        value={piece.made}
        min={1000}
        max={2200}
        whole
        hint="Empty where nobody knows"
        onChange={(made) => onPiece({ ...piece, made })}
      />
      <fieldset className="mb-2">
        <legend className="mb-0.5 font-medium text-secondary text-sm">Where and for whom</legend>
        <div className="flex flex-wrap gap-x-4">
          {v.uses.map((u) => (
            <Check
              key={u.id}
              label={u.name}
              on={piece.use?.includes(u.id) ?? false}
              onChange={(on) => {
                const rest = (piece.use ?? []).filter((x) => x !== u.id);
                onPiece({ ...piece, use: on ? [...rest, u.id] : rest });
              }}
            />
          ))}
        </div>
      </fieldset>
      <div className="grid grid-cols-2 gap-x-3">
        <NumberField
          label="Workshop"
          unit="°C"
          value={piece.site?.temp_c}
          min={-20}
          max={50}
          hint={piece.site ? undefined : "Empty: the studio's"}
          onChange={(t) =>
            onPiece({ ...piece, site: t === undefined ? undefined : { temp_c: t, rh_pct: piece.site?.rh_pct ?? 50 } })
          }
        />
        {piece.site && (
          <NumberField
            label="Humidity"
            unit="%"
            value={piece.site.rh_pct}
            min={0}
            max={100}
            required
            onChange={(h) =>
              h !== undefined && onPiece({ ...piece, site: { temp_c: piece.site?.temp_c ?? 20, rh_pct: h } })
            }
          />
        )}
      </div>
      {(lead || zone.lead_test) && <Lead zone={zone} set={set} />}
    </div>
  );
}

function Substrates({ v }: { v: Vocab }) {
  const groups = [...new Set(v.substrates.map((s) => s.group))];
  return groups.map((g) => (
    <optgroup key={g} label={g[0]?.toUpperCase() + g.slice(1)}>
      {v.substrates
        .filter((s) => s.group === g)
        .map((s) => (
          <option key={s.id} value={s.id}>
            {s.name}
          </option>
        ))}
    </optgroup>
  ));
}

/** Lead takes the result of a test; a home swab may be noted but decides nothing. */
function Lead({ zone, set }: { zone: Zone; set: (part: Partial<Zone>) => void }) {
  const t = zone.lead_test;
  const put = (part: Partial<NonNullable<Zone["lead_test"]>>) =>
    set({
      lead_test: { result: "negative", by: "laboratory", date: new Date().toISOString().slice(0, 10), ...t, ...part },
    });
  return (
    <fieldset>
      <legend className="mb-1 w-full border-base-300 border-t pt-2 font-head font-semibold">Test for lead</legend>
      <div className="grid grid-cols-2 gap-x-3">
        <Field label="Result">
          {(id) => (
            <select
              id={id}
              data-field="lead_test"
              className="select w-full"
              value={t?.result ?? ""}
              onChange={(e) =>
                e.target.value
                  ? put({ result: e.target.value as "negative" | "positive" })
                  : set({ lead_test: undefined })
              }
            >
              <option value="">not tested</option>
              <option value="negative">no lead</option>
              <option value="positive">lead</option>
            </select>
          )}
        </Field>
        {t && (
          <Field label="Found by" hint={t.by === "swab" ? "A home swab does not decide." : undefined}>
            {(id) => (
              <select
                id={id}
                className="select w-full"
                value={t.by}
                onChange={(e) => put({ by: e.target.value as "laboratory" | "assessor" | "swab" })}
              >
                <option value="laboratory">laboratory</option>
                <option value="assessor">licensed assessor</option>
                <option value="swab">home swab</option>
              </select>
            )}
          </Field>
        )}
      </div>
    </fieldset>
  );
}
