import { CalendarClock, Plus, Trash2 } from "lucide-react";
import { useState } from "react";
import type { Patch, Schemas } from "../api/client";
import { useVocab } from "../api/vocab";
import { zoneID } from "../piece/edit";
import { useWorkspace } from "../piece/workspace";
import { FormSection } from "../survey/FormSection";
import { Choice } from "../ui/Choice";
import { daysAfter, today } from "../ui/clock";
import { DateField } from "../ui/DateField";
import { TextField } from "../ui/Field";
import { useName } from "../ui/focus";
import { count } from "../ui/units";
import { CrossCut } from "./drawings";

type Bond = Schemas["Bond"];

const HOLDS = { well: "should hold", barely: "may peel", not: "will peel", meant: "is meant to flake" };

/** PatchesView plans patch tests of the coats of the plan, and records their ratings. */
export function PatchesView() {
  const { zone, judged, change, go } = useWorkspace();
  const bonds = judged?.bonds ?? [];
  const patches = zone.patches ?? [];
  const first = useName<HTMLButtonElement>("field test");
  const [chosen, setChosen] = useState(0);
  const [on, setOn] = useState<Patch["on"]>("hidden");
  const [place, setPlace] = useState("");
  const bond = bonds[Math.min(chosen, bonds.length - 1)];
  const set = (id: string, part: Partial<Patch>) =>
    change({ ...zone, patches: patches.map((p) => (p.id === id ? { ...p, ...part } : p)) });
  const plan = (b: Bond) => {
    const id = zoneID(
      `patch-${patches.length + 1}`,
      patches.map((p) => p.id),
    );
    const { product, over, bare, additive, under } = b;
    change({
      ...zone,
      patches: [
        ...patches,
        {
          id,
          product,
          over,
          bare,
          additive,
          under,
          on,
          place: place || undefined,
          look: daysAfter(today(), b.look_days),
        },
      ],
    });
    setPlace("");
  };
  return (
    <div className="mx-auto max-w-4xl">
      <FormSection title="Plan a patch test" says="As wide as your palm, made exactly like the plan">
        {bond ? (
          <form
            className="grid items-end gap-x-4 sm:grid-cols-[1fr_1fr_auto]"
            onSubmit={(e) => {
              e.preventDefault();
              plan(bond);
            }}
          >
            <div className="sm:col-span-3">
              <Choice
                label="Coat"
                name="test"
                words={bonds.map((b, i) => ({ id: `${i}`, name: `${b.name}: ${HOLDS[b.holds]}` }))}
                value={`${Math.min(chosen, bonds.length - 1)}`}
                onChange={(id) => setChosen(Number(id))}
              />
            </div>
            <Choice
              label="On"
              words={[
                { id: "hidden", name: "a hidden spot of the piece" },
                { id: "board", name: "a test board of the same material" },
              ]}
              value={on}
              onChange={(id) => setOn(id as Patch["on"])}
            />
            <TextField label="Where" of="patch.place" value={place} onChange={setPlace} />
            <button data-do="plan-patch" type="submit" className="btn btn-primary mb-2 h-10">
              <Plus className="size-5" aria-hidden="true" /> Plan it
            </button>
          </form>
        ) : (
          <p className="mb-2">
            There is no coat to test yet.{" "}
            <button
              ref={first}
              type="button"
              data-field="test"
              className="link link-primary"
              onClick={() => go("plan")}
            >
              Plan the coats
            </button>
          </p>
        )}
        {bond && (
          <p className="mb-2 text-secondary text-sm">
            Expected: class {bond.class}. Rate it {count(bond.look_days, "day", "days")} after it was made. A test board
            shows how the coat grips the material; only a hidden spot shows how it grips this piece.
          </p>
        )}
      </FormSection>
      {patches.length > 0 && (
        <FormSection title="Patch tests" says="Each one counts in the verdict once it is rated">
          <ul className="grid gap-3">
            {patches.map((p, i) => (
              <PatchRow
                key={p.id}
                p={p}
                state={judged?.patches[i]?.id === p.id ? judged.patches[i] : undefined}
                onChange={(c) => set(p.id, c)}
                onRemove={() => change({ ...zone, patches: patches.filter((x) => x.id !== p.id) })}
              />
            ))}
          </ul>
        </FormSection>
      )}
      <HowTo />
    </div>
  );
}

type RowProps = {
  p: Patch;
  state: Schemas["PatchState"] | undefined;
  onChange: (c: Partial<Patch>) => void;
  onRemove: () => void;
};

