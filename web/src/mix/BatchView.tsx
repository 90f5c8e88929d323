import { useQuery } from "@tanstack/react-query";
import { BookOpenText, Paintbrush } from "lucide-react";
import { useEffect, useRef } from "react";
import { answer, api, type Schemas, TYPING, why } from "../api/client";
import { useWorkspace } from "../piece/workspace";
import { useLater } from "../ui/later";
import { useKeptText } from "../ui/typed";
import { unbroken } from "../ui/units";
import { Portions } from "./Portions";
import { type Card, withBlend, withMix } from "./useCards";

type BatchProps = {
  card: Card;
  onOpen: (which: "mix" | "lay") => void;
  onChange: ReturnType<typeof useWorkspace>["change"];
};

/** BatchView is what is mixed for one coat, with what may be chosen. */
export function BatchView({ card, onOpen, onChange }: BatchProps) {
  const { id, zone } = useWorkspace();
  const steps = zone.steps ?? [];
  const step = steps[card.step - 1];
  const b = card.batch;
  const put = (next: typeof step) =>
    next && void onChange({ ...zone, steps: steps.map((s, i) => (i === card.step - 1 ? next : s)) });
  return (
    <div className="min-w-0" data-batch={card.id}>
      <h3 className="font-semibold text-lg">
        <bdi>{card.title}</bdi>
        {card.method && <span className="font-normal text-secondary">, {card.method.toLowerCase()}</span>}
      </h3>
      {b?.refused && (
        <p role="alert" className="sheet mt-2 rounded bg-error/10 px-3 py-2 text-error" data-refused>
          {b.refused}
        </p>
      )}
      {b && !b.refused && (
        <>
          {b.needs && <p className="text-secondary">It takes {unbroken(b.needs)}.</p>}
          <Portions batch={b} />
          {[b.life, ...b.notes, b.like, b.left].filter(Boolean).map((says) => (
            <p key={says} className="mt-1" data-note>
              {unbroken(says ?? "")}
            </p>
          ))}
          {card.mix?.keeps.map((says) => (
            <p key={says} className="mt-1 text-secondary">
              {says}
            </p>
          ))}
        </>
      )}
      <div className="mt-3 flex flex-wrap gap-2">
        {card.mix && !b?.refused && (
          <button
            type="button"
            data-open="mix"
            className="btn btn-primary min-h-14 px-5 text-lg"
            onClick={() => onOpen("mix")}
          >
            <BookOpenText className="size-6" aria-hidden="true" /> Mixing card
          </button>
        )}
        {card.lay && (
          <button
            type="button"
            data-open="lay"
            className="btn btn-primary min-h-14 px-5 text-lg"
            onClick={() => onOpen("lay")}
          >
            <Paintbrush className="size-6" aria-hidden="true" /> {card.kind === "work" ? "Card" : "Laying card"}
          </button>
        )}
      </div>
      {step && card.choices.length + (card.amount ? 1 : 0) > 0 && (
        <fieldset className="mt-5 border-base-300 border-t pt-3">
          <legend className="sr-only">How it is mixed</legend>
          {card.choices.map((c) => (
            <div key={c.field} className="mb-3">
              <p className="font-medium text-secondary text-sm">{c.name}</p>
              <div className="mt-1 flex flex-wrap gap-1.5">
                {c.options.map((o) => (
                  <button
                    key={o.id}
                    type="button"
                    data-choose={`${c.field} ${o.id}`}
                    aria-pressed={o.on}
                    className={`min-h-12 rounded border px-3 text-left leading-tight ${o.on ? "border-2 border-primary bg-base-200" : "border-base-300 hover:bg-base-200"}`}
                    onClick={() => put(withMix(step, c.field, o.id, o.value))}
                  >
                    <b className="font-semibold">{o.name}</b>
                    <span className="block text-secondary text-sm">{o.says}</span>
                  </button>
                ))}
              </div>
            </div>
          ))}
          <div className="grid gap-x-4 sm:grid-cols-2">
            {card.amount && (
              <OwnAmount
                kept={`${id}.${zone.id}.${card.step}`}
                litres={step.mix?.paint_l}
                onChange={(l) => put(withMix(step, "paint_l", "", l))}
              />
            )}
            {card.blend && (
              <BlendChoice
                product={step.product ?? ""}
                blended={!!step.mix?.blend}
                onChange={(x) => put(withBlend(step, x))}
              />
            )}
          </div>
        </fieldset>
      )}
    </div>
  );
}

