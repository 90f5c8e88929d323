import { memo } from "react";
import type { Schemas } from "../api/client";
import { useVocab } from "../api/vocab";
import { useName } from "../ui/focus";
import { useOptimisticValue } from "../ui/optimistic";
import { useStable } from "../ui/stable";

type Level = Schemas["Level"];
type Word = { id: string; name: string; note?: string; less?: boolean };
type Props = {
  label: string;
  field: string;
  words: Word[]; // the common ones first
  value: Level[] | undefined;
  unseen: string; // what an absent list means
  nothing: string; // what an empty list means
  from?: Level[]; // what an absent list means; the first click adds to it
  onChange: (v: Level[] | undefined) => void;
};

/**
 * Levels is a list of things found, each light, marked or heavy; an absent list is not an empty one. A click goes one
 * level up, and after heavy back to none; the keys 0 to 3 set it.
 */
export const Levels = memo(function Levels(p: Props) {
  const { label, field, words, unseen, nothing, from = NONE } = p;
  const [value, onChange] = useOptimisticValue(p.value, p.onChange);
  const all = value ?? from;
  const of = (id: string) => all.find((l) => l.id === id)?.level ?? 0;
  const set = useStable((id: string, level: number) => {
    const rest = all.filter((l) => l.id !== id);
    onChange(level ? [...rest, { id, level }] : rest);
  });
  const chip = (w: Word) => <Chip key={w.id} id={w.id} name={w.name} level={of(w.id)} given={!!value} onLevel={set} />;
  const shown = words.filter((w) => !w.less || of(w.id) > 0);
  const rest = words.filter((w) => !shown.includes(w));
  return (
    <fieldset className="contained mb-3 min-w-0">
      <legend className="mb-0.5 font-medium text-secondary text-sm">{label}</legend>
      <div className="flex flex-wrap gap-1.5">
        <Whole on={value === undefined} field={field} says={unseen} onPress={() => onChange(undefined)} />
        <Whole on={value?.length === 0} nothing={field} says={nothing} onPress={() => onChange([])} />
        {shown.map(chip)}
      </div>
      {rest.length > 0 && (
        <details className="contained mt-1.5">
          <summary className="inline-flex min-h-8 items-center text-primary text-sm underline underline-offset-2">
            {rest.length} less common
          </summary>
          <div className="mt-1 flex flex-wrap gap-1.5">{rest.map(chip)}</div>
        </details>
      )}
    </fieldset>
  );
});

const NONE: Level[] = [];

type ChipProps = {
  id: string;
  name: string;
  level: number;
  given: boolean; // by the painter, and not by the default
  onLevel: (id: string, level: number) => void;
};

const Chip = memo(function Chip({ id, name, level, given, onLevel }: ChipProps) {
  const { levels } = useVocab();
  const up = (level + 1) % levels.length;
  return (
    <button
      type="button"
      data-level={`${id} ${level}`}
      title={`${levels[level]}; press for ${levels[up]}, or 0 to ${levels.length - 1}`}
      className={`flex min-h-11 items-center gap-2 rounded border px-2.5 text-left leading-tight ${level ? `border-primary font-semibold ${given ? "bg-base-200" : "border-dashed bg-base-100"}` : "border-base-300 bg-base-100 hover:border-accent"}`}
      onClick={() => onLevel(id, up)}
      onKeyDown={(e) => {
        if (!/^\d$/.test(e.key) || !levels[Number(e.key)]) return;
        e.preventDefault();
        e.stopPropagation();
        onLevel(id, Number(e.key));
      }}
    >
      <Dabs level={level} />
      <span>
        {name}
        <span className={level > 0 ? "block text-sm" : "sr-only"}> {levels[level]}</span>
      </span>
    </button>
  );
});

type WholeProps = { on: boolean; field?: string; nothing?: string; says: string; onPress: () => void };

function Whole({ on, field, nothing, says, onPress }: WholeProps) {
  const ref = useName<HTMLButtonElement>(field && `field ${field}`);
  return (
    <button
      ref={ref}
      type="button"
      data-field={field}
      data-nothing={nothing}
      aria-pressed={on}
      className={`min-h-11 rounded border px-3 text-left leading-tight ${on ? "border-primary bg-base-200 font-semibold" : "border-base-300 border-dashed bg-base-100 hover:border-accent"}`}
      onClick={onPress}
    >
      {says}
    </button>
  );
}

/** Dabs show a level as dabs of dirt. */
function Dabs({ level }: { level: number }) {
  return (
    <svg viewBox="0 0 20 20" className="size-5 shrink-0 text-primary" aria-hidden="true">
      {[
        [5, 14],
        [10, 6],
        [15, 13],
      ].map(([x, y], i) => (
        <circle
          key={x}
          cx={x}
          cy={y}
          r="3.200"
          fill={i < level ? "currentColor" : "none"}
          stroke="currentColor"
          strokeOpacity={i < level ? 1 : 0.45}
          strokeWidth="1.300"
        />
      ))}
    </svg>
  );
}
