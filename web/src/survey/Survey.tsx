import { ArrowRight, Search, Trash2 } from "lucide-react";
import type { ReactNode } from "react";
import type { Look, Piece, Schemas, Zone, ZoneResult } from "../api/client";
import { useVocab } from "../piece/vocab";
import { Check, Choice } from "../ui/Choice";
import { ColourField, NumberField, TextField } from "../ui/Field";
import { AreaField } from "./AreaField";
import { Damage } from "./Damage";
import { Ladder } from "./Ladder";
import { Levels } from "./Levels";
import { Meter } from "./Meter";
import { Part } from "./Part";
import { Tiles } from "./Tiles";
import { WholePiece } from "./WholePiece";

type Level = Schemas["Level"];

type Props = {
  id: number; // of the piece
  piece: Piece;
  zone: Zone;
  look: Look | undefined;
  onPhotos: (point?: string) => void;
  implied: Level[] | undefined; // what rises by itself where nothing is entered, once that is known
  gloss: ZoneResult["gloss"]; // the sheen that a meter's reading is taken for
  known: ZoneResult["known"]; // how sure one may be of what is entered
  onIdentify: () => void;
  onZone: (z: Zone) => void;
  onPiece: (p: Piece) => void;
  onPlan: () => void;
  onRemove: () => void;
  begin: boolean; // a zone just added: what is on it is asked first
  removal: ReactNode; // what removes the whole piece
};

