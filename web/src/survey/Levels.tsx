import { memo } from "react";
import type { Schemas } from "../api/client";
import { useVocab } from "../api/vocab";
import { useName } from "../ui/focus";
import { useMeant } from "../ui/meant";

type Level = Schemas["Level"];
type Word = { id: string; name: string; note?: string; less?: boolean };
type Props = {
  label: string;
  field: string;
  words: Word[]; // the usual ones first
  value: Level[] | undefined;
  unseen: string; // what an absent list means
  nothing: string; // what an empty list means
  from?: Level[]; // what an absent list stands for; the first press adds to it
  onChange: (v: Level[] | undefined) => void;
};

/**
 * Levels is a list of things found, each light, marked or heavy; an absent list is not an empty one. A press goes one
 * level up, and after heavy back to none; the keys 0 to 3 set it.
 */
export const Levels = memo(function Levels(p: Props) {
  const { label, field, words, unseen, nothing, from = NONE } = p;
  const [value, onChange] = useMeant(p.value, p.onChange);
  const { levels } = useVocab();
  const all = value ?? from;
  const of = (id: string) => all.find((l) => l.id === id)?.level ?? 0;
  const set = (id: string, level: number) => {
    const rest = all.filter((l) => l.id !== id);
    onChange(level ? [...rest, { id, level }] : rest);
  };
  const up = (n: number) => (n + 1) % levels.length;
  const chip = (w: Word) => {
    const n = of(w.id);
    return (
      <button
        key={w.id}
        type="button"
        data-level={`${w.id} ${n}`}
        title={`${levels[n]}; press for ${levels[up(n)]}, or 0 to ${levels.length - 1}`}
        className={`flex min-h-11 items-center gap-2 rounded border px-2.5 text-left leading-tight ${n ? `border-primary font-semibold ${value ? "bg-base-200" : "border-dashed bg-base-100"}` : "border-base-300 bg-base-100 hover:border-accent"}`}
        onClick={() => set(w.id, up(n))}
        onKeyDown={(e) => {
          if (!/^\d$/.test(e.key) || !levels[Number(e.key)]) return;
          e.preventDefault();
          e.stopPropagation();
          set(w.id, Number(e.key));
        }}
      >
        <Dabs level={n} />
        <span>
          {w.name}
          <span className={n > 0 ? "block text-sm" : "sr-only"}> {levels[n]}</span>
        </span>
      </button>
    );
  };
  const shown = words.filter((w) => !w.less || of(w.id) > 0);
  const rest = words.filter((w) => !shown.includes(w));
  return (
    <fieldset className="mb-3 min-w-0">
      <legend className="mb-0.5 font-medium text-secondary text-sm">{label}</legend>
      <div className="flex flex-wrap gap-1.5">
        <Whole on={value === undefined} field={field} says={unseen} onPress={() => onChange(undefined)} />
        <Whole on={value?.length === 0} nothing={field} says={nothing} onPress={() => onChange([])} />
        {shown.map(chip)}
      </div>
      {rest.length > 0 && (
        <details className="mt-1.5">
          <summary className="inline-flex min-h-8 items-center text-primary text-sm underline underline-offset-2">
            {rest.length} less usual
          </summary>
          <div className="mt-1 flex flex-wrap gap-1.5">{rest.map(chip)}</div>
        </details>
      )}
    </fieldset>
  );
});

const NONE: Level[] = [];

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

/** Dabs show a level as so many dabs of dirt. */
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
