import { ArrowDown, ArrowUp, Copy, Plus, Trash2 } from "lucide-react";
import type { Finding, Step, Verdict } from "../api/client";
import { stepNotes, stepTitle, useVocab } from "../piece/vocab";
import { Joint } from "../ui/Mark";
import { StepIcon } from "./icons";
import { StepEditor } from "./StepEditor";
import { StepPicker } from "./StepPicker";

type Props = {
  steps: Step[];
  findings: Finding[];
  open: number | undefined; // from 1
  onOpen: (step: number | undefined) => void;
  picking: string | undefined; // what the picker is asked for, while it is open
  onPicking: (query: string | undefined) => void;
  onChange: (steps: Step[]) => void;
};

/** Steps is the plan of a zone, from the first wash to the last coat. */
export function Steps({ steps, findings, open, onOpen, picking, onPicking, onChange }: Props) {
  const v = useVocab();
  const replace = (i: number, s: Step) => onChange(steps.map((x, j) => (j === i ? s : x)));
  const move = (i: number, by: number) => {
    const to = i + by;
    const s = steps[i];
    if (!s || to < 0 || to >= steps.length) return;
    const rest = steps.filter((_, j) => j !== i);
    onChange([...rest.slice(0, to), s, ...rest.slice(to)]);
    onOpen(to + 1);
  };
  const at = open ?? 0;
  return (
    <div>
      {steps.length === 0 && (
        <p className="mb-2 text-secondary">
          No step yet. A plan usually goes: clean, sand, dust off, prime, paint, seal. Begin with what takes the grease
          off.
        </p>
      )}
      <ol className="grid gap-1">
        {steps.map((s, i) => {
          const n = i + 1;
          const worst = worstAt(findings, n);
          const isOpen = at === n;
          return (
            // biome-ignore lint/suspicious/noArrayIndexKey: a step's place is its identity
            <li key={i} className={`rounded border ${isOpen ? "border-primary" : "border-base-300"} bg-base-100`}>
              <div className="flex items-stretch">
                <button
                  type="button"
                  className="flex min-h-12 min-w-0 flex-1 cursor-pointer items-center gap-2.5 px-2.5 py-1.5 text-left hover:bg-base-200"
                  aria-expanded={isOpen}
                  onClick={() => onOpen(isOpen ? undefined : n)}
                >
                  <span className="w-5 text-right font-head text-secondary tabular-nums">{n}</span>
                  <StepIcon kind={s.do} className="size-5 text-primary" />
                  <span className="min-w-0 flex-1">
                    <span className="block font-medium leading-tight">{stepTitle(v, s)}</span>
                    <span className="block text-secondary text-sm leading-tight">{stepNotes(v, s)}</span>
                  </span>
                  {worst && (
                    <>
                      <Joint verdict={worst} />
                      <span className="sr-only">{worst}</span>
                    </>
                  )}
                </button>
              </div>
              {isOpen && (
                <div className="border-base-300 border-t p-3">
                  <StepEditor step={s} onChange={(x) => replace(i, x)} />
                  <div className="mt-1 flex flex-wrap gap-1">
                    <button type="button" className="btn btn-sm" disabled={i === 0} onClick={() => move(i, -1)}>
                      <ArrowUp className="size-4" aria-hidden="true" /> Earlier
                    </button>
                    <button
                      type="button"
                      className="btn btn-sm"
                      disabled={n === steps.length}
                      onClick={() => move(i, 1)}
                    >
                      <ArrowDown className="size-4" aria-hidden="true" /> Later
                    </button>
                    <button
                      type="button"
                      className="btn btn-sm"
                      onClick={() => {
                        onChange([...steps.slice(0, n), { ...s }, ...steps.slice(n)]);
                        onOpen(n + 1);
                      }}
                    >
                      <Copy className="size-4" aria-hidden="true" /> Again
                    </button>
                    <span className="flex-1" />
                    <button
                      type="button"
                      className="btn btn-sm btn-outline btn-error"
                      onClick={() => {
                        onChange(steps.filter((_, j) => j !== i));
                        onOpen(undefined);
                      }}
                    >
                      <Trash2 className="size-4" aria-hidden="true" /> Remove
                    </button>
                  </div>
                </div>
              )}
            </li>
          );
        })}
      </ol>
      <div className="mt-2">
        {picking !== undefined ? (
          <StepPicker
            key={picking}
            asked={picking}
            onClose={() => onPicking(undefined)}
            onPick={(s) => {
              const to = at || steps.length;
              onChange([...steps.slice(0, to), s, ...steps.slice(to)]);
              onOpen(to + 1);
              onPicking(undefined);
            }}
          />
        ) : (
          <button type="button" className="btn btn-block btn-outline border-base-300" onClick={() => onPicking("")}>
            <Plus className="size-5" aria-hidden="true" /> {at ? `Add a step after ${at}` : "Add a step"}
          </button>
        )}
      </div>
    </div>
  );
}

function worstAt(findings: Finding[], step: number): Verdict | undefined {
  const here = findings.filter((f) => f.step === step);
  if (here.some((f) => f.severity === "fail")) return "fails";
  if (here.some((f) => f.severity === "watch")) return "watch";
  return undefined;
}