function PatchRow({ p, state, onChange, onRemove }: RowProps) {
  const [again, setAgain] = useState(false);
  const rate = (n: number) => {
    setAgain(false);
    onChange({ class: n, rated: p.rated ?? today() });
  };
  const setMade = (made: string | undefined) =>
    onChange({ made, look: made && daysAfter(made, state?.look_days ?? 7) });
  return (
    <li className="sheet wash rounded-r p-3" data-patch={p.id}>
      <div className="flex flex-wrap items-start gap-x-3">
        <div className="min-w-0 flex-1">
          <h3 className="font-semibold leading-tight">{state?.name ?? p.product}</h3>
          <p className="text-secondary text-sm">
            {p.on === "hidden" ? "In a hidden spot" : "On a test board"}
            {p.place && (
              <>
                : <bdi>{p.place}</bdi>
              </>
            )}
          </p>
        </div>
        <button
          data-do="remove-patch"
          type="button"
          className="btn btn-ghost btn-square text-error"
          aria-label={`Remove the patch test: ${state?.name}`}
          onClick={onRemove}
        >
          <Trash2 className="size-4" aria-hidden="true" />
        </button>
      </div>
      <p className="mt-1 flex gap-2" role="status">
        <CalendarClock className="mt-0.5 size-5 shrink-0 text-secondary" aria-hidden="true" /> {state?.says}
      </p>
      <div className="mt-2 flex flex-wrap items-end gap-x-3">
        {!p.made && (
          <button
            data-do="made"
            type="button"
            className="btn mb-2 h-10 border-base-300 bg-base-100"
            onClick={() => setMade(today())}
          >
            Made today
          </button>
        )}
        <DateField label="Made on" name="patch.made" value={p.made} onChange={setMade} />
        {p.made && (
          <DateField label="Rate from" name="patch.look" value={p.look} onChange={(look) => onChange({ look })} />
        )}
        {p.class !== undefined && (
          <DateField
            label="Rated on"
            name="patch.rated"
            value={p.rated}
            onChange={(rated) => rated && onChange({ rated })}
          />
        )}
      </div>
      <TextField
        label="Note"
        of="patch.note"
        value={p.note ?? ""}
        onChange={(note) => onChange({ note: note || undefined })}
      />
      {p.made &&
        (p.class === undefined || again ? (
          <Rate p={p} onRate={rate} />
        ) : (
          <Rated p={p} onAgain={() => setAgain(true)} />
        ))}
    </li>
  );
}

/** Rated shows what it was rated as. */
function Rated({ p, onAgain }: { p: Patch; onAgain: () => void }) {
  const c = useVocab().cross_cut.find((x) => x.class === p.class);
  if (!c) return null;
  return (
    <div className="flex flex-wrap items-center gap-3">
      <CrossCut n={c.class} gone={c.gone} className="size-16" />
      <p className="min-w-40 flex-1">
        <b className="font-semibold">{c.name}</b>: {c.says.toLowerCase()}
      </p>
      <button
        data-do="rate-again"
        type="button"
        className="btn border-base-300 bg-base-100 font-normal"
        onClick={onAgain}
      >
        Rate it again
      </button>
    </div>
  );
}

/** Rate takes a class by the picture of the grid. */
function Rate({ p, onRate }: { p: Patch; onRate: (n: number) => void }) {
  const v = useVocab();
  return (
    <fieldset className="mt-1">
      <legend className="mb-1 font-medium text-secondary text-sm">Which picture matches best?</legend>
      <div className="grid grid-cols-3 gap-1.5 sm:grid-cols-6">
        {[...v.cross_cut].reverse().map((c) => (
          <button
            data-class={c.class}
            key={c.class}
            type="button"
            aria-pressed={p.class === c.class}
            aria-label={`${c.name}: ${c.says}`}
            className={`flex flex-col rounded border bg-base-100 p-1.5 text-left text-sm leading-tight hover:border-accent ${p.class === c.class ? "border-2 border-primary" : "border-base-300"}`}
            onClick={() => onRate(c.class)}
          >
            <CrossCut n={c.class} gone={c.gone} className="mb-1 w-full" />
            <b className="font-semibold">{c.name}</b>
            <span>{c.says}</span>
          </button>
        ))}
      </div>
    </fieldset>
  );
}

function HowTo() {
  const how = useVocab().cut_how;
  return (
    <details className="mt-1 mb-4">
      <summary className="inline-flex min-h-9 items-center text-primary underline underline-offset-2">
        How to cut and rate it
      </summary>
      <ol className="mt-1 list-decimal pl-6">
        {how.map((h) => (
          <li key={h}>{h}</li>
        ))}
      </ol>
    </details>
  );
}
