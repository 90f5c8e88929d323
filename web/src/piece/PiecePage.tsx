import { useQueryClient } from "@tanstack/react-query";
import { Redo2, Undo2 } from "lucide-react";
import { memo, useEffect, useState } from "react";
import { Link, useLocation, useNavigate, useParams } from "react-router";
import { setOpenPiece, why, type Zone, type ZoneResult } from "../api/client";
import { useStudio } from "../api/studio";
import { useVocabQuery, VocabContext } from "../api/vocab";
import { useKeys } from "../frame/keys";
import { Shell } from "../frame/Shell";
import { StatusStrip } from "../frame/StatusStrip";
import { LEAD_STATES, LeadNote } from "../identify/LeadView";
import { PIECE_VIEWS, PieceOverview, PieceRail, type PieceView } from "../overview/PieceOverview";
import { byLabel } from "../section/Cut";
import { OpenContext, useSession } from "../session/useSession";
import { withReading } from "../survey/Meter";
import { focusOn } from "../ui/focus";
import { useStable } from "../ui/stable";
import { VIEWS, viewOf } from "../views";
import { AddZone } from "./AddZone";
import { assigned, withoutZone, withZone, zoneTitle } from "./edit";
import { OpenZone } from "./OpenZone";
import { PieceName, RemovePiece } from "./PieceHead";
import { placeOf } from "./places";
import { Elsewhere, SaveMark } from "./SaveMark";
import { useCheck } from "./useCheck";
import type { FieldName, Stage } from "./workspace";
import { StageRail, ZoneTabs } from "./ZoneBar";

/** PiecePage is a piece with its zones; one of them is open, at one stage of the work. */
export function PiecePage() {
  const { id } = useParams();
  const n = Number(id);
  const vocab = useVocabQuery();
  if (vocab.isError) {
    return <Said>{why(vocab.error)} Start the server again and reload; what you entered is kept.</Said>;
  }
  if (!vocab.data) return null;
  return (
    <VocabContext value={vocab.data}>
      <OpenPiece key={n} id={n} />
    </VocabContext>
  );
}

function Said({ children }: { children: React.ReactNode }) {
  const air = useStudio()?.air;
  return (
    <Shell strip={<StatusStrip air={air} />}>
      <p className="p-6 first-letter:uppercase">{children}</p>
    </Shell>
  );
}

const REHEARSE = 50; // ms after the first drawing
const WHOLE = "-"; // in the address, in place of a zone; no zone can have this id

/** Gone is what the address says besides the place: damage to point at on a photograph; that the piece is new. */
type Gone = { point?: string; fresh?: boolean };