type AmountProps = {
  litres: number | undefined;
  kept: string; // names the coat: what is typed survives a reload
  onChange: (litres: number) => void;
};

/** OwnAmount is how much paint the painter mixes, where that is not what the coat needs. */
function OwnAmount({ litres, kept, onChange }: AmountProps) {
  const [text, keep] = useKeptText(`rutile.amount.${kept}`);
  const setText = (t: string) => keep(t || undefined);
  const typed = useLater(text.trim(), TYPING);
  const read = useQuery({
    queryKey: ["amount", typed],
    enabled: typed !== "",
    retry: false,
    queryFn: ({ signal }) => answer(api.GET("/api/amount", { params: { query: { text: typed } }, signal })),
  });
  const is = read.data?.litres;
  const fresh = typed === text.trim() && typed !== "";
  const applied = useRef(litres ? text : ""); // a text is applied once: an undo is not undone
  const before = useRef(litres);
  useEffect(() => {
    if (before.current !== litres) {
      before.current = litres;
      if (litres !== is) setText(""); // changed elsewhere
    } else if (fresh && is !== undefined && applied.current !== typed) {
      applied.current = typed;
      if (is !== litres) onChange(is);
    }
  });
  return (
    <div className="mb-2">
      <label className="block">
        <span className="mb-0.5 block font-medium text-secondary text-sm">Paint to mix, before any additive</span>
        <input
          className={`input w-full ${fresh && read.isError ? "input-error" : ""}`}
          data-field="mix.paint_l"
          value={text}
          placeholder={litres ? undefined : "what the coat needs"}
          aria-invalid={fresh && read.isError}
          autoComplete="off"
          onChange={(e) => {
            setText(e.target.value);
            if (!e.target.value.trim() && litres) onChange(0);
          }}
        />
      </label>
      {fresh && read.isError ? (
        <p role="alert" className="mt-0.5 text-error text-sm">
          {why(read.error)}
        </p>
      ) : litres ? (
        <p className="mt-0.5 text-sm">
          {is === litres ? `= ${read.data?.says}. ` : "Your own amount. "}
          <button
            type="button"
            data-do="as-needed"
            className="link"
            onClick={() => {
              setText("");
              onChange(0);
            }}
          >
            Mix what the coat needs
          </button>
        </p>
      ) : (
        <p className="mt-0.5 text-secondary text-xs">Such as 350 ml, 1 1/2 cups or a third of a cup</p>
      )}
    </div>
  );
}

type BlendProps = {
  product: string;
  blended: boolean;
  onChange: (b: Schemas["SavedBlend"] | undefined) => void;
};

/** BlendChoice takes a coat as one of the studio's recipes for a blend. */
function BlendChoice({ product, blended, onChange }: BlendProps) {
  const q = useQuery({
    queryKey: ["blends"],
    queryFn: ({ signal }) => answer(api.GET("/api/blends", { signal })),
  });
  const fit = q.data?.filter((b) => b.parts.every((p) => p.kind === product)) ?? [];
  if (!fit.length && !blended) return null;
  return (
    <label className="mb-2 block">
      <span className="mb-0.5 block font-medium text-secondary text-sm">Blended by a recipe</span>
      <select
        className="select w-full"
        data-field="mix.blend"
        value={blended ? "kept" : ""}
        onChange={(e) => onChange(fit.find((b) => b.id === e.target.value))}
      >
        <option value="">one paint</option>
        {blended && <option value="kept">as it is</option>}
        {fit.map((b) => (
          <option key={b.id} value={b.id}>
            {b.name || b.result_name}: {b.says}
          </option>
        ))}
      </select>
    </label>
  );
}
