import { Copy, GitCompareArrows, Play } from "lucide-react";
import { type ReactNode, useEffect, useRef, useState } from "react";
import type { Finding, Look, Piece, Repair, Zone, ZoneResult } from "../api/client";
import { CutView } from "../cut/CutView";
import { Findings } from "../findings/Findings";
import { Verdict } from "../findings/Verdict";
import { useKeys } from "../frame/keys";
import { type Find, FoundOut, IdentifyView, useFinding } from "../identify/IdentifyView";
import { LeadNote } from "../identify/LeadView";
import { ZonePlace } from "../look/ZonePlace";
import { Plan } from "../plan/Plan";
import { bandSays, Cut } from "../section/Cut";
import { layCut } from "../section/layout";
import { JobSheet } from "../sheet/JobSheet";
import { Survey } from "../survey/Survey";
import { focusSoon } from "../ui/focus";
import { useSteady } from "../ui/steady";
import { useUnits } from "../ui/units";
import { Minds } from "../ways/Minds";
import { useKept } from "../ways/useWays";
import { WaysView } from "../ways/WaysView";
import { CopyPlan } from "./CopyPlan";
import { usePreview } from "./useCheck";
import { FIND, type View } from "./ZoneBar";

type ZoneProps = {
  id: number; // of the piece
  piece: Piece;
  zone: Zone;
  judged: ZoneResult | undefined;
  view: View;
  begin: string | undefined; // the field its survey begins at
  stale: boolean; // judged before the last change
  removal: ReactNode; // what removes the whole piece
  onView: (v: View) => void;
  onZone: (z: Zone) => void;
  onZoneSoon: (z: Zone, then: () => void) => Promise<void>; // drawn with its verdict
  onPiece: (p: Piece) => void;
  look: Look | undefined;
  onPhotos: (point?: string) => void;
  onParts: () => void;
  onCopy: (to: string[]) => void;
  onRemove: () => void;
};

/** ELSEWHERE are fields that are filled in at a stage of their own. */
const ELSEWHERE: Record<string, View> = {
  identify: "identify",
  evidence: "identify",
  lead_test: "lead",
  test: "patches",
};

const isFind = (v: View): v is Find => FIND.includes(v);

const LABEL: Record<View, string> = {
  "look-over": "Look over",
  identify: "Find out",
  lead: "Lead",
  patches: "Patch tests",
  plan: "The plan",
  ways: "Ways to do it",
  cut: "The cut",
  sheet: "Job sheet",
};

