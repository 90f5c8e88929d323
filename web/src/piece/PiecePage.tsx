import { useQueryClient } from "@tanstack/react-query";
import { Copy, Pencil, Redo2, Trash2, Undo2 } from "lucide-react";
import { type ReactNode, useEffect, useRef, useState } from "react";
import { Link, useNavigate, useParams } from "react-router";
import { api, type Finding, type Piece, type Repair, type Zone, type ZoneResult } from "../api/client";
import { useStudio } from "../api/studio";
import { Findings } from "../findings/Findings";
import { Verdict } from "../findings/Verdict";
import { BenchStrip } from "../frame/BenchStrip";
import { useKeys } from "../frame/keys";
import { Shell } from "../frame/Shell";
import { Plan } from "../plan/Plan";
import { bandSays, Cut } from "../section/Cut";
import { layCut } from "../section/layout";
import { JobSheet } from "../sheet/JobSheet";
import { Survey } from "../survey/Survey";
import { Dialog } from "../ui/Dialog";
import { TextField } from "../ui/Field";
import { focusSoon } from "../ui/focus";
import { useSteady } from "../ui/steady";
import { useUnits } from "../ui/units";
import { AddZone } from "./AddZone";
import { CopyPlan } from "./CopyPlan";
import { Elsewhere, SaveMark } from "./SaveMark";
import { useCheck, usePreview } from "./useCheck";
import { usePiece } from "./usePiece";
import { hours, useVocabQuery, VocabContext } from "./vocab";
import { type Stage, StageRail, VIEW, type View, ZoneTabs } from "./ZoneBar";

/** PiecePage is a piece with its zones; one of them is open, at one stage of the work. */
export function PiecePage() {
  const { id } = useParams();
  const n = Number(id);
  const vocab = useVocabQuery();
  if (vocab.isError) return <Silent />;
  if (!vocab.data) return null;
  return (
    <VocabContext value={vocab.data}>
      <OpenPiece key={n} id={n} />
    </VocabContext>
  );
}

function Silent() {
  return (
    <Shell strip={<BenchStrip air={undefined} />}>
      <p className="p-6">The server does not answer. Start it again and reload; what you entered is kept.</p>
    </Shell>
  );
}

const VIEWS: string[] = ["look-over", "plan", "sheet"];

