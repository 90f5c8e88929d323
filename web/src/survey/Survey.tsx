import { ArrowRight, Search, Trash2 } from "lucide-react";
import { memo, useMemo } from "react";
import type { Piece, Zone, ZoneOverview, ZoneResult } from "../api/client";
import { useVocab } from "../api/vocab";
import { useWorkspace } from "../piece/workspace";
import { useOpen } from "../session/useSession";
import { Check, Choice } from "../ui/Choice";
import { ColourField } from "../ui/ColourField";
import { equalProps } from "../ui/equal";
import { NumberField, TextField } from "../ui/Field";
import { useStable } from "../ui/stable";
import { AreaField } from "./AreaField";
import { Damage } from "./Damage";
import { FormSection } from "./FormSection";
import { Ladder } from "./Ladder";
import { Levels } from "./Levels";
import { Meter } from "./Meter";
import { Tiles } from "./Tiles";
import { WholePiece } from "./WholePiece";

type Set = (part: Partial<Zone>) => void;

/**
 * Survey is what is known of a zone, and of its piece. Each section is drawn anew only when something in it has
 * changed.
 */
export function Survey() {
  const { piece, zone, overview, judged, fresh, removal, change, changePiece, go, pick, remove } = useWorkspace();
  const open = useOpen();
  // A change is applied to the zone as it is at that moment.
  const set = useStable((part: Partial<Zone>) => {
    const now = open.latest().piece?.zones?.find((z) => z.id === zone.id) ?? zone;
    change({ ...now, ...part });
  });
  const onPlan = useStable(() => {
    if (!zone.steps?.length) pick(0);
    go("plan");
  });
  const goTo = useStable(go);
  const onPiece = useStable((part: Partial<Piece>) => changePiece({ ...(open.latest().piece ?? piece), ...part }));
  return (
    <div className="mx-auto max-w-4xl">
      <WhatItIs
        zone={zone}
        overview={overview?.zones.find((z) => z.id === zone.id)}
        known={judged?.known}
        gloss={judged?.gloss}
        fresh={fresh}
        set={set}
        onPlan={onPlan}
        go={goTo}
      />
      <Found
        substrate={zone.substrate}
        soils={zone.soils}
        bleeders={zone.bleeders}
        implied={judged?.implied_levels}
        set={set}
      />
      <Damage />
      <Wanted target={zone.target} wear={zone.wear} set={set} />
      <WholePiece kind={piece.kind} use={piece.use} made={piece.made} site={piece.site} onPiece={onPiece} />
      <div className="mt-4 flex flex-wrap gap-2 border-base-300 border-t pt-3">
        <button type="button" className="btn btn-primary h-12" data-on onClick={onPlan}>
          Go to the plan <ArrowRight className="size-5" aria-hidden="true" />
        </button>
        <span className="flex-1" />
        <button type="button" className="btn btn-ghost h-12 text-error" data-remove-zone onClick={remove}>
          <Trash2 className="size-4" aria-hidden="true" /> Remove this zone
        </button>
        {removal}
      </div>
    </div>
  );
}

type IsProps = {
  zone: Zone;
  overview: ZoneOverview | undefined;
  known: ZoneResult["known"];
  gloss: ZoneResult["gloss"];
  fresh: boolean;
  set: Set;
  onPlan: () => void;
  go: (view: string) => void;
};

