import { useSortable } from "@dnd-kit/sortable";
import { ArrowDown, ArrowUp, CircleCheck, Copy, GripVertical, Plus, Trash2 } from "lucide-react";
import { memo, useEffect, useRef } from "react";
import type { Finding, Step, Verdict } from "../api/client";
import { StepIcon } from "../steps/icons";
import { StepEditor } from "../steps/StepEditor";
import { equalProps } from "../ui/equal";
import { useName } from "../ui/focus";
import { Joint } from "../ui/Mark";

type Props = {
  n: number; // the step's number, from 1
  of: number;
  step: Step;
  title: string;
  notes: string | undefined;
  findings: Finding[];
  chosen: boolean;
  open: boolean;
  fresh: boolean; // what a previewed fix would change
  frozen: boolean; // only previewed
  done: string[]; // how it was done, a coat each
  locked: boolean; // it was done, and cannot be changed any more
  hand: Hand;
};

/** Hand is what can be done to a step of the plan, by its number. It is the same at every drawing. */
export type Hand = {
  choose: (n: number) => void;
  open: (n: number | undefined) => void;
  change: (n: number, s: Step) => void;
  move: (n: number, to: number) => void;
  again: (n: number) => void;
  after: (n: number) => void;
  remove: (n: number) => void;
};

/** Row is one step of the plan, with its findings; opened, it is edited there. */
export const Row = memo(function Row(p: Props) {
  const name = useName<HTMLButtonElement>(`row ${p.n}`);
  const { attributes, listeners, setNodeRef, setActivatorNodeRef, transform, isDragging } = useSortable({
    id: p.n,
    disabled: p.frozen || p.locked,
  });
  const el = useRef<HTMLLIElement>(null);
  useEffect(() => {
    if (p.open) el.current?.scrollIntoView({ block: "nearest" });
  }, [p.open]);
  const worst = p.findings.find((f) => f.severity === "fail") ?? p.findings.find((f) => f.severity === "watch");
  const verdict: Verdict | undefined = worst && (worst.severity === "fail" ? "fails" : "watch");
  const edge = p.open ? "border-primary" : p.chosen ? "border-accent" : "border-base-300";
  return (
    <li
      ref={(node) => {
        el.current = node;
        setNodeRef(node);
      }}
      data-step={p.n}
      className={`rounded border bg-base-100 ${edge} ${p.fresh ? "settles border-accent border-dashed" : ""} ${isDragging ? "relative z-10 shadow-lg" : ""}`}
      style={transform ? { transform: `translateY(${transform.y}px)` } : undefined}
    >
      <div className="flex items-stretch" data-head>
        {!p.frozen && !p.locked && (
          <button
            ref={setActivatorNodeRef}
            type="button"
            {...attributes}
            {...listeners}
            tabIndex={-1}
            data-handle
            aria-label={`Drag step ${p.n}`}
            className="no-print grid w-8 shrink-0 cursor-grab max-sm:hidden touch-none place-items-center text-secondary hover:bg-base-200"
          >
            <GripVertical className="size-5" aria-hidden="true" />
          </button>
        )}
        <button
          ref={name}
          type="button"
          data-row={p.n}
          data-is={whatOf(p.step)}
          data-worst={worst?.code}
          disabled={p.frozen}
          className="flex min-h-11 min-w-0 flex-1 items-center gap-2.5 py-0.5 pr-2.5 pl-1 max-sm:gap-1.5 text-left hover:bg-base-200 disabled:cursor-default"
          aria-expanded={p.locked ? undefined : p.open}
          data-done={p.done.length || undefined}
          onFocus={() => p.chosen || p.hand.choose(p.n)}
          onClick={() => !p.locked && p.hand.open(p.open ? undefined : p.n)}
        >
          <span className="w-5 shrink-0 text-right font-head text-secondary tabular-nums">{p.n}</span>
          {p.locked ? (
            <CircleCheck className="size-7 shrink-0 text-success" aria-label={p.done.length ? "Done" : "Passed over"} />
          ) : (
            <StepIcon kind={p.step.do} className="size-7 text-primary" />
          )}
          <span className="min-w-0 flex-1 leading-tight">
            <span className="block font-medium">{p.title}</span>
            <span className="block text-secondary text-sm">{p.locked ? "" : p.notes}</span>
            {p.done.map((d) => (
              <span key={d} className="block text-sm text-success">
                {d}
              </span>
            ))}
            {p.locked && !p.done.length && p.step.do !== "wait" && (
              <span className="block text-secondary text-sm">left out, or not logged</span>
            )}
            {worst && (
              <span className={`block font-medium text-sm ${verdict === "fails" ? "text-error" : "text-warning"}`}>
                {worst.title}
              </span>
            )}
          </span>
          {verdict && <Joint verdict={verdict} className="size-6" />}
        </button>
      </div>
      {p.open && !p.frozen && !p.locked && (
        <div className="border-base-300 border-t p-3">
          <StepEditor step={p.step} onChange={(s) => p.hand.change(p.n, s)} />
          <div className="mt-1 flex flex-wrap gap-1">
            <button
              data-do="later"
              type="button"
              className="btn"
              disabled={p.n === p.of}
              onClick={() => p.hand.move(p.n, p.n + 1)}
            >
              <ArrowUp className="size-4" aria-hidden="true" /> Later
            </button>
            <button
              data-do="earlier"
              type="button"
              className="btn"
              disabled={p.n === 1}
              onClick={() => p.hand.move(p.n, p.n - 1)}
            >
              <ArrowDown className="size-4" aria-hidden="true" /> Earlier
            </button>
            <button data-do="again" type="button" className="btn" onClick={() => p.hand.again(p.n)}>
              <Copy className="size-4" aria-hidden="true" /> Duplicate
            </button>
            <button data-do="after" type="button" className="btn" onClick={() => p.hand.after(p.n)}>
              <Plus className="size-4" aria-hidden="true" /> Add a step after it
            </button>
            <span className="flex-1" />
            <button
              data-do="remove"
              type="button"
              className="btn btn-outline btn-error"
              onClick={() => p.hand.remove(p.n)}
            >
              <Trash2 className="size-4" aria-hidden="true" /> Remove
            </button>
          </div>
        </div>
      )}
    </li>
  );
}, sameRow);

/** whatOf is the product of a step, or its action. */
export const whatOf = (s: Step) => s.product ?? s.effect ?? s.with ?? s.do;

/** Unchanged findings are the same, though their list is a new one. */
function sameRow({ findings: a, done: c, ...x }: Props, { findings: b, done: d, ...y }: Props): boolean {
  return equalProps(x, y) && c.join() === d.join() && a.length === b.length && a.every((f, i) => f === b[i]);
}
