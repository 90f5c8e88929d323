import { closestCenter, DndContext, type DragEndEvent, PointerSensor, useSensor, useSensors } from "@dnd-kit/core";
import { restrictToParentElement, restrictToVerticalAxis } from "@dnd-kit/modifiers";
import { rectSortingStrategy, SortableContext } from "@dnd-kit/sortable";
import { Plus } from "lucide-react";
import { Fragment, useMemo, useRef, useState } from "react";
import type { Finding, Schemas, Step } from "../api/client";
import { nameOf, soilsSay, useVocab } from "../api/vocab";
import { useKeys } from "../frame/keys";
import { useWorkspace } from "../piece/workspace";
import { bandSays, Cut, CutList } from "../section/Cut";
import { type Band, faultsAt, layCut } from "../section/layout";
import { StepPicker } from "../steps/StepPicker";
import { localOf } from "../ui/clock";
import { focusOn, showOn, useName } from "../ui/focus";
import { clock, list, type Units, useUnits } from "../ui/units";
import { Leaders, useNarrow } from "./Leaders";
import { type Hand, Row } from "./Row";
import { useStepWords } from "./useStepWords";

/**
 * Plan is the plan and the cross-section in one: the steps from the bottom up, like the coats, each connected to its
 * layer or to the face it works on.
 */