/** WhatItIs is a zone's material, finish and figures. */
const WhatItIs = memo(function WhatItIs({ zone, overview, known, gloss, fresh, set, onPlan, go }: IsProps) {
  const v = useVocab();
  const substrate = v.substrates.find((s) => s.id === zone.substrate);
  const asks = (field: string) => substrate?.asks.includes(field);
  const bare = zone.finish === "none";
  const unknown = (zone.finish ?? "unknown") === "unknown" || zone.substrate.includes("unknown");
  // A bare finish looks like its material.
  const finishes = useMemo(
    () =>
      usualFirst(v.finishes, substrate?.finishes).map((f) =>
        f.id === "none" && substrate ? { ...f, colour: substrate.colour, mark: substrate.mark } : f,
      ),
    [v, substrate],
  );
  const setSubstrate = useStable((id: string) => set({ substrate: id }));
  const setFinish = useStable((id: string) =>
    set({ finish: id, gloss: id === "none" && !asks("gloss") ? undefined : zone.gloss }),
  );
  const setGloss = useStable((id: string | undefined) => set({ gloss: id, gloss_gu: undefined }));
  const defects = (id: string, count: number | undefined) => {
    const rest = (zone.defects ?? []).filter((d) => d.id !== id);
    set({ defects: count ? [...rest, { id, count }] : rest });
  };
  return (
    <FormSection
      title="Material and finish"
      says="One material, one finish"
      beside={
        <button type="button" className="btn btn-ghost border-base-300 text-primary" onClick={onPlan}>
          Go to the plan <ArrowRight className="size-4" aria-hidden="true" />
        </button>
      }
    >
      <div className="grid gap-x-4 xl:grid-cols-2">
        <Tiles
          label="Material"
          name="substrate"
          eg="oak, chipboard, worktop, tin …"
          words={v.substrates}
          value={zone.substrate}
          onChange={setSubstrate}
        />
        <Tiles
          label="Present finish"
          name="finish"
          eg="varnish, old paint, wax …"
          words={finishes}
          value={zone.finish ?? "unknown"}
          begin={fresh}
          hint="You can choose “Not known”: the plan is then checked for every possibility."
          onChange={setFinish}
        />
      </div>
      <p className="-mt-1 mb-3 flex flex-wrap items-center gap-x-3 gap-y-1">
        <Sure known={known} unknown={unknown} />
        <button
          data-do="identify"
          type="button"
          className="btn btn-ghost border-base-300 font-normal"
          onClick={() => go("identify")}
        >
          <Search className="size-4" aria-hidden="true" />{" "}
          {zone.evidence?.length ? "The tests" : "Find out with small tests"}
        </button>
      </p>
      {(!bare || asks("gloss")) && (
        <>
          <Ladder
            label={zone.gloss_gu === undefined ? "Gloss" : `Gloss: ${zone.gloss_gu} units on the meter`}
            name="gloss"
            words={v.gloss}
            none="not recorded"
            value={zone.gloss_gu === undefined ? zone.gloss : gloss}
            onChange={setGloss}
          />
          <Meter field="gloss_gu" />
        </>
      )}
      <div className="grid grid-cols-1 gap-x-4 sm:grid-cols-3">
        <AreaField zone={zone} overview={overview} onParts={() => set({ area_m2: undefined })} />
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
            label="Age"
            of="zone.age_days"
            unit="days"
            name="age_days"
            value={zone.age_days}
            onChange={(age_days) => set({ age_days })}
          />
        )}
        <ColourField
          label="Present colour, if unusual"
          name="colour"
          value={zone.colour}
          onChange={(colour) => set({ colour })}
        />
        <TextField label="Zone name" of="zone.name" value={zone.name ?? ""} onChange={(name) => set({ name })} />
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
        {bare && asks("prepared") && (
          <Check
            label="Sanded and ready for its first coat"
            name="prepared"
            on={!!zone.prepared}
            onChange={(on) => set({ prepared: on || undefined })}
          />
        )}
        <Check
          label="The finish flakes"
          on={zone.defects?.some((d) => d.id === "flaking") ?? false}
          onChange={(on) => defects("flaking", on ? 1 : undefined)}
        />
      </div>
    </FormSection>
  );
}, sameStretch);

/** Surveyed are the fields of a zone that the first section shows; others are no reason to draw it anew. */
const SURVEYED = [
  "id",
  "substrate",
  "finish",
  "veneer",
  "prepared",
  "gloss",
  "gloss_gu",
  "area_m2",
  "moisture_pct",
  "age_days",
  "colour",
  "name",
  "defects",
  "evidence",
] as const satisfies (keyof Zone)[];

