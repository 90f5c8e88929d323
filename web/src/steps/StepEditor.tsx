import type { Step } from "../api/client";
import { useVocab } from "../piece/vocab";
import { ColourField, Field, NumberField, TextField } from "../ui/Field";

type Word = { id: string; name: string };
type Props = { step: Step; onChange: (s: Step) => void };

/** StepEditor edits the fields that belong to a step. */
export function StepEditor({ step, onChange }: Props) {
  const v = useVocab();
  const set = (part: Partial<Step>) => onChange({ ...step, ...part });
  const choose = (
    label: string,
    words: Word[],
    value: string | undefined,
    put: (id: string) => void,
    none?: string,
  ) => (
    <Field label={label}>
      {(id) => (
        <select id={id} className="select w-full" value={value ?? ""} onChange={(e) => put(e.target.value)}>
          {none !== undefined && <option value="">{none}</option>}
          {words.map((w) => (
            <option key={w.id} value={w.id}>
              {w.name}
            </option>
          ))}
        </select>
      )}
    </Field>
  );
  switch (step.do) {
    case "clean": {
      const cleaner = v.cleaners.find((c) => c.id === step.with);
      return (
        <div className="grid gap-x-3 sm:grid-cols-2">
          {choose("Cleaner", v.cleaners, step.with, (id) => {
            const rinses = v.cleaners.find((c) => c.id === id)?.rinses ?? 0;
            set({ with: id, rinse: rinses > 0 || undefined });
          })}
          <NumberField
            label="Passes"
            value={step.passes ?? 1}
            min={1}
            max={20}
            whole
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
          {choose("How", v.hows, step.how ?? "hand", (how) =>
            set({ how, grit: how === "pad" ? undefined : (step.grit ?? 220) }),
          )}
          {step.how !== "pad" && (
            <NumberField
              label="Grit"
              value={step.grit}
              min={24}
              max={5000}
              whole
              required
              hint="180–240 keys a sound film"
              onChange={(grit) => set({ grit })}
            />
          )}
          <Check
            label="Through to the bare material"
            on={!!step.through}
            onChange={(on) => set({ through: on || undefined })}
          />
        </div>
      );
    case "coat": {
      const product = v.products.find((p) => p.id === step.product);
      return (
        <div className="grid gap-x-3 sm:grid-cols-2">
          {choose("Product", v.products, step.product, (id) => set({ product: id, additive: undefined }))}
          <NumberField
            label="Coats"
            value={step.coats ?? 1}
            min={1}
            max={20}
            whole
            required
            onChange={(coats) => set({ coats })}
          />
          <NumberField
            label="Wait after each coat"
            unit="h"
            value={step.wait_h}
            min={0}
            max={8760}
            hint="Empty: as soon as the workshop's air allows"
            onChange={(wait_h) => set({ wait_h })}
          />
          {choose("With", v.methods, step.method ?? "brush", (method) => set({ method }))}
          {choose("Where", v.scopes, step.scope ?? "all", (id) => set({ scope: id === "all" ? undefined : id }))}
          {product &&
            (product.role === "clear" || product.role === "paint") &&
            choose("Sheen", v.gloss, step.sheen, (id) => set({ sheen: id || undefined }), "the product's own")}
          {product?.role === "paint" && (
            <ColourField
              label="Colour, if not the target's"
              value={step.colour}
              onChange={(colour) => set({ colour })}
            />
          )}
          {product?.takes_additive && (
            <NumberField
              label="Bonding additive, parts to one of paint"
              value={step.additive?.ratio}
              min={0}
              max={2}
              hint="0.5 is half; empty is none"
              onChange={(ratio) =>
                set({
                  additive: ratio ? { product: "bonding_additive", ratio, coats: step.additive?.coats } : undefined,
                })
              }
            />
          )}
          {step.additive && (
            <Check
              label="In the first coat only"
              on={step.additive.coats === "first"}
              onChange={(on) =>
                set({
                  additive: {
                    product: "bonding_additive",
                    ratio: step.additive?.ratio ?? 0.5,
                    coats: on ? "first" : undefined,
                  },
                })
              }
            />
          )}
        </div>
      );
    }
    case "wait":
      return (
        <NumberField
          label="Wait"
          unit="h"
          value={step.hours}
          min={0}
          max={87600}
          required
          onChange={(hours) => set({ hours })}
        />
      );
    case "fill":
      return choose("Filler", v.fillers, step.with, (id) => set({ with: id }));
    case "strip":
      return choose("How", v.strips, step.how, (how) => set({ how }));
    case "effect":
      return choose("Effect", v.effects, step.effect, (effect) => set({ effect }));
    case "remove":
    case "repair":
    case "mask":
      return (
        <TextField
          label="What"
          value={step.what ?? ""}
          max={200}
          onChange={(what) => (what || step.do !== "remove") && set({ what: what || undefined })}
        />
      );
    case "test":
      return (
        <NumberField
          label="Rating on the cross-cut scale"
          unit="of 5"
          value={step.rating}
          min={0}
          max={5}
          whole
          required
          onChange={(rating) => set({ rating })}
        />
      );
    default:
      return <p className="text-secondary">There is nothing more to say about this step.</p>;
  }
}

export function Check({ label, on, onChange }: { label: string; on: boolean; onChange: (on: boolean) => void }) {
  return (
    <label className="mb-2 flex min-h-10 cursor-pointer items-center gap-2">
      <input
        type="checkbox"
        className="checkbox checkbox-primary"
        checked={on}
        onChange={(e) => onChange(e.target.checked)}
      />
      {label}
    </label>
  );
}
