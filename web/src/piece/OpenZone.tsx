import { Fragment, type ReactNode, useEffect, useState } from "react";
import type { Finding, Overview, Piece, Repair, Zone, ZoneResult } from "../api/client";
import { Findings } from "../findings/Findings";
import { Verdict } from "../findings/Verdict";
import { useKeys } from "../frame/keys";
import { LeadNote } from "../identify/LeadView";
import { useOpen } from "../session/useSession";
import { carried } from "../shelf/carry";
import { today } from "../ui/clock";
import { focusOn, showOn } from "../ui/focus";
import { useStable } from "../ui/stable";
import { Estimate } from "./Estimate";
import { withZone } from "./edit";
import { usePreview } from "./useCheck";
import { type FieldName, type StageView, type Workspace, WorkspaceContext } from "./workspace";

type Props = {
  piece: Piece;
  zone: Zone;
  judged: ZoneResult | undefined;
  overview: Overview | undefined;
  view: StageView;
  fresh: boolean;
  current: boolean;
  stale: boolean;
  silent: boolean;
  removal: ReactNode;
  onView: (view: string) => void;
  onField: (f: FieldName) => void;
  onPhotos: (point?: string) => void;
  onRemove: () => void;
};

/** OpenZone is one zone at one stage: the work on the left, the findings on the right. */
export function OpenZone(p: Props) {
  const { piece, zone, judged, view, stale } = p;
  const open = useOpen();
  const [step, choose] = useState<number>();
  const [picking, pick] = useState<number>();
  const [said, say] = useState("");
  const [held, setHeld] = useState<Repair>(); // a fix whose preview is held
  const [pointed, setPointed] = useState<Repair>(); // and one that is pointed at
  const [due, setDue] = useState<Repair>(); // a fix clicked while its verdict was out of date
  const looking = held ?? pointed;
  const preview = usePreview(piece, zone.id, looking?.steps ?? undefined);
  const trial = preview && looking;
  const change = (z: Zone, then?: () => void) => open.edit(carried(withZone(piece, z)), then);
  const letGo = () => {
    setHeld(undefined);
    setPointed(undefined);
  };
  const apply = (r: Repair) => {
    letGo();
    if (!r.steps) return;
    // Its steps are those of the judged plan: what was added since would be lost.
    if (!p.current) {
      setDue(r);
      return;
    }
    void change({ ...zone, steps: r.steps }, () => {
      choose(undefined);
      say(`Done: ${r.title}. You can undo this.`);
      if (view.id !== "plan" && view.id !== "section") p.onView("plan");
      showOn("verdict");
    });
  };
  useEffect(() => {
    if (!due || (!p.current && !stale)) return;
    setDue(undefined);
    const same = (r: Repair) => r.kind === due.kind && r.title === due.title;
    const offered = p.current && judged?.findings.flatMap((f) => f.repairs).find(same);
    if (offered) apply(offered);
    else {
      const why = stale ? "The plan could not be checked." : "The plan has changed, and this fix no longer applies.";
      say(`Not done: ${due.title}. ${why}`);
    }
  });
  const workspace: Workspace = {
    id: open.latest().id,
    piece,
    zone,
    judged,
    seen: trial ? preview : judged,
    trial,
    overview: p.overview,
    current: p.current || !!trial,
    stale,
    silent: p.silent,
    fresh: p.fresh,
    removal: p.removal,
    step,
    picking,
    choose,
    pick,
    change,
    changePiece: (p) => void open.edit(carried(p)),
    say,
    go: p.onView,
    toField: p.onField,
    toPhotos: p.onPhotos,
    apply,
    steps: (steps, then) =>
      change({ ...zone, steps }, () => {
        say("");
        then?.();
      }),
    remove: p.onRemove,
  };
  const toStep = useStable((n: number) => {
    choose(n);
    if (view.id !== "plan") p.onView("plan");
    focusOn(`row ${n}`);
  });
  const repair = useStable((f: Finding, r: Repair) => {
    letGo();
    if (r.kind === "edit" && r.steps) {
      apply(r);
    } else if (r.kind === "acknowledge") {
      void change({ ...zone, acknowledged: [...(zone.acknowledged ?? []), { code: f.code, date: today() }] });
    } else if (r.field) p.onField(r.field);
  });
  useKeys("Verdict", [
    { key: "r", says: "Go to the first fix", run: () => focusOn("repair") },
    { key: "Escape", says: "Close the preview", run: letGo },
  ]);
  const Around = view.Around ?? Fragment;
  const note = <LeadNote lead={judged?.lead} onLead={view.id === "lead" ? undefined : () => p.onView("lead")} />;
  if (view.whole) {
    return (
      <WorkspaceContext value={workspace}>
        {note}
        <Around>
          <view.Main />
        </Around>
      </WorkspaceContext>
    );
  }
  return (
    <WorkspaceContext value={workspace}>
      {workspace.seen && (
        <Verdict
          judged={workspace.seen}
          planned={(zone.steps ?? []).length > 0}
          trial={trial?.title}
          stale={stale}
          said={said}
        />
      )}
      {note}
      <div className="grid min-h-0 flex-1 lg:grid-cols-[minmax(0,1fr)_25rem]">
        <Around>
          <section aria-label={view.name} className="min-w-0 px-3 py-4 sm:px-5 lg:overflow-y-auto lg:contain-content">
            <view.Main />
          </section>
          {view.Aside ? (
            <view.Aside />
          ) : (
            <section
              aria-label="Findings"
              className="wash border-base-300 px-3 py-4 max-lg:border-t sm:px-5 lg:overflow-y-auto lg:border-l lg:contain-content"
            >
              {view.Above && <view.Above />}
              {judged && (
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
              )}
              {view.Below && <view.Below />}
              <Estimate />
            </section>
          )}
        </Around>
      </div>
    </WorkspaceContext>
  );
}
