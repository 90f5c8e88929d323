import { useQueryClient } from "@tanstack/react-query";
import { Redo2, Undo2 } from "lucide-react";
import { useEffect, useState } from "react";
import { Link, useLocation, useNavigate, useParams } from "react-router";
import { api, type Zone, type ZoneResult } from "../api/client";
import { useStudio } from "../api/studio";
import { BenchStrip } from "../frame/BenchStrip";
import { useKeys } from "../frame/keys";
import { Shell } from "../frame/Shell";
import { LeadNote } from "../identify/LeadView";
import { PIECE_VIEWS, PieceLook, PieceRail, type PieceView } from "../look/PieceLook";
import { withReading } from "../survey/Meter";
import { useSteady } from "../ui/steady";
import { AddZone } from "./AddZone";
import { AskedContext, AskedSizes } from "./asked";
import { assigned, withoutZone, withZone } from "./edit";
import { OpenZone } from "./OpenZone";
import { PieceName, RemovePiece } from "./PieceHead";
import { Elsewhere, SaveMark } from "./SaveMark";
import { useCheck } from "./useCheck";
import { usePiece } from "./usePiece";
import { hours, useVocabQuery, VocabContext } from "./vocab";
import { FIND, type Stage, StageRail, VIEW, type View, ZoneTabs } from "./ZoneBar";

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

const REHEARSE = 50; // ms after the first drawing
const VIEWS: string[] = ["look-over", ...FIND, "plan", "ways", "cut", "sheet"];
const WHOLE = "-"; // in the address, where a zone would stand; no zone can be called so