export function Plan() {
  const workspace = useWorkspace();
  const { zone, trial, picking, step: chosen, choose, pick: setPicking } = workspace;
  const v = useVocab();
  const u = useUnits();
  const [open, setOpen] = useState<number>();
  const [hovered, setHovered] = useState<Band>();
  const rows = useRef<HTMLDivElement>(null);
  const cut = useRef<HTMLDivElement>(null);
  const frozen = !!trial; // a fix is only previewed
  const steps = trial?.steps ?? zone.steps ?? NO_STEPS;
  const judged = workspace.seen;
  const narrow = useNarrow(rows, 560);
  const words = useStepWords(steps, judged?.section?.steps, workspace.current, workspace.silent);
  const addButton = useName<HTMLButtonElement>("add");
  const stepsSoon = workspace.steps;
  // What was done can no longer be changed: of a step of which some coats were laid only their number.
  const done = workspace.judged?.log;
  const past = Math.min(done?.past ?? 0, steps.length);
  const locked = Math.min(past + (done?.laid ? 1 : 0), steps.length);
  const moveTo = (from: number, to: number) => {
    const s = steps[from - 1];
    if (!s || to <= locked || from <= locked || to > steps.length || to === from) return;
    const rest = steps.filter((_, i) => i !== from - 1);
    const drawn = stepsSoon([...rest.slice(0, to - 1), s, ...rest.slice(to - 1)], () => {
      choose(to);
      setOpen((o) => (o === undefined ? o : placeAfter(o, from, to)));
    });
    focusOn(`row ${to}`, drawn);
  };
  const remove = (n: number) => {
    if (n <= locked) return;
    const left = steps.length - 1;
    const drawn = stepsSoon(
      steps.filter((_, i) => i !== n - 1),
      () => {
        setOpen(undefined);
        choose(left ? Math.min(n, left) : undefined);
      },
    );
    focusOn(left ? `row ${Math.min(n, left)}` : "add", drawn);
  };
  const again = (n: number) => {
    const s = steps[n - 1];
    if (!s || n < locked) return;
    const drawn = stepsSoon([...steps.slice(0, n), { ...s }, ...steps.slice(n)], () => {
      choose(n + 1);
      setOpen((o) => (o !== undefined && o >= n ? o + 1 : o));
    });
    focusOn(`row ${n + 1}`, drawn);
  };
  const pick = (wished: number, s: Step) => {
    const at = Math.max(wished, locked);
    const drawn = stepsSoon([...steps.slice(0, at), s, ...steps.slice(at)], () => {
      choose(at + 1);
      setOpen(undefined);
      setPicking(undefined);
    });
    // The focus stays where the next step is added.
    focusOn(at === steps.length ? "add" : `row ${at + 1}`, drawn);
  };
  const latest = useRef<Hand>(undefined);
  latest.current = {
    choose,
    open: (n) => {
      setOpen(n);
      if (n) choose(n);
    },
    change: (n, s) => void workspace.steps(steps.map((x, i) => (i === n - 1 ? s : x))),
    move: moveTo,
    again,
    after: setPicking,
    remove,
  };
  const hand = useMemo(() => steady(latest), []);
  const on = (f: (n: number) => void) => () => chosen !== undefined && chosen <= steps.length && f(chosen);
  useKeys(
    "Plan",
    frozen
      ? []
      : [
          { key: "n", says: "Add the next step on top", run: () => setPicking(steps.length) },
          { key: "a", says: "Add a step after the selected one", run: on(setPicking) },
          {
            key: "ArrowUp",
            says: "Select the step above",
            run: () => focusOn(`row ${Math.min(steps.length, (chosen ?? 0) + 1)}`),
          },
          {
            key: "ArrowDown",
            says: "Select the step below",
            run: () => focusOn(`row ${Math.max(1, (chosen ?? 2) - 1)}`),
          },
          { key: "Alt+ArrowUp", says: "Move it up (later)", run: on((n) => moveTo(n, n + 1)) },
          { key: "Alt+ArrowDown", says: "Move it down (earlier)", run: on((n) => moveTo(n, n - 1)) },
          { key: "d", says: "Duplicate it", run: on(again) },
          { key: "Delete", says: "Remove it", run: on(remove) },
        ],
  );
  const sensors = useSensors(useSensor(PointerSensor, { activationConstraint: { distance: 6 } }));
  const onDragEnd = ({ active, over }: DragEndEvent) => over && moveTo(Number(active.id), Number(over.id));

  const section = judged?.section;
  const cutWidth = narrow ? 76 : 208;
  // As tall as the rows are while none is open: it must not move when one is opened.
  const height = Math.min(500, ROW * (steps.length + 2));
  const drawing = useMemo(() => (section ? layCut(section, cutWidth, height) : undefined), [section, cutWidth, height]);
  const press = (b: Band) => {
    if (b.l.step) {
      choose(b.l.step);
      setOpen(b.l.step);
      showOn(`row ${b.l.step}`);
    } else workspace.toField(b.l.kind === "finish" ? "finish" : "substrate");
  };
  const ids = useMemo(() => Array.from({ length: steps.length }, (_, i) => i + 1), [steps.length]);
  const planned = useMemo(() => new Set((zone.steps ?? []).map((s) => JSON.stringify(s))), [zone.steps]);
  const byStep = useMemo(() => gather(judged?.findings ?? []), [judged]);
  const faults = useMemo(
    () => (section && drawing ? faultsAt(section, drawing, worstOf(byStep)) : undefined),
    [section, drawing, byStep],
  );
  const soils = zone.soils ? soilsSay(v, zone.soils) : "not yet checked for dirt";
  const picker = (at: number) =>
    picking === at && !frozen ? (
      <li className="list-none">
        <StepPicker
          at={at}
          onPick={(s) => pick(at, s)}
          onClose={() => {
            setPicking(undefined);
            focusOn("add");
          }}
        />
      </li>
    ) : null;
  return (
    <div>
      <div className="relative flex items-end gap-7 sm:gap-12">
        {section && drawing && (
          <div ref={cut} className="sticky bottom-20 shrink-0 self-end lg:bottom-2">
            <Cut
              section={section}
              drawing={drawing}
              width={cutWidth}
              chosen={hovered?.l.step ?? chosen}
              faults={faults}
              onHover={setHovered}
              onChoose={press}
            />
            <CutList drawing={drawing} />
          </div>
        )}
        <div ref={rows} className="relative min-w-0 flex-1">
          {drawing && section && (
            <Leaders
              section={section}
              drawing={drawing}
              chosen={hovered?.l.step ?? chosen}
              cut={cut}
              shape={`${steps.length} ${open} ${picking} ${frozen}`}
            />
          )}
          <DndContext
            sensors={sensors}
            collisionDetection={closestCenter}
            modifiers={[restrictToVerticalAxis, restrictToParentElement]}
            onDragEnd={onDragEnd}
          >
            <SortableContext items={ids} strategy={rectSortingStrategy}>
              <ol className="flex flex-col-reverse gap-0.5" aria-label="The plan, from the bottom up">
                <BaseRow
                  at="substrate"
                  title={nameOf(v.substrates, zone.substrate)}
                  notes={[zone.veneer ? "veneer; the material" : "the material", zone.finish === "none" && soils]
                    .filter(Boolean)
                    .join(", ")}
                  onPress={() => workspace.toField("substrate")}
                />
                {zone.finish !== "none" && (
                  <BaseRow
                    at="finish"
                    title={nameOf(v.finishes, zone.finish ?? "unknown")}
                    notes={["present finish", nameOf(v.gloss, zone.gloss), soils].filter(Boolean).join(", ")}
                    onPress={() => workspace.toField("finish")}
                  />
                )}
                {!locked && picker(0)}
                {steps.map((s, i) => {
                  const n = i + 1;
                  return (
                    <Fragment key={n}>
                      <Row
                        n={n}
                        of={steps.length}
                        step={s}
                        title={words[i]?.title ?? ""}
                        notes={words[i]?.notes}
                        findings={byStep.get(n) ?? NONE}
                        chosen={chosen === n}
                        open={open === n}
                        fresh={frozen && !planned.has(JSON.stringify(s))}
                        frozen={frozen}
                        done={done?.done.filter((d) => d.step === n).map((d) => doneSays(d, u)) ?? NO_DONE}
                        locked={n <= past}
                        hand={hand}
                      />
                      {n < steps.length && n >= locked && picker(n)}
                    </Fragment>
                  );
                })}
                {steps.length > 0 && picker(steps.length)}
                {!frozen && picking !== steps.length && (
                  <li className="no-print">
                    <button
                      ref={addButton}
                      type="button"
                      data-add
                      className="btn btn-block h-12 border-primary border-dashed bg-base-100 text-primary"
                      onClick={() => setPicking(steps.length)}
                    >
                      <Plus className="size-5" aria-hidden="true" />
                      {steps.length ? "Add the next step" : "Add the first step"}
                    </button>
                  </li>
                )}
                {steps.length === 0 && !frozen && (
                  <li>
                    <p className="py-1 text-secondary">
                      Nothing is planned yet. Plans are read from the bottom up, like the coats: clean, sand, dust off,
                      prime, paint, seal.
                    </p>
                  </li>
                )}
              </ol>
            </SortableContext>
          </DndContext>
        </div>
      </div>
      {done?.done.some((d) => !d.step) && (
        <p className="mt-2">
          Also done, and not planned:{" "}
          {list(done.done.filter((d) => !d.step).map((d) => `${d.title.toLowerCase()} (${clock(localOf(d.at), u)})`))}.
        </p>
      )}
      <p className="no-print mt-2 min-h-10 text-secondary text-sm max-sm:hidden" aria-hidden="true">
        {hovered ? `${bandSays(hovered, u)}.` : "Point at a layer to read about it; click it to change it."}
      </p>
    </div>
  );
}