function sameStretch({ zone: a, ...x }: IsProps, { zone: b, ...y }: IsProps): boolean {
  return equalProps(x, y) && SURVEYED.every((f) => a[f] === b[f]);
}

type FoundProps = Pick<Zone, "substrate" | "soils" | "bleeders"> & {
  implied: ZoneResult["implied_levels"] | undefined;
  set: Set;
};

/** Found is the dirt on a zone and what may bleed. */
const Found = memo(function Found({ substrate: id, soils, bleeders, implied, set }: FoundProps) {
  const v = useVocab();
  const substrate = v.substrates.find((s) => s.id === id);
  const usual = useMemo(
    () => [usualFirst(v.soils, substrate?.soils), usualFirst(v.bleeders, substrate?.bleeders)] as const,
    [v, substrate],
  );
  const setSoils = useStable((soils: Zone["soils"]) => set({ soils }));
  const setBleeders = useStable((bleeders: Zone["bleeders"]) => set({ bleeders }));
  return (
    <FormSection title="Dirt and stains" says="Click once for light, twice for marked, three times for heavy">
      <Levels
        label="Dirt on the surface"
        field="soils"
        words={usual[0]}
        value={soils}
        unseen="Not checked yet"
        nothing="Checked: clean"
        onChange={setSoils}
      />
      <Levels
        label="May bleed through from below"
        field="bleeders"
        words={usual[1]}
        value={bleeders}
        unseen={implied && !implied.length ? "As usual for the material: nothing" : "As usual for the material"}
        nothing="Nothing"
        from={implied}
        onChange={setBleeders}
      />
    </FormSection>
  );
});

type WantedProps = Pick<Zone, "target" | "wear"> & { set: Set };

/** Wanted is the wanted result. */
const Wanted = memo(function Wanted({ target: t, wear, set }: WantedProps) {
  const v = useVocab();
  const target = useStable((part: Partial<NonNullable<Zone["target"]>>) => set({ target: { ...t, ...part } }));
  const setSheen = useStable((sheen: string | undefined) => target({ sheen }));
  return (
    <FormSection title="Wanted result" says="The colour decides how visible a stain would be">
      <div className="grid gap-x-4 sm:grid-cols-3">
        <ColourField label="Colour" name="target" quick value={t?.colour} onChange={(colour) => target({ colour })} />
        <Choice
          label="Look"
          name="look"
          words={[{ id: "solid", name: "Solid" }, ...v.effects]}
          value={t?.look ?? "solid"}
          onChange={(look) => target({ look })}
        />
        <Choice label="Use" name="wear" words={v.wears} value={wear ?? "handled"} onChange={(wear) => set({ wear })} />
      </div>
      <Ladder label="Sheen" name="sheen" words={v.gloss} none="any" value={t?.sheen} onChange={setSheen} />
    </FormSection>
  );
});

type Usual = { id: string; less?: boolean };

/** usualFirst puts common words first; the rest is less common. */
function usualFirst<W extends Usual>(words: W[], usual: string[] | undefined): (W & Usual)[] {
  if (!usual?.length) return words;
  const first = usual.flatMap((id) => words.filter((w) => w.id === id));
  return [...first, ...words.filter((w) => !usual.includes(w.id)).map((w) => ({ ...w, less: true }))];
}

/** Sure says how certain the survey is: tested, likely, or only assumed. */
function Sure({ known, unknown }: { known: ZoneResult["known"]; unknown: boolean }) {
  if (!known) {
    return (
      <span className="text-secondary">
        {unknown ? "Not tested yet: the plan is checked for every possibility." : "Assumed, not tested."}
      </span>
    );
  }
  return (
    <span>
      Material <b className="font-semibold">{known.substrate.says}</b>; finish{" "}
      <b className="font-semibold">{known.finish.says}</b>.
      {known.walked > 1 && ` The plan is checked for ${known.walked} possibilities.`}
    </span>
  );
}
