import { memo, useId } from "react";
import { useName } from "../ui/focus";
import { useOptimisticValue } from "../ui/optimistic";

type Word = { id: string; name: string };
type Props = {
  label: string;
  name?: string; // the field an answer may ask for
  words: Word[]; // from the flattest up
  value: string | undefined;
  none: string; // what an empty choice means
  onChange: (id: string | undefined) => void;
};

/** Ladder picks a sheen by its picture: each rung reflects a window more sharply than the one before. */
export const Ladder = memo(function Ladder({ label, name: field, words, value, none, onChange }: Props) {
  const name = useId();
  const [shown, change] = useOptimisticValue(value ?? "", (id) => onChange(id || undefined));
  const here = useName<HTMLInputElement>(field && `field ${field}`);
  const rung = (w: Word | undefined, i: number) => (
    <label
      key={w?.id ?? "none"}
      className="relative flex min-h-14 min-w-16 flex-1 cursor-pointer flex-col items-center rounded border border-base-300 bg-base-100 p-1 text-center text-sm leading-tight hover:border-accent has-checked:border-primary has-checked:bg-base-200 has-checked:font-semibold has-focus-visible:outline-3 has-focus-visible:outline-accent"
    >
      <input
        ref={(value ?? "") === (w?.id ?? "") ? here : undefined}
        data-field={(value ?? "") === (w?.id ?? "") ? field : undefined}
        type="radio"
        name={name}
        className="sr-only"
        checked={shown === (w?.id ?? "")}
        onChange={() => change(w?.id ?? "")}
      />
      <svg viewBox="0 0 48 20" className="mb-0.5 h-5 w-full" preserveAspectRatio="none" aria-hidden="true">
        <rect width="48" height="20" rx="1" fill="#8a7a63" />
        {w ? (
          <Window sharp={i / (words.length - 1)} />
        ) : (
          <path d="M0 20 48 0M0 0l48 20" stroke="#c8bba3" strokeWidth="1" />
        )}
      </svg>
      {w?.name ?? none}
    </label>
  );
  return (
    <fieldset className="contained mb-3 min-w-0">
      <legend className="mb-0.5 font-medium text-secondary text-sm">{label}</legend>
      <div className="flex flex-wrap gap-1">
        {rung(undefined, 0)}
        {words.map((w, i) => rung(w, i))}
      </div>
    </fieldset>
  );
});

function Window({ sharp }: { sharp: number }) {
  const spread = (1 - sharp) * 9;
  const rings = [3, 2, 1, 0];
  return (
    <>
      {rings.map((r) => (
        <rect
          key={r}
          x={17 - (spread * r) / 2}
          y={5 - (spread * r) / 4}
          width={14 + spread * r}
          height={10 + (spread * r) / 2}
          rx={(1 - sharp) * 5}
          fill="#fff"
          fillOpacity={(0.08 + sharp * 0.72) / (sharp > 0.85 ? (r ? 12 : 1) : 1 + r * 0.7)}
        />
      ))}
      {sharp > 0.7 && <path d="M24 5v10M17 10h14" stroke="#8a7a63" strokeWidth="1" />}
    </>
  );
}