function OpenPiece({ id }: { id: number }) {
  const { zone: zoneID, view: wanted } = useParams();
  const go = useNavigate();
  const queries = useQueryClient();
  const studio = useStudio();
  const p = usePiece(id);
  const { result, silent, refused } = useCheck(p.piece);
  const [adding, setAdding] = useState(false);
  const [fresh, setFresh] = useState<string>(); // the zone just added, whose survey begins
  const { undo, redo } = p;
  const piece = p.piece;
  const zones = piece?.zones ?? [];
  const zone = zones.find((z) => z.id === zoneID) ?? zones[0];
  const judged = result?.zones.find((z) => z.id === zone?.id);
  const view: View = VIEWS.includes(wanted ?? "") ? (wanted as View) : zone?.steps?.length ? "plan" : "look-over";
  const show = (z: string, to?: View) => {
    setAdding(false);
    void go(`/pieces/${id}/${z}${to ? `/${to}` : ""}`, { replace: true });
  };
  const showZone = useSteady((z: string) => show(z));
  const addZone = useSteady(() => setAdding(true));
  const goStage = useSteady((s: Stage) => zone && show(zone.id, VIEW[s.id]));
  const turn = (by: number) => {
    const at = zones.findIndex((z) => z.id === zone?.id) + by;
    const z = zones[(at + zones.length) % zones.length];
    if (z) show(z.id);
  };
  useKeys("The piece", [
    { key: "Ctrl+z", says: "Undo", run: () => undo?.() },
    { key: "Ctrl+Shift+z", says: "Redo", run: () => redo?.() },
    { key: "Ctrl+y", says: "Redo, too", run: () => redo?.() },
    { key: "[", says: "The zone before", run: () => turn(-1) },
    { key: "]", says: "The next zone", run: () => turn(1) },
    { key: "1", says: "Look over", run: () => zone && show(zone.id, "look-over") },
    { key: "2", says: "The plan", run: () => zone && show(zone.id, "plan") },
    { key: "3", says: "Job sheet", run: () => zone && show(zone.id, "sheet") },
    { key: "z", says: "Add a zone", run: () => setAdding(true) },
    { key: "b", says: "Back to the bench", run: () => void go("/") },
  ]);
  const drawn = !!result;
  const { rehearse } = p;
  useEffect(() => {
    if (!drawn) return;
    const soon = setTimeout(rehearse, 150);
    return () => clearTimeout(soon);
  }, [drawn, rehearse]);
  useEffect(() => {
    document.title = piece?.name ? `${piece.name} · Rutile` : "Rutile";
  }, [piece?.name]);

  if (p.missing) {
    return (
      <Shell strip={<BenchStrip air={studio?.air} />}>
        <p className="p-6">
          {p.missing}{" "}
          <Link className="link link-primary" to="/">
            Back to the pieces
          </Link>
        </p>
      </Shell>
    );
  }
  // The first drawing waits for the first verdict, so that nothing moves when it comes.
  if (!piece || !(result || silent || refused)) return null;
  const setZone = (z: Zone) => p.change({ ...piece, zones: zones.map((x) => (x.id === z.id ? z : x)) });
  const removePiece = (
    <RemovePiece
      onRemove={async () => {
        await api.DELETE("/api/pieces/{id}", { params: { path: { id } } });
        await queries.invalidateQueries({ queryKey: ["pieces"] });
        void go("/");
      }}
    />
  );
  const next = judged?.stages?.find((s) => s.state === "stuck") ?? judged?.stages?.find((s) => s.state === "open");
  return (
    <Shell
      fixed
      head={
        <>
          <PieceName piece={piece} onName={(name) => p.change({ ...piece, name })} />
          <SaveMark save={p.save} silent={silent} />
          <span className="flex-1 max-sm:hidden" />
          <button type="button" className="btn btn-ghost px-2.5" disabled={!undo} onClick={undo}>
            <Undo2 className="size-5" aria-hidden="true" /> <span className="max-md:sr-only">Undo</span>
          </button>
          <button type="button" className="btn btn-ghost px-2.5" disabled={!redo} onClick={redo}>
            <Redo2 className="size-5" aria-hidden="true" /> <span className="max-md:sr-only">Redo</span>
          </button>
        </>
      }
      strip={
        <BenchStrip
          air={result?.air ?? studio?.air}
          windows={zone && !adding ? <Windows judged={judged} /> : undefined}
          next={
            zone &&
            next && (
              <Link
                className="underline underline-offset-2"
                to={`/pieces/${id}/${zone.id}/${VIEW[next.id]}`}
                replace
                onClick={() => setAdding(false)}
              >
                {next.says}
              </Link>
            )
          }
        />
      }
    >
      <Elsewhere
        save={p.save}
        onSettle={p.settle}
        onAgain={async () => {
          const made = await p.again();
          if (made) void go(`/pieces/${made}`, { replace: true });
        }}
      />
      {zones.length > 0 && (
        <div className="wash no-print flex flex-wrap items-end justify-between gap-x-6 border-base-300 border-b px-3 pt-1 sm:px-5">
          <ZoneTabs
            zones={zones}
            results={result?.zones}
            here={adding ? undefined : zone?.id}
            onShow={showZone}
            onAdd={addZone}
          />
          {!adding && zone && <StageRail stages={judged?.stages} view={view} at={undefined} onGo={goStage} />}
        </div>
      )}
      {refused && (
        <p role="alert" className="sheet wash px-5 py-2">
          This cannot be judged as it stands: {refused}
        </p>
      )}
      {!zone || adding ? (
        <div className="min-h-0 flex-1 overflow-y-auto p-3 sm:p-5">
          <AddZone
            taken={zones.map((z) => z.id)}
            first={!zone}
            onClose={zone ? () => setAdding(false) : undefined}
            removal={zone ? undefined : removePiece}
            onAdd={(z) => {
              p.change({ ...piece, zones: [...zones, z] });
              setFresh(z.id);
              show(z.id, "look-over");
            }}
          />
        </div>
      ) : (
        <OpenZone
          key={zone.id}
          piece={piece}
          zone={zone}
          judged={judged}
          view={view}
          begin={fresh === zone.id ? "finish" : undefined}
          stale={silent || !!refused}
          removal={removePiece}
          onView={(to) => show(zone.id, to)}
          onZone={setZone}
          onPiece={p.change}
          onCopy={(to) =>
            p.change({ ...piece, zones: zones.map((z) => (to.includes(z.id) ? { ...z, steps: zone.steps } : z)) })
          }
          onRemove={() => {
            p.change({ ...piece, zones: zones.filter((z) => z.id !== zone.id) });
            void go(`/pieces/${id}`, { replace: true });
          }}
        />
      )}
    </Shell>
  );
}

