import type { Piece, Zone } from "../api/client";
import { useStudio } from "../api/studio";
import { useVocab } from "../piece/vocab";
import { Check, Choice } from "../ui/Choice";
import { ColourField, NumberField, TextField } from "../ui/Field";
import { Levels } from "./Levels";

type Props = {
  piece: Piece;
  zone: Zone;
  implied: string[] | undefined; // what rises by itself where nothing is entered, once that is known
  lead: boolean;
  onZone: (z: Zone) => void;
  onPiece: (p: Piece) => void;
};

/** Survey is what is known of a zone, and of the piece it belongs to. */
export function Survey({ piece, zone, implied, lead, onZone, onPiece }: Props) {
  const v = useVocab();
  const set = (part: Partial<Zone>) => onZone({ ...zone, ...part });
  const target = (part: Partial<NonNullable<Zone["target"]>>) => set({ target: { ...zone.target, ...part } });
  const substrate = v.substrates.find((s) => s.id === zone.substrate);
  const finish = v.finishes.find((f) => f.id === (zone.finish ?? "unknown"));
  const asks = (field: string) => substrate?.asks.includes(field);
  const defects = (id: string, count: number | undefined) => {
    const rest = (zone.defects ?? []).filter((d) => d.id !== id);
    set({ defects: count ? [...rest, { id, count }] : rest });
  };
  return (
    <div>
      <TextField label="Zone" value={zone.name ?? ""} max={200} onChange={(name) => set({ name })} />
      <Choice
        label="Made of"
        name="substrate"
        hint={substrate?.note}
        words={v.substrates}
        value={zone.substrate}
        onChange={(id) => set({ substrate: id })}
      />
      <Choice
        label="On it now"
        name="finish"
        hint={finish?.note}
        words={v.finishes}
        value={zone.finish ?? "unknown"}
        onChange={(id) => set({ finish: id })}
      />
      <div className="grid grid-cols-2 gap-x-3">
        <Choice
          label="How it shines"
          words={v.gloss}
          none="not looked at"
          value={zone.gloss}
          onChange={(id) => set({ gloss: id || undefined })}
        />
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
        unseen={implied ? `As the material implies: ${implied.join(", ") || "nothing"}` : "As the material implies"}
        seen="Nothing"
        onChange={(bleeders) => set({ bleeders })}
      />
      <div className="grid grid-cols-2 gap-x-3">
        {asks("moisture_pct") && (
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
        {asks("knots") && (
          <NumberField
            label="Knots"
            value={zone.defects?.find((d) => d.id === "knot")?.count}
            min={0}
            max={1000}
            whole
            onChange={(n) => defects("knot", n)}
          />
        )}
      </div>
      <div className="flex flex-wrap gap-x-4">
        {asks("veneer") && (
          <Check label="Veneer" on={!!zone.veneer} onChange={(on) => set({ veneer: on || undefined })} />
        )}
        <Check
          label="Flaking"
          on={zone.defects?.some((d) => d.id === "flaking") ?? false}
          onChange={(on) => defects("flaking", on ? 1 : undefined)}
        />
      </div>

      <h3 className="mt-2 mb-1 border-base-300 border-t pt-2 font-semibold">What it is to become</h3>
      <ColourField label="Colour" value={zone.target?.colour} onChange={(colour) => target({ colour })} />
      <div className="grid grid-cols-2 gap-x-3">
        <Choice
          label="Sheen"
          words={v.gloss}
          none="open"
          value={zone.target?.sheen}
          onChange={(id) => target({ sheen: id || undefined })}
        />
        <Choice
          label="Look"
          words={[{ id: "solid", name: "Solid" }, ...v.effects]}
          value={zone.target?.look ?? "solid"}
          onChange={(look) => target({ look })}
        />
      </div>
      <Choice
        label="How it will be used"
        words={v.wears}
        value={zone.wear ?? "handled"}
        onChange={(wear) => set({ wear })}
      />
      {(lead || zone.lead_test) && <Lead zone={zone} set={set} />}
      <WholePiece piece={piece} onPiece={onPiece} />
    </div>
  );
}

/** WholePiece is what is known of the piece and not of one of its zones. */
function WholePiece({ piece, onPiece }: { piece: Piece; onPiece: (p: Piece) => void }) {
  const v = useVocab();
  const studio = useStudio()?.site;
  const site = piece.site ?? studio;
  return (
    <>
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
          name="site"
          value={piece.site?.temp_c}
          min={-20}
          max={50}
          hint={piece.site || !studio ? undefined : `Empty: the studio's ${studio.temp_c} °C, ${studio.rh_pct} %`}
          onChange={(t) => site && onPiece({ ...piece, site: t === undefined ? undefined : { ...site, temp_c: t } })}
        />
        {piece.site && (
          <NumberField
            label="Humidity"
            unit="%"
            value={piece.site.rh_pct}
            min={0}
            max={100}
            required
            onChange={(h) => h !== undefined && site && onPiece({ ...piece, site: { ...site, rh_pct: h } })}
          />
        )}
      </div>
    </>
  );
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
        <Choice
          label="Result"
          name="lead_test"
          none="not tested"
          words={[
            { id: "negative", name: "no lead" },
            { id: "positive", name: "lead" },
          ]}
          value={t?.result}
          onChange={(id) => (id ? put({ result: id as "negative" | "positive" }) : set({ lead_test: undefined }))}
        />
        {t && (
          <Choice
            label="Found by"
            words={[
              { id: "laboratory", name: "laboratory" },
              { id: "assessor", name: "licensed assessor" },
              { id: "swab", name: "home swab" },
            ]}
            hint={t.by === "swab" ? "A home swab does not decide." : undefined}
            value={t.by}
            onChange={(id) => put({ by: id as "laboratory" | "assessor" | "swab" })}
          />
        )}
      </div>
    </fieldset>
  );
}