/** Survey is what is known of a zone, and of the piece it belongs to. */
export function Survey({
  id,
  piece,
  zone,
  look,
  onPhotos,
  implied,
  gloss,
  known,
  onIdentify,
  onZone,
  onPiece,
  onPlan,
  onRemove,
  begin,
  removal,
}: Props) {
  const v = useVocab();
  const set = (part: Partial<Zone>) => onZone({ ...zone, ...part });
  const target = (part: Partial<NonNullable<Zone["target"]>>) => set({ target: { ...zone.target, ...part } });
  const substrate = v.substrates.find((s) => s.id === zone.substrate);
  const asks = (field: string) => substrate?.asks.includes(field);
  const bare = zone.finish === "none";
  const unknown = (zone.finish ?? "unknown") === "unknown" || zone.substrate.includes("unknown");
  // Bare looks like what is bare.
  const finishes = v.finishes.map((f) =>
    f.id === "none" && substrate ? { ...f, colour: substrate.colour, mark: substrate.mark } : f,
  );
  const defects = (id: string, count: number | undefined) => {
    const rest = (zone.defects ?? []).filter((d) => d.id !== id);
    set({ defects: count ? [...rest, { id, count }] : rest });
  };
  return (
    <div className="mx-auto max-w-4xl">
      <Part
        title="What it is"
        says="One material, one finish"
        beside={
          <button type="button" className="btn btn-ghost border-base-300 text-primary" onClick={onPlan}>
            On to the plan <ArrowRight className="size-4" aria-hidden="true" />
          </button>
        }
      >
        <div className="grid gap-x-4 xl:grid-cols-2">
          <Tiles
            label="Made of"
            name="substrate"
            eg="oak, chipboard, worktop, tin …"
            words={v.substrates}
            value={zone.substrate}
            onChange={(id) => set({ substrate: id })}
          />
          <Tiles
            label="On it now"
            name="finish"
            eg="varnish, old paint, wax …"
            words={finishes}
            value={zone.finish ?? "unknown"}
            begin={begin}
            hint="“Not known” is an answer too: the plan is then judged for each thing it may be."
            onChange={(id) => set({ finish: id, gloss: id === "none" && !asks("gloss") ? undefined : zone.gloss })}
          />
        </div>
        <p className="-mt-1 mb-3 flex flex-wrap items-center gap-x-3 gap-y-1">
          <Sure known={known} unknown={unknown} />
          <button type="button" className="btn btn-ghost border-base-300 font-normal" onClick={onIdentify}>
            <Search className="size-4" aria-hidden="true" />{" "}
            {zone.evidence?.length ? "The tests" : "Find out by small tests"}
          </button>
        </p>
        {(!bare || asks("gloss")) && (
          <>
            <Ladder
              label={
                zone.gloss_gu === undefined ? "How it shines" : `How it shines: ${zone.gloss_gu} units by the meter`
              }
              words={v.gloss}
              none="not looked at"
              value={zone.gloss_gu === undefined ? zone.gloss : gloss}
              onChange={(id) => set({ gloss: id, gloss_gu: undefined })}
            />
            <Meter field="gloss_gu" id={id} piece={piece} zone={zone} onZone={onZone} />
          </>
        )}
        <div className="grid grid-cols-1 gap-x-4 sm:grid-cols-3">
          <AreaField
            zone={zone}
            look={look?.zones.find((z) => z.id === zone.id)}
            onParts={() => set({ area_m2: undefined })}
          />
          {asks("moisture_pct") && (
            <div>
              <NumberField
                label="Moisture, if measured"
                unit="%"
                name="moisture_pct"
                value={zone.moisture_pct}
                min={0}
                max={100}
                onChange={(moisture_pct) => set({ moisture_pct })}
              />
              <Meter field="moisture_pct" id={id} piece={piece} zone={zone} onZone={onZone} />
            </div>
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
          {asks("age_days") && (
            <NumberField
              label="How old it is"
              unit="days"
              name="age_days"
              value={zone.age_days}
              min={0}
              max={100000}
              hint="New plaster and cement stay alkaline for months"
              onChange={(age_days) => set({ age_days })}
            />
          )}
          <ColourField
            label="Colour it has now, if unusual"
            name="colour"
            value={zone.colour}
            onChange={(colour) => set({ colour })}
          />
          <TextField label="Zone" value={zone.name ?? ""} max={200} onChange={(name) => set({ name })} />
        </div>
        <div className="flex flex-wrap gap-x-6">
          {asks("veneer") && (
            <Check label="It is veneer" on={!!zone.veneer} onChange={(on) => set({ veneer: on || undefined })} />
          )}
          <Check
            label="What is on it flakes"
            on={zone.defects?.some((d) => d.id === "flaking") ?? false}
            onChange={(on) => defects("flaking", on ? 1 : undefined)}
          />
        </div>
      </Part>
      <Part title="What lies on it and what may rise" says="Press once for light, twice for marked, again for heavy">
        <Levels
          label="Lying on it"
          field="soils"
          words={v.soils}
          usual={8}
          value={zone.soils}
          unseen="Nobody has looked yet"
          nothing="Looked: nothing"
          onChange={(soils) => set({ soils })}
        />
        <Levels
          label="May bleed from below"
          field="bleeders"
          words={v.bleeders}
          usual={5}
          value={zone.bleeders}
          unseen={implied && !implied.length ? "As the material implies: nothing" : "As the material implies"}
          nothing="Nothing"
          from={implied}
          onChange={(bleeders) => set({ bleeders })}
        />
      </Part>
      <Damage piece={piece} zone={zone} look={look} onZone={onZone} onPhotos={onPhotos} />
      <Part title="What it is to become" says="The colour decides what a stain would show">
        <div className="grid gap-x-4 sm:grid-cols-3">
          <ColourField
            label="Colour"
            name="target"
            quick
            value={zone.target?.colour}
            onChange={(colour) => target({ colour })}
          />
          <Choice
            label="Look"
            words={[{ id: "solid", name: "Solid" }, ...v.effects]}
            value={zone.target?.look ?? "solid"}
            onChange={(look) => target({ look })}
          />
          <Choice
            label="How it will be used"
            words={v.wears}
            value={zone.wear ?? "handled"}
            onChange={(wear) => set({ wear })}
          />
        </div>
        <Ladder
          label="Sheen"
          words={v.gloss}
          none="open"
          value={zone.target?.sheen}
          onChange={(sheen) => target({ sheen })}
        />
      </Part>
      <WholePiece piece={piece} onPiece={onPiece} />
      <div className="mt-4 flex flex-wrap gap-2 border-base-300 border-t pt-3">
        <button type="button" className="btn btn-primary h-12" onClick={onPlan}>
          On to the plan <ArrowRight className="size-5" aria-hidden="true" />
        </button>
        <span className="flex-1" />
        <button type="button" className="btn btn-ghost h-12 text-error" onClick={onRemove}>
          <Trash2 className="size-4" aria-hidden="true" /> Remove this zone
        </button>
        {removal}
      </div>
    </div>
  );
}

/** Sure says how sure one may be of what is entered: tested, likely, or only assumed. */
function Sure({ known, unknown }: { known: ZoneResult["known"]; unknown: boolean }) {
  if (!known) {
    return (
      <span className="text-secondary">
        {unknown
          ? "Nobody has tested it yet: the plan is judged for each thing it may be."
          : "Assumed: nobody has tested it."}
      </span>
    );
  }
  return (
    <span>
      Material <b className="font-semibold">{known.substrate.says}</b>; on it{" "}
      <b className="font-semibold">{known.finish.says}</b>.
      {known.walked > 1 && ` The plan is judged for ${known.walked} things it may be.`}
    </span>
  );
}
