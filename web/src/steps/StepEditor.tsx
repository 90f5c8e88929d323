import type { Step } from "../api/client";
import { useVocab } from "../api/vocab";
import { ADDITIVE } from "../shelf/carry";
import { useShelf } from "../shelf/useShelf";
import { Check, Choice } from "../ui/Choice";
import { ColourField } from "../ui/ColourField";
import { NumberField, TextField } from "../ui/Field";

type Props = { step: Step; onChange: (s: Step) => void };

/** StepEditor edits the fields of a step. */
export function StepEditor({ step, onChange }: Props) {
  const v = useVocab();
  const set = (part: Partial<Step>) => onChange({ ...step, ...part });
  switch (step.do) {
    case "clean": {
      const cleaner = v.cleaners.find((c) => c.id === step.with);
      const usual = (id: string) => v.starts.find((s) => s.step.with === id)?.step ?? { do: "clean", with: id };
      return (
        <div className="grid gap-x-3 sm:grid-cols-2">
          <Choice
            label="Cleaner"
            name="clean.with"
            words={v.cleaners}
            value={step.with}
            onChange={(id) => onChange({ ...usual(id), passes: step.passes })}
          />
          <NumberField
            label="Passes"
            of="clean.passes"
            value={step.passes ?? 1}
            required
            onChange={(n) => set({ passes: n === 1 ? undefined : n })}
          />
          <Check
            label={cleaner && cleaner.rinses > 1 ? "Rinsed twice with clear water" : "Rinsed with clear water"}
            on={!!step.rinse}
            onChange={(on) => set({ rinse: on || undefined })}
          />
          {cleaner?.note && <p className="text-secondary text-sm">{cleaner.note}</p>}
        </div>
      );
    }
    case "abrade":
      return (
        <div className="grid gap-x-3 sm:grid-cols-2">
          <Choice
            label="How"
            words={v.hows}
            value={step.how ?? "hand"}
            onChange={(how) => set({ how, grit: how === "pad" ? undefined : (step.grit ?? 220) })}
          />
          {step.how !== "pad" && (
            <NumberField label="Grit" of="abrade.grit" value={step.grit} required onChange={(grit) => set({ grit })} />
          )}
          <Check
            label="Through to the bare material"
            on={!!step.through}
            onChange={(on) => set({ through: on || undefined })}
          />
        </div>
      );
    case "coat":
      return <CoatEditor step={step} onChange={onChange} />;
    case "wait":
      return (
        <NumberField
          label="Wait"
          of="wait.hours"
          unit="h"
          value={step.hours}
          required
          onChange={(hours) => set({ hours })}
        />
      );
    case "fill":
      return <Choice label="Filler" words={v.fillers} value={step.with} onChange={(id) => set({ with: id })} />;
    case "strip":
      return <Choice label="How" words={v.strips} value={step.how} onChange={(how) => set({ how })} />;
    case "effect":
      return <EffectEditor step={step} onChange={onChange} />;
    case "remove":
    case "repair":
    case "mask":
      return (
        <TextField
          label="What"
          of={`${step.do}.what`}
          value={step.what ?? ""}
          onChange={(what) => (what || step.do !== "remove") && set({ what: what || undefined })}
        />
      );
    case "test":
      return (
        <NumberField
          label="Rating on the cross-cut scale"
          of="test.rating"
          unit="of 5"
          value={step.rating}
          required
          onChange={(rating) => set({ rating })}
        />
      );
    default:
      return <p className="text-secondary">This step has no further settings.</p>;
  }
}

/** EffectEditor edits an effect: only the fields of its kind. */
function EffectEditor({ step, onChange }: Props) {
  const v = useVocab();
  const set = (part: Partial<Step>) => onChange({ ...step, ...part });
  const effect = v.effects.find((e) => e.id === step.effect);
  return (
    <div className="grid gap-x-3 sm:grid-cols-2">
      <Choice
        label="Effect"
        words={v.effects}
        value={step.effect}
        onChange={(id) => onChange({ do: "effect", effect: id })}
      />
      {effect?.wears && (
        <NumberField
          label="Share worn"
          unit="%"
          of="effect.share"
          times={100}
          value={step.share}
          onChange={(share) => set({ share: share || undefined })}
        />
      )}
      {effect?.sands && (
        <NumberField label="Grit" of="effect.grit" value={step.grit} onChange={(grit) => set({ grit })} />
      )}
      {effect?.flakes && (
        <>
          <Choice
            label="Resist applied in patches"
            name="effect.resist"
            words={v.resists}
            value={step.resist}
            none="nothing"
            onChange={(id) => set({ resist: (id || undefined) as Step["resist"] })}
          />
          <Check
            label="Warm air before scraping"
            name="effect.heat"
            on={!!step.heat}
            onChange={(on) => set({ heat: on || undefined })}
          />
          <Check label="Wetted while it sets" on={!!step.wetted} onChange={(on) => set({ wetted: on || undefined })} />
        </>
      )}
      {effect && (
        <p className="text-secondary text-sm sm:col-span-2">
          It needs {effect.wants}.{effect.trap && ` Take care: ${effect.trap}.`}
        </p>
      )}
    </div>
  );
}

