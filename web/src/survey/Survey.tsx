import { ArrowRight, Search, Trash2 } from "lucide-react";
import type { Zone, ZoneResult } from "../api/client";
import { useVocab } from "../api/vocab";
import { useDesk } from "../piece/desk";
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

/** Survey is what is known of a zone, and of the piece it belongs to. */
export function Survey() {
  const { piece, zone, look, judged, fresh, removal, change: onZone, changePiece, go, pick, remove } = useDesk();
  const v = useVocab();
  const onPlan = () => {
    if (!zone.steps?.length) pick(0);
    go("plan");
  };
  const set = (part: Partial<Zone>) => onZone({ ...zone, ...part });
  const target = (part: Partial<NonNullable<Zone["target"]>>) => set({ target: { ...zone.target, ...part } });
  const substrate = v.substrates.find((s) => s.id === zone.substrate);
  const asks = (field: string) => substrate?.asks.includes(field);
  const bare = zone.finish === "none";
  const unknown = (zone.finish ?? "unknown") === "unknown" || zone.substrate.includes("unknown");
  // Bare looks like what is bare.
  const finishes = usualFirst(v.finishes, substrate?.finishes).map((f) =>
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
            begin={fresh}
            hint="“Not known” is an answer too: the plan is then judged for each thing it may be."
            onChange={(id) => set({ finish: id, gloss: id === "none" && !asks("gloss") ? undefined : zone.gloss })}
          />
        </div>
        <p className="-mt-1 mb-3 flex flex-wrap items-center gap-x-3 gap-y-1">
          <Sure known={judged?.known} unknown={unknown} />
          <button type="button" className="btn btn-ghost border-base-300 font-normal" onClick={() => go("identify")}>
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
              name="gloss"
              words={v.gloss}
              none="not looked at"
              value={zone.gloss_gu === undefined ? zone.gloss : judged?.gloss}
              onChange={(id) => set({ gloss: id, gloss_gu: undefined })}
            />
            <Meter field="gloss_gu" />
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
                of="zone.moisture_pct"
                unit="%"
                name="moisture_pct"
                value={zone.moisture_pct}
                onChange={(moisture_pct) => set({ moisture_pct })}
              />
              <Meter field="moisture_pct" />
            </div>
          )}
          {asks("knots") && (
            <NumberField
              label="Knots"
              of="defect.count"
              value={zone.defects?.find((d) => d.id === "knot")?.count}
              onChange={(n) => defects("knot", n)}
            />
          )}
          {asks("age_days") && (
            <NumberField
              label="How old it is"
              of="zone.age_days"
              unit="days"
              name="age_days"
              value={zone.age_days}
              onChange={(age_days) => set({ age_days })}
            />
          )}
          <ColourField
            label="Colour it has now, if unusual"
            name="colour"
            value={zone.colour}
            onChange={(colour) => set({ colour })}
          />
          <TextField label="Zone" of="zone.name" value={zone.name ?? ""} onChange={(name) => set({ name })} />
        </div>
        <div className="flex flex-wrap gap-x-6">
          {asks("veneer") && (
            <Check
              label="It is veneer"
              name="veneer"
              on={!!zone.veneer}
              onChange={(on) => set({ veneer: on || undefined })}
            />
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
          words={usualFirst(v.soils, substrate?.soils)}
          value={zone.soils}
          unseen="Nobody has looked yet"
          nothing="Looked: nothing"
          onChange={(soils) => set({ soils })}
        />
        <Levels
          label="May bleed from below"
          field="bleeders"
          words={usualFirst(v.bleeders, substrate?.bleeders)}
          value={zone.bleeders}
          unseen={
            judged && !judged.implied_levels.length ? "As the material implies: nothing" : "As the material implies"
          }
          nothing="Nothing"
          from={judged?.implied_levels}
          onChange={(bleeders) => set({ bleeders })}
        />
      </Part>
      <Damage />
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
            name="look"
            words={[{ id: "solid", name: "Solid" }, ...v.effects]}
            value={zone.target?.look ?? "solid"}
            onChange={(look) => target({ look })}
          />
          <Choice
            label="How it will be used"
            name="wear"
            words={v.wears}
            value={zone.wear ?? "handled"}
            onChange={(wear) => set({ wear })}
          />
        </div>
        <Ladder
          label="Sheen"
          name="sheen"
          words={v.gloss}
          none="open"
          value={zone.target?.sheen}
          onChange={(sheen) => target({ sheen })}
        />
      </Part>
      <WholePiece piece={piece} onPiece={changePiece} />
      <div className="mt-4 flex flex-wrap gap-2 border-base-300 border-t pt-3">
        <button type="button" className="btn btn-primary h-12" onClick={onPlan}>
          On to the plan <ArrowRight className="size-5" aria-hidden="true" />
        </button>
        <span className="flex-1" />
        <button type="button" className="btn btn-ghost h-12 text-error" onClick={remove}>
          <Trash2 className="size-4" aria-hidden="true" /> Remove this zone
        </button>
        {removal}
      </div>
    </div>
  );
}

type Usual = { id: string; less?: boolean };

/** usualFirst puts the words that are met on a material first, the usual ones before the others; the rest is less usual. */
function usualFirst<W extends Usual>(words: W[], usual: string[] | undefined): (W & Usual)[] {
  if (!usual?.length) return words;
  const first = usual.flatMap((id) => words.filter((w) => w.id === id));
  return [...first, ...words.filter((w) => !usual.includes(w.id)).map((w) => ({ ...w, less: true }))];
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