/** Windows says of a zone's plan how long its longest wait is, or that none is running. */
function Windows({ judged }: { judged: ZoneResult | undefined }) {
  const waits = judged?.section?.layers.filter((l) => l.waits_h && l.from_h) ?? [];
  const longest = waits.reduce<(typeof waits)[number] | undefined>(
    (a, l) => (a && (a.waits_h ?? 0) >= (l.waits_h ?? 0) ? a : l),
    undefined,
  );
  if (!longest) return <>No coat is drying.</>;
  return (
    <>
      Longest wait: {longest.name}, {hours(longest.waits_h ?? 0)}; here it takes the next coat from{" "}
      {hours(longest.from_h ?? 0)}
      {longest.to_h ? ` to ${hours(longest.to_h)}` : ""}
    </>
  );
}

function RemovePiece({ onRemove }: { onRemove: () => void }) {
  const [asked, setAsked] = useState(false);
  return (
    <>
      <button type="button" className="btn btn-ghost h-12 text-error" onClick={() => setAsked(true)}>
        <Trash2 className="size-4" aria-hidden="true" /> Remove the whole piece
      </button>
      {asked && (
        <Dialog title="Remove the piece for good?" onClose={() => setAsked(false)}>
          <p>Its zones and plans go with it. This cannot be undone.</p>
          <div className="mt-3 flex gap-2">
            <button type="button" className="btn btn-error" onClick={onRemove}>
              Remove it
            </button>
            <button type="button" className="btn btn-ghost" onClick={() => setAsked(false)}>
              Keep it
            </button>
          </div>
        </Dialog>
      )}
    </>
  );
}

function PieceName({ piece, onName }: { piece: Piece; onName: (name: string) => void }) {
  const [editing, setEditing] = useState(piece.name === "New piece");
  if (!editing) {
    return (
      <h1 className="min-w-0 max-sm:flex-1">
        <button
          type="button"
          className="flex min-h-11 max-w-full items-center gap-2 font-semibold text-xl hover:text-primary"
          title="Press to change the name"
          onClick={() => setEditing(true)}
        >
          <bdi className="line-clamp-1 max-w-sm break-all text-left">{piece.name || "Piece without a name"}</bdi>
          <Pencil className="size-4 shrink-0 text-secondary" aria-hidden="true" />
        </button>
      </h1>
    );
  }
  return (
    <form
      className="flex items-end gap-2"
      onSubmit={(e) => {
        e.preventDefault();
        setEditing(false);
        focusSoon(() => document.querySelector<HTMLElement>("#work input"));
      }}
    >
      <h1 className="sr-only">{piece.name}</h1>
      <TextField label="Name of the piece" value={piece.name ?? ""} max={200} eager onChange={onName} />
      <button type="submit" className="btn mb-2">
        Done
      </button>
    </form>
  );
}