function CoatEditor({ step, onChange }: Props) {
  const v = useVocab();
  const set = (part: Partial<Step>) => onChange({ ...step, ...part });
  const product = v.products.find((p) => p.id === step.product);
  const additive = step.additive;
  return (
    <div className="grid gap-x-3 sm:grid-cols-2">
      <Choice
        label="Product"
        name="coat.product"
        words={v.products}
        value={step.product}
        onChange={(id) => set({ product: id, additive: undefined, can: undefined })}
      />
      <CanChoice step={step} onChange={(can) => set({ can })} />
      <NumberField
        label="Coats"
        of="coat.coats"
        value={step.coats ?? 1}
        required
        onChange={(coats) => set({ coats })}
      />
      <NumberField
        label="Wait after each coat"
        of="coat.wait_h"
        unit="h"
        value={step.wait_h}
        onChange={(wait_h) => set({ wait_h })}
      />
      <Choice label="Method" words={v.methods} value={step.method ?? "brush"} onChange={(method) => set({ method })} />
      <Choice
        label="Where"
        words={v.scopes}
        value={step.scope ?? "all"}
        onChange={(id) => set({ scope: id === "all" ? undefined : id })}
      />
      {(product?.role === "clear" || product?.role === "paint") && (
        <Choice
          label="Sheen"
          words={v.gloss}
          value={step.sheen}
          none="the product's own"
          onChange={(id) => set({ sheen: id || undefined })}
        />
      )}
      {product?.role === "paint" && (
        <ColourField
          label="Colour, if different from the wanted one"
          value={step.colour}
          onChange={(colour) => set({ colour })}
        />
      )}
      {product?.role === "paint" && (
        <NumberField
          label={product.takes_additive ? "Water to powder, by volume" : "Thinned by"}
          unit={product.takes_additive ? "to 1" : "%"}
          value={product.takes_additive ? step.water_ratio : step.thin_pct}
          of={product.takes_additive ? "coat.water_ratio" : "coat.thin_pct"}
          onChange={(x) => set(product.takes_additive ? { water_ratio: x } : { thin_pct: x || undefined })}
        />
      )}
      {product?.takes_additive && (
        <NumberField
          label="Bonding additive, parts to one of paint"
          of="additive.ratio"
          value={additive?.ratio}
          onChange={(ratio) =>
            set({ additive: ratio ? { product: ADDITIVE, ratio, coats: additive?.coats } : undefined })
          }
        />
      )}
      {additive && (
        <Check
          label="In the first coat only"
          on={additive.coats === "first"}
          onChange={(on) => set({ additive: { ...additive, coats: on ? "first" : undefined } })}
        />
      )}
    </div>
  );
}

/** CanChoice takes a coat from one of the studio's cans of its product. */
function CanChoice({ step, onChange }: { step: Step; onChange: (can: string | undefined) => void }) {
  const shelf = useShelf();
  const cans = (shelf.data?.cans ?? []).filter((c) => c.kind === step.product);
  const known = cans.some((c) => c.id === step.can);
  if (!cans.length && !step.can) return null;
  const words = cans.map((c) => ({ id: c.id, name: `${c.title}, ${c.left}${c.open ? ", open" : ""}` }));
  if (step.can && !known && shelf.data) words.push({ id: step.can, name: "a can that is no longer on the shelf" });
  return (
    <Choice
      label="Can"
      name="coat.can"
      words={words}
      value={step.can}
      none="any"
      hint={cans.find((c) => c.id === step.can)?.says && "Its label counts here."}
      onChange={(id) => onChange(id || undefined)}
    />
  );
}
