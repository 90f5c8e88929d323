import { BookOpen, ChevronRight, Eye, Hammer, Ruler } from "lucide-react";
import { memo, useState } from "react";
import { Link } from "react-router";
import type { Finding, Repair, Verdict } from "../api/client";
import { useWorkspace } from "../piece/workspace";
import { whatOf } from "../plan/Row";
import { useName } from "../ui/focus";
import { Joint, Mark } from "../ui/Mark";
import { date, useUnits } from "../ui/units";
import { Figures } from "./Figures";

type Props = {
  findings: Finding[];
  held: Repair | undefined; // the fix whose preview is held
  onHold: (r: Repair | undefined) => void;
  onPoint: (r: Repair | undefined) => void; // while it is pointed at
  onRepair: (f: Finding, r: Repair) => void;
  onStep: (step: number) => void;
};

const AS: Record<Finding["severity"], Verdict> = { fail: "fails", watch: "watch", note: "sound" };

const key = (r: Repair) => `${r.kind}${r.title}${JSON.stringify(r.steps ?? r.field)}`;

/** Findings lists the findings, with reasons and fixes. A fix is offered once, at the worst finding. */
export const Findings = memo(function Findings({ findings, held, onHold, onPoint, onRepair, onStep }: Props) {
  const u = useUnits();
  const said = findings.filter((f) => f.severity !== "note");
  const notes = findings.filter((f) => f.severity === "note");
  const cautions = notes.filter((f) => f.repairs.some((r) => r.kind === "acknowledge"));
  const worth = notes.filter((f) => !cautions.includes(f));
  const at = new Map<string, number>();
  said.forEach((f, i) => {
    for (const r of f.repairs) if (!at.has(key(r))) at.set(key(r), i);
  });
  const first = said.find((f) => f.repairs.length);
  const press = { onHold, onPoint, onRepair, onStep };
  return (
    <div>
      {said.length === 0 && <p className="mb-3 font-medium">Nothing to fix.</p>}
      <ul className="grid gap-3">
        {said.map((f, i) => (
          <Fault
            key={`${f.code}-${f.step}-${f.title}`}
            f={f}
            here={f.repairs.flatMap((r, n) => (at.get(key(r)) === i ? [n] : [])).join(" ")}
            first={f === first}
            held={held && f.repairs.includes(held) ? held : undefined}
            {...press}
          />
        ))}
      </ul>
      {worth.length > 0 && (
        <section className="contained mt-4">
          <h3 className="mb-1 font-semibold">Worth knowing</h3>
          <ul className="grid gap-2">
            {worth.map((f) => (
              <li key={`${f.code}-${f.step}-${f.title}`} className="border-base-300 border-t pt-2" data-code={f.code}>
                <b className="font-semibold">{f.title}.</b> {f.why}
                <Divided f={f} />
                <Why f={f} onStep={onStep} />
                {f.repairs
                  .filter((r) => r.kind === "edit")
                  .slice(0, 1)
                  .map((r) => (
                    <div key={r.kind} className="mt-1 grid">
                      <RepairRow r={r} held={held === r} {...press} onPress={() => onRepair(f, r)} />
                    </div>
                  ))}
              </li>
            ))}
          </ul>
        </section>
      )}
      {cautions.length > 0 && (
        <section className="contained mt-4">
          <h3 className="mb-1 font-semibold">Cautions</h3>
          <ul className="grid gap-2">
            {cautions.map((f) => (
              <li
                key={`${f.code}-${f.step}`}
                className="flex items-start gap-2 border-base-300 border-t pt-2"
                data-code={f.code}
                data-severity={f.severity}
              >
                <span className="min-w-0 flex-1">
                  <b className="font-semibold">{f.title}.</b> {f.why}
                </span>
                {f.acknowledged ? (
                  <span data-read className="whitespace-nowrap text-secondary text-sm">
                    acknowledged {date(f.acknowledged, u)}
                  </span>
                ) : (
                  f.repairs
                    .filter((r) => r.kind === "acknowledge")
                    .map((r) => (
                      <button
                        key={r.title}
                        type="button"
                        data-repair="acknowledge"
                        aria-label={`${r.title}: ${f.title}`}
                        className="btn border-base-300 bg-base-100 font-normal"
                        onClick={() => onRepair(f, r)}
                      >
                        {r.title}
                      </button>
                    ))
                )}
              </li>
            ))}
          </ul>
        </section>
      )}
    </div>
  );
});

type Press = Pick<Props, "onHold" | "onPoint" | "onRepair" | "onStep">;

type FaultProps = Press & {
  f: Finding;
  here: string; // the numbers of its fixes that are offered here, as comparable text; the others are above
  first: boolean; // the first fix of all is among them
  held: Repair | undefined;
};