type ZoneProps = {
  piece: Piece;
  zone: Zone;
  judged: ZoneResult | undefined;
  view: View;
  begin: string | undefined; // the field its survey begins at
  stale: boolean; // judged before the last change
  removal: ReactNode; // what removes the whole piece
  onView: (v: View) => void;
  onZone: (z: Zone) => void;
  onPiece: (p: Piece) => void;
  onCopy: (to: string[]) => void;
  onRemove: () => void;
};

/** OpenZone is one zone at one stage: the work on the left, what the check says of it on the right. */
function OpenZone({
  piece,
  zone,
  judged,
  view,
  begin,
  stale,
  removal,
  onView,
  onZone,
  onPiece,
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
  const repair = useSteady((f: Finding, r: Repair) => {
    letGo();
    if (r.kind === "edit" && r.steps) {
      onZone({ ...zone, steps: r.steps });
      setStep(undefined);
      setSaid(`Done: ${r.title}. Undo takes it back.`);
      if (view !== "plan") onView("plan");
      document.querySelector("[data-verdict]")?.scrollIntoView({ block: "nearest" });
    } else if (r.kind === "acknowledge") {
      const date = new Date().toISOString().slice(0, 10);
      onZone({ ...zone, acknowledged: [...(zone.acknowledged ?? []), { code: f.code, date }] });
    } else if (r.field === "test" || r.field === "steps") {
      setPicking({ at: steps.length, asked: r.field === "test" ? "test patch" : "" });
      if (view !== "plan") onView("plan");
    } else {
      lookOver(r.field ?? "");
    }
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
  if (view === "sheet") {
    return <JobSheet piece={piece} zone={zone} judged={judged} onView={onView} />;
  }
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
      <div className="grid min-h-0 flex-1 lg:grid-cols-[minmax(0,1fr)_25rem]">
        <section
          aria-label={view === "plan" ? "The plan" : "Look over"}
          className="min-w-0 px-3 py-4 sm:px-5 lg:overflow-y-auto lg:contain-content"
        >
          {view === "plan" ? (
            <>
              <div className="mb-2 flex min-h-10 flex-wrap items-center gap-x-3">
                <h2 className="font-semibold text-lg">The plan, from below</h2>
                <span className="flex-1" />
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
                onLookOver={lookOver}
              />
            </>
          ) : (
            <Survey
              piece={piece}
              zone={zone}
              implied={judged?.implied}
              lead={judged?.findings.some((f) => f.code === "safety.lead") ?? false}
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
        <section
          aria-label="What the check says"
          className="wash border-base-300 px-3 py-4 max-lg:border-t sm:px-5 lg:overflow-y-auto lg:border-l lg:contain-content"
        >
          {view === "look-over" && judged?.section && (
            <SmallCut zone={zone} judged={judged} onPlan={() => onView("plan")} />
          )}
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
          <p className="mt-4 border-base-300 border-t pt-2 text-secondary text-sm">
            Every figure is an estimate. Labels, safety data sheets, local codes and licensed people decide.
          </p>
        </section>
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
function SmallCut({ zone, judged, onPlan }: { zone: Zone; judged: ZoneResult; onPlan: () => void }) {
  const u = useUnits();
  if (!judged.section) return null;
  const d = layCut(judged.section, 150, 150);
  return (
    <figure className="mb-4 flex items-end gap-3">
      <Cut section={judged.section} drawing={d} width={150} substrate={zone.substrate} onChoose={onPlan} />
      <figcaption className="min-w-0 flex-1">
        <ul className="flex flex-col-reverse text-sm leading-none">
          {d.bands.map((b) => (
            <li
              key={b.key}
              title={bandSays(b, u)}
              className="flex items-center truncate"
              style={{ height: b.bottom - b.top }}
            >
              {b.l.coat && b.l.coat > 1 ? `${b.l.name}, coat ${b.l.coat}` : b.l.name}
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