/** OpenZone is one zone at one stage: the work on the left, what the check says of it on the right. */
export function OpenZone({
  id,
  piece,
  zone,
  judged,
  view,
  begin,
  stale,
  removal,
  onView,
  onZone,
  onZoneSoon,
  onPiece,
  look,
  onPhotos,
  onParts,
  onCopy,
  onRemove,
}: ZoneProps) {
  const steps = zone.steps ?? [];
  const [step, setStep] = useState<number>();
  const [picking, setPicking] = useState<{ at: number; asked: string }>();
  const [said, setSaid] = useState("");
  const [held, setHeld] = useState<Repair>(); // a repair looked at until it is let go
  const [pointed, setPointed] = useState<Repair>(); // and one while it is pointed at
  const looking = held ?? pointed;
  const [copying, setCopying] = useState(false);
  const wanted = useRef<string>(undefined); // a field to go to once it is on the screen
  const finding = useFinding(piece, zone, view === "identify");
  const trial = usePreview(piece, zone.id, looking?.steps ?? undefined);
  const seen = trial && looking ? trial : judged;
  useEffect(() => {
    if (view !== "look-over" || !wanted.current) return;
    focusField(wanted.current);
    wanted.current = undefined;
  });
  const lookOver = (field: string) => {
    wanted.current = field;
    if (view === "look-over") focusField(field);
    else onView("look-over");
  };
  const letGo = () => {
    setHeld(undefined);
    setPointed(undefined);
  };
  const toStep = useSteady((n: number) => {
    setStep(n);
    if (view !== "plan") onView("plan");
    focusSoon(() => document.querySelector<HTMLElement>(`[data-row="${n}"]`));
  });
  const [kept, keep] = useKept();
  const toField = (field: string) => {
    if (field === "parts") {
      onParts();
    } else if (field in ELSEWHERE) {
      onView(ELSEWHERE[field] as View);
    } else if (field === "steps") {
      setPicking({ at: steps.length, asked: "" });
      if (view !== "plan") onView("plan");
    } else {
      lookOver(field);
    }
  };
  const mend = (r: Repair) => {
    letGo();
    if (!r.steps) return;
    onZone({ ...zone, steps: r.steps });
    setStep(undefined);
    setSaid(`Done: ${r.title}. Undo takes it back.`);
  };
  const repair = useSteady((f: Finding, r: Repair) => {
    letGo();
    if (r.kind === "edit" && r.steps) {
      mend(r);
      if (view !== "plan" && view !== "cut") onView("plan");
      document.querySelector("[data-verdict]")?.scrollIntoView({ block: "nearest" });
    } else if (r.kind === "acknowledge") {
      const date = new Date().toISOString().slice(0, 10);
      onZone({ ...zone, acknowledged: [...(zone.acknowledged ?? []), { code: f.code, date }] });
    } else toField(r.field ?? "");
  });
  useKeys("The verdict", [
    {
      key: "r",
      says: "Go to the first repair",
      run: () => document.querySelector<HTMLElement>("[data-code] .btn")?.focus(),
    },
    {
      key: "Escape",
      says: "Stop looking at a repair",
      run: letGo,
    },
  ]);
  const note = <LeadNote lead={judged?.lead} onLead={view === "lead" ? undefined : () => onView("lead")} />;
  if (view === "sheet") {
    return (
      <>
        {note}
        <JobSheet piece={piece} zone={zone} judged={judged} look={look} onView={onView} />
      </>
    );
  }
  if (view === "ways") {
    return (
      <>
        {note}
        <WaysView
          piece={piece}
          zone={zone}
          kept={kept}
          onKept={keep}
          onTake={(w) => {
            onZone({ ...zone, steps: w.steps, way: w.way });
            setStep(undefined);
            setSaid(`Taken: ${w.name}. Undo takes it back.`);
            onView("plan");
          }}
          onBack={() => onView("plan")}
          onField={toField}
        />
      </>
    );
  }
  // Nothing is drawn of a belief before there is one, so that nothing moves when it comes.
  const weighed = view !== "identify" || !!finding.found || finding.silent;
  const others = (piece.zones ?? []).length > 1;
  return (
    <>
      {seen && (
        <Verdict
          judged={seen}
          planned={steps.length > 0}
          trial={trial && looking ? looking.title : undefined}
          stale={stale}
          said={said}
        />
      )}
      {note}
      <div className="grid min-h-0 flex-1 lg:grid-cols-[minmax(0,1fr)_25rem]">
        <section aria-label={LABEL[view]} className="min-w-0 px-3 py-4 sm:px-5 lg:overflow-y-auto lg:contain-content">
          {view === "plan" ? (
            <>
              <div className="mb-2 flex min-h-10 flex-wrap items-center gap-x-3">
                <h2 className="font-semibold text-lg">The plan, from below</h2>
                <span className="flex-1" />
                <button
                  type="button"
                  data-ways
                  className={`btn ${steps.length ? "btn-ghost border-base-300 font-normal" : "btn-primary"}`}
                  onClick={() => onView("ways")}
                >
                  <GitCompareArrows className="size-4" aria-hidden="true" />{" "}
                  {steps.length ? "Compare ways" : "Find plans"}
                </button>
                {steps.length > 0 && (
                  <button
                    type="button"
                    className="btn btn-ghost border-base-300 font-normal"
                    onClick={() => onView("cut")}
                  >
                    <Play className="size-4" aria-hidden="true" /> Play the cut
                  </button>
                )}
                {steps.length > 0 && others && (
                  <button
                    type="button"
                    className="btn btn-ghost border-base-300 font-normal"
                    onClick={() => setCopying(true)}
                  >
                    <Copy className="size-4" aria-hidden="true" /> Copy to another zone
                  </button>
                )}
              </div>
              <Plan
                piece={piece}
                zone={zone}
                steps={trial && looking?.steps ? looking.steps : steps}
                judged={seen}
                frozen={!!(trial && looking)}
                chosen={step}
                onChoose={setStep}
                picking={picking}
                onPicking={setPicking}
                onSteps={(s) => {
                  setSaid("");
                  onZone({ ...zone, steps: s });
                }}
                onStepsSoon={(s, then) =>
                  onZoneSoon({ ...zone, steps: s }, () => {
                    setSaid("");
                    then();
                  })
                }
                onLookOver={lookOver}
              />
            </>
          ) : view === "cut" ? (
            <CutView
              piece={piece}
              zone={zone}
              judged={judged}
              onBack={() => onView("plan")}
              onRepair={(r) => r.steps && mend(r)}
            />
          ) : isFind(view) ? (
            <IdentifyView
              id={id}
              piece={piece}
              zone={zone}
              judged={judged}
              view={view}
              onView={onView}
              onZone={onZone}
              finding={finding}
            />
          ) : (
            <Survey
              id={id}
              piece={piece}
              zone={zone}
              implied={judged?.implied_levels}
              look={look}
              onPhotos={onPhotos}
              gloss={judged?.gloss}
              known={judged?.known}
              onIdentify={() => onView("identify")}
              onZone={onZone}
              onPiece={onPiece}
              onPlan={() => {
                if (!steps.length) setPicking({ at: 0, asked: "" });
                onView("plan");
              }}
              onRemove={onRemove}
              begin={begin === "finish"}
              removal={removal}
            />
          )}
        </section>
        {weighed && (
          <section
            aria-label="What the check says"
            className="wash border-base-300 px-3 py-4 max-lg:border-t sm:px-5 lg:overflow-y-auto lg:border-l lg:contain-content"
          >
            {view === "look-over" && (
              <div className="mb-3 grid place-items-center">
                <ZonePlace piece={piece} look={look} zone={zone.id} width={340} height={170} />
              </div>
            )}
            {view === "look-over" && judged?.section && <SmallCut judged={judged} onPlan={() => onView("plan")} />}
            {view === "identify" ? (
              <FoundOut zone={zone} onZone={onZone} finding={finding} />
            ) : (
              judged && (
                <fieldset disabled={stale} className="min-w-0">
                  <Findings
                    findings={judged.findings}
                    held={held}
                    onHold={setHeld}
                    onPoint={setPointed}
                    onRepair={repair}
                    onStep={toStep}
                  />
                </fieldset>
              )
            )}
            {view === "plan" && steps.length > 0 && (
              <Minds piece={piece} zone={zone} weights={kept.weights} onField={toField} />
            )}
            <p className="mt-4 border-base-300 border-t pt-2 text-secondary text-sm">
              Every figure is an estimate. Labels, safety data sheets, local codes and licensed people decide.
            </p>
          </section>
        )}
      </div>
      {copying && (
        <CopyPlan
          piece={piece}
          from={zone}
          onClose={() => setCopying(false)}
          onCopy={(to) => {
            onCopy(to);
            setCopying(false);
            setSaid(`Copied to ${to.length === 1 ? "one zone" : `${to.length} zones`}, and judged there.`);
          }}
        />
      )}
    </>
  );
}

/** SmallCut stands beside the survey, so that what is entered is seen at once. */
function SmallCut({ judged, onPlan }: { judged: ZoneResult; onPlan: () => void }) {
  const u = useUnits();
  if (!judged.section) return null;
  const d = layCut(judged.section, 150, 150);
  return (
    <figure className="mb-4 flex items-end gap-3">
      <Cut section={judged.section} drawing={d} width={150} onChoose={onPlan} />
      <figcaption className="min-w-0 flex-1">
        <ul className="flex flex-col-reverse text-sm leading-none">
          {d.bands.map((b) => (
            <li key={b.key} title={bandSays(b, u)} className="flex items-center" style={{ height: b.bottom - b.top }}>
              <span className="truncate leading-tight">
                {b.l.coat && b.l.coat > 1 ? `${b.l.name}, coat ${b.l.coat}` : b.l.name}
              </span>
            </li>
          ))}
        </ul>
      </figcaption>
    </figure>
  );
}

/** focusField opens the field that a measurement goes into. */
function focusField(field: string) {
  focusSoon(() => {
    const el = document.querySelector<HTMLElement>(`[data-field="${field}"]`);
    el?.scrollIntoView({ block: "center" });
    return el;
  });
}