/** Fault is one finding. It is drawn anew only when it changes. */
const Fault = memo(function Fault({ f, here, first, held, ...press }: FaultProps) {
  const offered = here ? here.split(" ").flatMap((n) => f.repairs[Number(n)] ?? []) : [];
  return (
    <li className="sheet wash contained rounded-r py-2.5 pr-3 pl-3" data-code={f.code} data-severity={f.severity}>
      <div className="flex items-start gap-2">
        <Joint verdict={AS[f.severity]} className="mt-0.5 size-6" />
        <div className="min-w-0 flex-1">
          <h3 className="font-semibold text-base leading-tight">{f.title}</h3>
          <p className="mt-1">{f.why}</p>
          <Divided f={f} />
        </div>
      </div>
      <Why f={f} onStep={press.onStep} />
      {f.repairs.length > offered.length && (
        <p className="mt-1.5 text-secondary text-sm">
          {offered.length ? "Also fixed by an option above." : "Fixed by an option above."}
        </p>
      )}
      {offered.length > 0 && (
        <div className="mt-2 grid gap-1.5">
          {offered.map((r, i) => (
            <RepairRow
              // biome-ignore lint/suspicious/noArrayIndexKey: the first repair stays the first, whatever it says now
              key={i}
              r={r}
              first={first && i === 0}
              held={held === r}
              {...press}
              onPress={() => press.onRepair(f, r)}
            />
          ))}
        </div>
      )}
    </li>
  );
});

type RowProps = Pick<Press, "onHold" | "onPoint"> & { r: Repair; first?: boolean; held: boolean; onPress: () => void };

/** RepairRow is one fix. Its result is previewed in the cross-section: while pointed at, or held. */
function RepairRow({ r, first, held, onHold, onPoint, onPress }: RowProps) {
  const edit = r.kind === "edit";
  const name = useName<HTMLButtonElement>(first ? "repair" : undefined);
  return (
    <div
      className="flex"
      // Only a moving pointer points: a page that opens under a resting pointer shows its own plan.
      onPointerMove={(e) => edit && e.pointerType === "mouse" && (e.movementX || e.movementY) && onPoint(r)}
      onPointerLeave={(e) => edit && e.pointerType === "mouse" && onPoint(undefined)}
    >
      <button
        ref={name}
        type="button"
        data-repair={r.field ?? r.kind}
        data-steps={r.steps?.map(whatOf).join(" ")}
        className={`btn h-auto min-h-12 flex-1 justify-start border-base-300 bg-base-100 py-1.5 text-left font-medium leading-tight ${edit ? "rounded-r-none text-primary" : ""}`}
        onClick={onPress}
      >
        {edit ? (
          <Hammer className="size-5 shrink-0" aria-hidden="true" />
        ) : (
          <Ruler className="size-5 shrink-0" aria-hidden="true" />
        )}
        <span className="flex-1">{r.title}</span>
        {r.verdict === "fails" ? (
          <span className="max-w-32 text-right font-normal text-secondary text-sm leading-tight">
            other fails remain
          </span>
        ) : (
          r.verdict && (
            <span className="inline-flex items-center gap-1 text-sm">
              <span className="sr-only">result:</span>
              <Mark verdict={r.verdict as Verdict} />
            </span>
          )
        )}
      </button>
      {edit && (
        <button
          type="button"
          data-see={r.steps?.map(whatOf).join(" ")}
          className={`btn btn-square h-auto min-h-12 w-12 rounded-l-none border-base-300 border-l-0 ${held ? "bg-accent text-accent-content" : "bg-base-100"}`}
          aria-pressed={held}
          aria-label={`Preview: ${r.title}`}
          title="Preview"
          onClick={() => onHold(held ? undefined : r)}
        >
          <Eye className="size-5" aria-hidden="true" />
        </button>
      )}
    </div>
  );
}

/** Divided says what good painters disagree about, and leads to the ways of working. */
function Divided({ f }: { f: Finding }) {
  return f.divided ? <ToWays says={f.divided.says === f.why ? "" : f.divided.says} /> : null;
}

function ToWays({ says }: { says: string }) {
  const { go } = useWorkspace();
  return (
    <p className="mt-1">
      {says}{" "}
      <button
        type="button"
        data-do="ways"
        className="min-h-8 text-primary underline underline-offset-2"
        onClick={() => go("compare")}
      >
        Compare the ways of working
      </button>
    </p>
  );
}

function Why({ f, onStep }: { f: Finding; onStep: (step: number) => void }) {
  const [open, setOpen] = useState(false);
  return (
    <div className="mt-1 flex items-start gap-3 text-sm">
      {f.factors.length > 0 && (
        <details className="group min-w-0 flex-1" onToggle={(e) => setOpen(e.currentTarget.open)}>
          <summary
            data-do="figures"
            className="inline-flex min-h-8 list-none items-center gap-1 text-primary underline underline-offset-2"
          >
            <ChevronRight className="size-4 group-open:rotate-90" aria-hidden="true" /> The figures
          </summary>
          {open && <Figures factors={f.factors} />}
        </details>
      )}
      {f.step ? (
        <button
          data-do="step"
          type="button"
          className="min-h-8 text-primary underline underline-offset-2"
          onClick={() => onStep(f.step ?? 0)}
        >
          At step {f.step}
        </button>
      ) : null}
      <Link
        data-do="rule"
        to={`/rules#${f.code}`}
        className="grid min-h-8 place-items-center text-primary"
        aria-label={`The rule: ${f.title}`}
        title="The rule"
      >
        <BookOpen className="size-4" aria-hidden="true" />
      </Link>
    </div>
  );
}
