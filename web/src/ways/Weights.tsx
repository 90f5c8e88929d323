import { useVocab } from "../api/vocab";

const STEPS = [0, 0.25, 0.5, 1, 2, 4];
const WORDS = ["does not count", "little", "less", "normal", "more", "counts most"];

type Props = { weights: Record<string, number>; onWeights: (w: Record<string, number>) => void };

/** Weights say how much each term counts; moving one ranks the plans anew. */
export function Weights({ weights, onWeights }: Props) {
  const v = useVocab();
  const terms = v.ways.terms.filter((t) => t.yours);
  return (
    <fieldset className="mb-3">
      <legend className="flex w-full items-center gap-3">
        <span className="font-medium">What counts</span>
        {Object.values(weights).some((x) => x !== 1) && (
          <button
            data-do="as-usual"
            type="button"
            className="btn btn-ghost btn-sm font-normal"
            onClick={() => onWeights({})}
          >
            All normal
          </button>
        )}
      </legend>
      <div className="grid grid-cols-[repeat(auto-fit,minmax(9rem,1fr))] gap-x-4 gap-y-1">
        {terms.map((t) => {
          const at = Math.max(0, STEPS.indexOf(weights[t.id] ?? 1));
          return (
            <label key={t.id} className="flex min-w-0 flex-col text-sm leading-tight" title={t.says}>
              <span className="flex justify-between gap-2">
                {t.name} <span className="text-secondary">{WORDS[at]}</span>
              </span>
              <input
                type="range"
                min={0}
                max={STEPS.length - 1}
                value={at}
                data-weight={t.id}
                aria-valuetext={WORDS[at]}
                className="h-8 w-full accent-primary"
                onChange={(e) => {
                  const next = { ...weights, [t.id]: STEPS[Number(e.target.value)] ?? 1 };
                  // Something must count.
                  if (terms.some((x) => (next[x.id] ?? 1) > 0)) onWeights(next);
                }}
              />
            </label>
          );
        })}
      </div>
    </fieldset>
  );
}