function OpenPiece({ id }: { id: number }) {
  setOpenPiece(id);
  const { zone: zoneID, view: wanted } = useParams();
  const go = useNavigate();
  const at = useLocation();
  const gone = at.state as Gone | null;
  const queries = useQueryClient();
  const studio = useStudio();
  const [session, open] = useSession(id);
  const { piece, state } = session;
  const [adding, setAdding] = useState<{ parts: number[] }>(); // a zone that is being added, and its material
  const [fresh, setFresh] = useState<string>(); // the zone just added, whose survey begins
  const undo = session.history.past.length ? open.undo : undefined;
  const redo = session.history.future.length ? open.redo : undefined;
  const zones = piece?.zones ?? [];
  const whole = zoneID === WHOLE || !zones.length || (!zoneID && !!piece?.parts?.length);
  const zone = whole ? undefined : (zones.find((z) => z.id === zoneID) ?? zones[0]);
  const side: PieceView = PIECE_VIEWS.includes(wanted ?? "") ? (wanted as PieceView) : "parts";
  const { result, current, silent, refused } = useCheck(piece, zone?.id);
  const judged = result?.zones.find((z) => z.id === zone?.id);
  const view = viewOf(wanted) ?? viewOf(zone?.steps?.length ? "plan" : "survey");
  const show = (z: string, to?: string) => {
    setAdding(undefined);
    void go(`/pieces/${id}/${z}${to ? `/${to}` : ""}`, { replace: true });
  };
  const showPiece = (to: PieceView, point?: string) => {
    setAdding(undefined);
    void go(`/pieces/${id}/${WHOLE}/${to}`, { replace: true, state: { point } satisfies Gone });
  };
  const newZone = (parts: number[]) => setAdding({ parts });
  const showZone = useStable((z: string) => show(z));
  const addZone = useStable(() => newZone([]));
  const wholePiece = useStable(() => showPiece("parts"));
  const goStage = useStable((s: Stage) => zone && show(zone.id, s.view));
  const toField = useStable((f: FieldName) => {
    setAdding(undefined);
    void go(placeOf(id, zone?.id ?? WHOLE, f), { replace: true });
  });
  const turn = (by: number) => {
    const n = zones.findIndex((z) => z.id === zone?.id) + by;
    const z = zones[(n + zones.length) % zones.length];
    if (z) show(z.id);
  };
  useKeys("Piece", [
    { key: "Ctrl+z", says: "Undo", run: () => undo?.() },
    { key: "Ctrl+Shift+z", says: "Redo", run: () => redo?.() },
    { key: "Ctrl+y", says: "Redo, another key", run: () => redo?.() },
    { key: "[", says: "Previous zone", run: () => turn(-1) },
    { key: "]", says: "Next zone", run: () => turn(1) },
    { key: "0", says: "The whole piece", run: () => showPiece("parts") },
    ...VIEWS.flatMap((v) =>
      v.key ? [{ key: v.key, says: v.says ?? v.name, run: () => zone && show(zone.id, v.id) }] : [],
    ),
    { key: "z", says: "Add a zone", run: () => newZone([]) },
    { key: "b", says: "Back to the pieces", run: () => void go("/") },
  ]);
  // The field that the address names gets the focus, however often it is requested.
  const ready = !!piece && !!result;
  // biome-ignore lint/correctness/useExhaustiveDependencies: at.key tells one asking from the next
  useEffect(() => {
    if (ready && at.hash) focusOn(`field ${at.hash.slice(1)}`);
  }, [ready, at.hash, at.key]);
  useEffect(() => {
    if (!ready) return;
    const soon = setTimeout(open.rehearse, REHEARSE);
    return () => clearTimeout(soon);
  }, [ready, open]);
  useEffect(() => {
    document.title = piece?.name ? `${piece.name} · Rutile` : "Rutile";
  }, [piece?.name]);
  const [isNew] = useState(!!gone?.fresh);
  // It is new once: not after a reload, nor when the painter comes back.
  useEffect(() => {
    if (isNew) void go(".", { replace: true, state: null });
  }, [isNew, go]);
  const moved = state.is === "over" ? state.to : undefined;
  useEffect(() => {
    if (moved) void go(`/pieces/${moved}`, { replace: true });
  }, [moved, go]);

  if (state.is === "missing") {
    return (
      <Said>
        {state.why}
        {state.silent && ". It will be tried again automatically"}{" "}
        <Link className="link link-primary" to="/">
          Back to the pieces
        </Link>
      </Said>
    );
  }
  // The first drawing waits for the first verdict, so that nothing moves when it arrives.
  if (!piece || !view || !(result || silent || refused)) return null;
  const addNew = (z: Zone) => {
    const next = assigned({ ...piece, zones: [...zones, z] }, adding?.parts ?? [], z.id);
    void open.edit(next, () => {
      setFresh(z.id);
      show(z.id, "survey");
    });
  };
  const removePiece = (
    <RemovePiece
      onRemoved={() => {
        void queries.invalidateQueries({ queryKey: ["pieces"] });
        void go("/");
      }}
    />
  );
  const leaden = result?.zones.filter((z) => z.lead && z.lead.state !== "excluded") ?? [];
  const next = judged?.stages?.find((s) => s.state === "stuck") ?? judged?.stages?.find((s) => s.state === "open");
  return (
    <OpenContext value={open}>
      <Shell
        fixed
        head={
          <>
            <PieceName piece={piece} fresh={isNew} onName={(name) => void open.edit({ ...piece, name })} />
            <UndoRedo undo={undo} redo={redo} />
            <SaveMark silent={silent} />
          </>
        }
        strip={
          <StatusStrip
            air={result?.air ?? studio?.air}
            onAir={(site) => void open.edit({ ...piece, site })}
            onSpot={zone && ((r) => void open.edit(withZone(piece, withReading(zone, r))))}
            windows={zone && !adding ? <Windows judged={judged} /> : undefined}
            next={
              zone &&
              next && (
                <Link
                  className="underline underline-offset-2"
                  to={`/pieces/${id}/${zone.id}/${next.view}`}
                  replace
                  onClick={() => setAdding(undefined)}
                >
                  {next.says}
                </Link>
              )
            }
          />
        }
      >
        <Elsewhere />
        <div className="wash no-print flex flex-wrap items-end justify-between gap-x-6 border-base-300 border-b px-3 pt-1 sm:px-5">
          <ZoneTabs
            zones={zones}
            results={result?.zones}
            here={adding ? undefined : (zone?.id ?? WHOLE)}
            whole={WHOLE}
            loose={result?.look?.loose ?? 0}
            onWhole={wholePiece}
            onShow={showZone}
            onAdd={addZone}
          />
          {!adding && whole && <PieceRail piece={piece} at={side} onGo={showPiece} />}
          {!adding && zone && <StageRail stages={judged?.stages} view={view} onGo={goStage} />}
        </div>
        {refused && (
          <p role="alert" className="sheet wash px-5 py-2">
            This cannot be checked: {refused}
          </p>
        )}
        {adding ? (
          <div className="min-h-0 flex-1 overflow-y-auto p-3 sm:p-5">
            <AddZone
              piece={id}
              taken={zones.map((z) => z.id)}
              first={!zones.length}
              of={adding.parts.map((n) => result?.look?.parts[n]?.title ?? "")}
              onClose={() => setAdding(undefined)}
              onAdd={addNew}
            />
          </div>
        ) : !zone ? (
          <>
            {LEAD_STATES.map((state) => {
              const those = leaden.filter((z) => z.lead?.state === state);
              const first = those[0];
              return (
                first && (
                  <LeadNote
                    key={state}
                    lead={first.lead}
                    of={those.map((z) => zoneTitle(z)).join(", ")}
                    onLead={() => show(first.id, "lead")}
                  />
                )
              );
            })}
            <PieceOverview
              id={id}
              piece={piece}
              result={result}
              view={side}
              removal={removePiece}
              latest={() => open.latest().piece}
              point={gone?.point}
              onPiece={(p) => void open.edit(p)}
              onView={showPiece}
              onShow={showZone}
              onNewZone={newZone}
              onFirstZone={addNew}
            />
          </>
        ) : (
          <OpenZone
            key={zone.id}
            piece={piece}
            zone={zone}
            judged={judged}
            overview={result?.look}
            view={view}
            fresh={fresh === zone.id}
            current={current}
            stale={silent || !!refused}
            silent={silent}
            removal={removePiece}
            onView={(to) => show(zone.id, to)}
            onField={toField}
            onPhotos={(point) => showPiece("photos", point)}
            onRemove={() => {
              void open.edit(withoutZone(piece, zone.id), () => void go(`/pieces/${id}`, { replace: true }));
            }}
          />
        )}
      </Shell>
    </OpenContext>
  );
}