/** steady are actions that stay the same while what they do follows the plan. */
function steady(latest: React.RefObject<Hand | undefined>): Hand {
  return {
    choose: (n) => latest.current?.choose(n),
    open: (n) => latest.current?.open(n),
    change: (n, s) => latest.current?.change(n, s),
    move: (n, to) => latest.current?.move(n, to),
    again: (n) => latest.current?.again(n),
    after: (n) => latest.current?.after(n),
    remove: (n) => latest.current?.remove(n),
  };
}

/** placeAfter is where row n is after the row at from was moved to to. */
function placeAfter(n: number, from: number, to: number): number {
  if (n === from) return to;
  if (from < n && n <= to) return n - 1;
  return to <= n && n < from ? n + 1 : n;
}

/** doneSays is when and how a step was done. */
const doneSays = (d: Schemas["DoneStep"], u: Units) =>
  [`${d.coat ? `coat ${d.coat}` : "done"} ${clock(localOf(d.at), u)}`, d.otherwise ? d.title : "", d.says]
    .filter(Boolean)
    .join(", ");

const NO_DONE: string[] = [];
const ROW = 46;
const NONE: Finding[] = [];
const NO_STEPS: Step[] = [];

function worstOf(byStep: Map<number, Finding[]>) {
  const out = new Map<number, "watch" | "fails">();
  for (const [step, fs] of byStep) {
    if (fs.some((f) => f.severity === "fail")) out.set(step, "fails");
    else if (fs.some((f) => f.severity === "watch")) out.set(step, "watch");
  }
  return out;
}

function gather(findings: Finding[]) {
  const out = new Map<number, Finding[]>();
  for (const f of findings) {
    if (f.step) out.set(f.step, [...(out.get(f.step) ?? []), f]);
  }
  return out;
}

function BaseRow({ at, title, notes, onPress }: { at: string; title: string; notes: string; onPress: () => void }) {
  return (
    <li data-step={at}>
      <button
        type="button"
        data-head
        className="wash flex min-h-11 w-full items-center rounded border border-base-300 px-3 py-0.5 text-left leading-tight hover:bg-base-200"
        onClick={onPress}
      >
        <span className="min-w-0">
          <span className="block font-medium">{title}</span>
          <span className="block text-secondary text-sm">{notes}</span>
        </span>
      </button>
    </li>
  );
}