function OpenPiece({ id }: { id: number }) {
  const { zone: zoneID, view: wanted } = useParams();
  const go = useNavigate();
  const state = useLocation().state as { point?: string } | null; // damage to be pointed at on a photograph
  const queries = useQueryClient();
  const studio = useStudio();
  const p = usePiece(id);
  const { result, silent, refused } = useCheck(p.piece);
  const [adding, setAdding] = useState<{ parts: number[] }>(); // a zone that is being added, and what it is made of
  const [fresh, setFresh] = useState<string>(); // the zone just added, whose survey begins
  const { undo, redo } = p;
  const piece = p.piece;
  const zones = piece?.zones ?? [];
  const whole = zoneID === WHOLE || !zones.length || (!zoneID && !!piece?.parts?.length);
  const zone = whole ? undefined : (zones.find((z) => z.id === zoneID) ?? zones[0]);
  const side: PieceView = PIECE_VIEWS.includes(wanted ?? "") ? (wanted as PieceView) : "parts";
  const judged = result?.zones.find((z) => z.id === zone?.id);
  const view: View = VIEWS.includes(wanted ?? "") ? (wanted as View) : zone?.steps?.length ? "plan" : "look-over";
  const show = (z: string, to?: View) => {
    setAdding(undefined);
    void go(`/pieces/${id}/${z}${to ? `/${to}` : ""}`, { replace: true });
  };
  const showPiece = (to: PieceView, point?: string) => {
    setAdding(undefined);
    void go(`/pieces/${id}/${WHOLE}/${to}`, { replace: true, state: { point } });
  };
  const newZone = (parts: number[]) => setAdding({ parts });
  const showZone = useSteady((z: string) => show(z));
  const addZone = useSteady(() => newZone([]));
  const wholePiece = useSteady(() => showPiece("parts"));
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
    { key: "0", says: "The whole piece", run: () => showPiece("parts") },
    { key: "1", says: "Look over", run: () => zone && show(zone.id, "look-over") },
    { key: "2", says: "Identify", run: () => zone && show(zone.id, "identify") },
    { key: "3", says: "The plan", run: () => zone && show(zone.id, "plan") },
    { key: "4", says: "Job sheet", run: () => zone && show(zone.id, "sheet") },
    { key: "5", says: "The cut, large and over time", run: () => zone && show(zone.id, "cut") },
    { key: "w", says: "Ways to do it, side by side", run: () => zone && show(zone.id, "ways") },
    { key: "z", says: "Add a zone", run: () => newZone([]) },
    { key: "b", says: "Back to the bench", run: () => void go("/") },
  ]);
  const { latest, made, change } = p;
  const [asked] = useState(() => new AskedSizes(id, latest, change));
  const loaded = !!piece;
  useEffect(() => {
    if (!loaded) return;
    asked.resume(made());
    return () => asked.pause();
  }, [loaded, asked, made]);
  const drawn = !!result;
  const { rehearse } = p;
  useEffect(() => {
    if (!drawn) return;
    const soon = setTimeout(rehearse, REHEARSE);
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
  const setZone = (z: Zone) => p.change(withZone(piece, z));
  const addNew = (z: Zone) => {
    p.change(assigned({ ...piece, zones: [...zones, z] }, adding?.parts ?? [], z.id));
    setFresh(z.id);
    show(z.id, "look-over");
  };
  const removePiece = (
    <RemovePiece
      onRemove={async () => {
        await api.DELETE("/api/pieces/{id}", { params: { path: { id } } });
        await queries.invalidateQueries({ queryKey: ["pieces"] });
        void go("/");
      }}
    />
  );
  const leaden = result?.zones.filter((z) => z.lead && z.lead.state !== "excluded") ?? [];
  const next = judged?.stages?.find((s) => s.state === "stuck") ?? judged?.stages?.find((s) => s.state === "open");
  return (
    <AskedContext value={asked}>
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
            onAir={(site) => p.change({ ...piece, site })}
            onSpot={zone && ((r) => p.change(withZone(piece, withReading(zone, r))))}
            windows={zone && !adding ? <Windows judged={judged} /> : undefined}
            next={
              zone &&
              next && (
                <Link
                  className="underline underline-offset-2"
                  to={`/pieces/${id}/${zone.id}/${VIEW[next.id]}`}
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
        <Elsewhere
          save={p.save}
          onSettle={p.settle}
          onAgain={async () => {
            const made = await p.again();
            if (made) void go(`/pieces/${made}`, { replace: true });
          }}
        />
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
          {!adding && zone && <StageRail stages={judged?.stages} view={view} at={undefined} onGo={goStage} />}
        </div>
        {refused && (
          <p role="alert" className="sheet wash px-5 py-2">
            This cannot be judged as it stands: {refused}
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
            <LeadNote
              lead={leaden[0]?.lead}
              of={leaden.map((z) => z.name || z.id).join(", ")}
              onLead={() => leaden[0] && show(leaden[0].id, "lead")}
            />
            <PieceLook
              id={id}
              piece={piece}
              result={result}
              view={side}
              removal={removePiece}
              latest={p.latest}
              point={state?.point}
              onPiece={p.change}
              onView={showPiece}
              onShow={showZone}
              onNewZone={newZone}
              onFirstZone={addNew}
            />
          </>
        ) : (
          <OpenZone
            key={zone.id}
            id={id}
            piece={piece}
            zone={zone}
            judged={judged}
            view={view}
            begin={fresh === zone.id ? "finish" : undefined}
            stale={silent || !!refused}
            removal={removePiece}
            onView={(to) => show(zone.id, to)}
            onZone={setZone}
            onZoneSoon={(z, then) => p.changeSoon(withZone(piece, z), then)}
            look={result?.look}
            onPhotos={(point) => showPiece("photos", point)}
            onParts={() => showPiece("parts")}
            onPiece={p.change}
            onCopy={(to) =>
              p.change({ ...piece, zones: zones.map((z) => (to.includes(z.id) ? { ...z, steps: zone.steps } : z)) })
            }
            onRemove={() => {
              p.change(withoutZone(piece, zone.id));
              void go(`/pieces/${id}`, { replace: true });
            }}
          />
        )}
      </Shell>
    </AskedContext>
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