/** UndoRedo undoes and redoes changes. */
const UndoRedo = memo(function UndoRedo({ undo, redo }: { undo?: () => void; redo?: () => void }) {
  return (
    <>
      <button type="button" className="btn btn-ghost px-2.5" data-undo disabled={!undo} onClick={undo}>
        <Undo2 className="size-5" aria-hidden="true" /> <span className="max-md:sr-only">Undo</span>
      </button>
      <button type="button" className="btn btn-ghost px-2.5" data-redo disabled={!redo} onClick={redo}>
        <Redo2 className="size-5" aria-hidden="true" /> <span className="max-md:sr-only">Redo</span>
      </button>
    </>
  );
});

/** Windows says how long the longest wait of a zone's plan is, or that there is none. */
function Windows({ judged }: { judged: ZoneResult | undefined }) {
  const waits = judged?.section?.layers.filter((l) => l.waits_h && l.from_h) ?? [];
  const longest = waits.reduce<(typeof waits)[number] | undefined>(
    (a, l) => (a && (a.waits_h ?? 0) >= (l.waits_h ?? 0) ? a : l),
    undefined,
  );
  if (!longest) return <>No wait is planned.</>;
  return (
    <>
      Longest wait: {longest.waits} after {longest.name.toLowerCase()}; recoat from {longest.from}
      {longest.to ? ` to ${longest.to}` : ""}
      {byLabel(longest)}
    </>
  );
}
