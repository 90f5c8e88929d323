import { useQueryClient } from "@tanstack/react-query";
import { Plus, Redo2, Trash2, Undo2 } from "lucide-react";
import { useEffect, useState } from "react";
import { Link, useNavigate, useParams } from "react-router";
import { api, type Finding, type Piece, type Repair, type Zone, type ZoneResult } from "../api/client";
import { Findings } from "../findings/Findings";
import { SectionView } from "../section/SectionView";
import { Steps } from "../steps/Steps";
import { Survey } from "../survey/Survey";
import { TextField } from "../ui/Field";
import { Joint, toneOf } from "../ui/Mark";
import { AddZone } from "./AddZone";
import { SaveMark } from "./SaveMark";
import { useCheck } from "./useCheck";
import { usePiece } from "./usePiece";
import { hours, useVocabQuery, VocabContext } from "./vocab";

/** PiecePage is a piece with its zones; one of them is open. */
export function PiecePage() {
  const { id } = useParams();
  const n = Number(id);
  const vocab = useVocabQuery();
  if (vocab.isError) return <p className="p-6">The server does not answer. Start it again and reload.</p>;
  if (!vocab.data) return null;
  return (
    <VocabContext value={vocab.data}>
      <OpenPiece key={n} id={n} />
    </VocabContext>
  );
}

function OpenPiece({ id }: { id: number }) {
  const { zone: zoneID } = useParams();
  const go = useNavigate();
  const queries = useQueryClient();
  const p = usePiece(id);
  const { result, silent, refused } = useCheck(p.piece);
  const [adding, setAdding] = useState(false);
  const [removing, setRemoving] = useState(false);
  const { undo, redo } = p;

  useEffect(() => {
    const onKey = (e: KeyboardEvent) => {
      if (!(e.ctrlKey || e.metaKey) || e.key.toLowerCase() !== "z") return;
      if (e.target instanceof HTMLInputElement && e.target.type !== "checkbox") return;
      e.preventDefault();
      if (e.shiftKey) redo?.();
      else undo?.();
    };
    window.addEventListener("keydown", onKey);
    return () => window.removeEventListener("keydown", onKey);
  }, [undo, redo]);

  if (p.missing) {
    return (
      <p className="p-6">
        {p.missing}{" "}
        <Link className="link link-primary" to="/">
          Back to the pieces
        </Link>
      </p>
    );
  }
  const piece = p.piece;
  if (!piece) return null;
  const zones = piece.zones ?? [];
  const zone = zones.find((z) => z.id === zoneID) ?? zones[0];
  const judged = result?.zones.find((z) => z.id === zone?.id);
  const setZone = (z: Zone) => p.change({ ...piece, zones: zones.map((x) => (x.id === z.id ? z : x)) });
  const show = (z: string) => void go(`/pieces/${id}/${z}`, { replace: true });

  return (
    <div className="flex flex-1 flex-col">
      <div className="flex flex-wrap items-center gap-x-4 gap-y-1 border-base-300 border-b px-5 py-2">
        <PieceName piece={piece} onName={(name) => p.change({ ...piece, name })} />
        <SaveMark save={p.save} silent={silent} onSettle={p.settle} />
        <span className="flex-1" />
        <button type="button" className="btn btn-sm btn-ghost" disabled={!undo} onClick={undo}>
          <Undo2 className="size-4" aria-hidden="true" /> Undo
        </button>
        <button type="button" className="btn btn-sm btn-ghost" disabled={!redo} onClick={redo}>
          <Redo2 className="size-4" aria-hidden="true" /> Redo
        </button>
        {removing ? (
          <span className="flex items-center gap-2">
            Remove the piece for good?
            <button
              type="button"
              className="btn btn-sm btn-error"
              onClick={async () => {
                await api.DELETE("/api/pieces/{id}", { params: { path: { id } } });
                await queries.invalidateQueries({ queryKey: ["pieces"] });
                void go("/");
              }}
            >
              Remove it
            </button>
            <button type="button" className="btn btn-sm" onClick={() => setRemoving(false)}>
              Keep it
            </button>
          </span>
        ) : (
          <button type="button" className="btn btn-sm btn-ghost" onClick={() => setRemoving(true)}>
            <Trash2 className="size-4" aria-hidden="true" /> Remove piece
          </button>
        )}
      </div>
      <nav aria-label="Zones" className="flex flex-wrap gap-1 border-base-300 border-b bg-base-200 px-5 pt-2">
        {zones.map((z) => {
          const v = result?.zones.find((r) => r.id === z.id)?.verdict;
          const here = z.id === zone?.id && !adding;
          return (
            <button
              key={z.id}
              type="button"
              aria-current={here ? "page" : undefined}
              className={`-mb-px flex min-h-11 cursor-pointer items-center gap-2 rounded-t border px-3 py-1.5 ${here ? "border-base-300 border-b-base-100 bg-base-100 font-semibold" : "border-transparent hover:bg-base-100"}`}
              onClick={() => {
                setAdding(false);
                show(z.id);
              }}
            >
              {v && <Joint verdict={v} />}
              <bdi className="max-w-56 truncate">{z.name || z.id}</bdi>
            </button>
          );
        })}
        {zone && (
          <button type="button" className="btn btn-ghost min-h-11" onClick={() => setAdding(true)}>
            <Plus className="size-5" aria-hidden="true" /> Zone
          </button>
        )}
      </nav>
      {refused && (
        <p role="alert" className="sheet bg-base-200 px-5 py-2">
          This cannot be judged as it stands: {refused}
        </p>
      )}
      {!zone || adding ? (
        <div className="p-5">
          <AddZone
            taken={zones.map((z) => z.id)}
            first={!zone}
            onClose={zone ? () => setAdding(false) : undefined}
            onAdd={(z) => {
              p.change({ ...piece, zones: [...zones, z] });
              setAdding(false);
              show(z.id);
            }}
          />
        </div>
      ) : (
        <ZoneSheet
          key={zone.id}
          piece={piece}
          zone={zone}
          judged={judged}
          stale={silent || !!refused}
          onZone={setZone}
          onPiece={p.change}
          onRemove={() => {
            p.change({ ...piece, zones: zones.filter((z) => z.id !== zone.id) });
            void go(`/pieces/${id}`, { replace: true });
          }}
        />
      )}
    </div>
  );
}

function PieceName({ piece, onName }: { piece: Piece; onName: (name: string) => void }) {
  const [editing, setEditing] = useState(piece.name === "New piece");
  if (!editing) {
    return (
      <h1>
        <button
          type="button"
          className="cursor-pointer font-semibold text-2xl hover:text-primary"
          title="Press to change the name"
          onClick={() => setEditing(true)}
        >
          <bdi className="line-clamp-1 max-w-xl break-all text-left">{piece.name || "Piece without a name"}</bdi>
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
      }}
    >
      <TextField label="Name of the piece" value={piece.name ?? ""} max={200} eager onChange={onName} />
      <button type="submit" className="btn btn-sm mb-2">
        Done
      </button>
    </form>
  );
}

type SheetProps = {
  piece: Piece;
  zone: Zone;
  judged: ZoneResult | undefined;
  stale: boolean; // judged before the last change
  onZone: (z: Zone) => void;
  onPiece: (p: Piece) => void;
  onRemove: () => void;
};

/** ZoneSheet is the one screen of the job: what it is, what is planned, and whether that will do. */
function ZoneSheet({ piece, zone, judged, stale, onZone, onPiece, onRemove }: SheetProps) {
  const [step, setStep] = useState<number>();
  const [picking, setPicking] = useState(zone.steps?.length ? undefined : "");
  const [said, setSaid] = useState("");
  const repair = (f: Finding, r: Repair) => {
    if (r.kind === "edit" && r.steps) {
      onZone({ ...zone, steps: r.steps });
      setStep(undefined);
      setSaid(`Done: ${r.title}.`);
      document.querySelector("[data-verdict]")?.scrollIntoView({ block: "center" });
    } else if (r.kind === "acknowledge") {
      const date = new Date().toISOString().slice(0, 10);
      onZone({ ...zone, acknowledged: [...(zone.acknowledged ?? []), { code: f.code, date }] });
    } else if (r.field === "test" || r.field === "steps") {
      setPicking(r.field === "test" ? "test patch" : "");
    } else {
      focusField(r.field ?? "");
    }
  };
  return (
    <div className="grid flex-1 lg:grid-cols-[19rem_minmax(0,1fr)_minmax(0,30rem)]">
      <section aria-label="What it is" className="border-base-300 px-5 py-4 lg:border-r">
        <h2 className="mb-2 font-semibold text-lg">What it is</h2>
        <Survey
          piece={piece}
          zone={zone}
          implied={judged?.implied}
          lead={judged?.findings.some((f) => f.code === "safety.lead") ?? false}
          onZone={onZone}
          onPiece={onPiece}
        />
        <button type="button" className="btn btn-sm btn-ghost mt-3 text-error" onClick={onRemove}>
          <Trash2 className="size-4" aria-hidden="true" /> Remove this zone
        </button>
      </section>
      <section aria-label="The plan" className="border-base-300 px-5 py-4 lg:border-r">
        <div className="mb-2 flex items-baseline gap-3">
          <h2 className="font-semibold text-lg">The plan</h2>
          <span className="flex-1" />
          {judged && !!zone.steps?.length && (
            <span className="text-secondary text-sm">
              {judged.hours.hands_on !== null &&
                judged.hours.hands_on !== undefined &&
                `${hours(judged.hours.hands_on)} of work, `}
              {hours(judged.hours.elapsed)} in all
            </span>
          )}
        </div>
        <Steps
          steps={zone.steps ?? []}
          findings={judged?.findings ?? []}
          open={step}
          onOpen={setStep}
          picking={picking}
          onPicking={setPicking}
          onChange={(steps) => onZone({ ...zone, steps })}
        />
      </section>
      <section
        aria-label="Will it hold"
        className="max-lg:order-first max-lg:border-base-300 max-lg:border-b px-5 py-4"
      >
        {judged && (
          <>
            <div className="mb-3 flex items-start gap-3" role="status" data-verdict={judged.verdict}>
              <Joint verdict={judged.verdict} className="size-10" />
              <div>
                <h2 className={`font-semibold text-xl leading-tight ${toneOf[judged.verdict]}`}>
                  {{ sound: "Sound", watch: "Watch", fails: "Fails" }[judged.verdict]}
                </h2>
                <p>{judged.says}</p>
              </div>
            </div>
            {stale && (
              <p role="alert" className="mb-2 font-medium text-warning">
                This was judged before your last change. It is judged again as soon as the server answers.
              </p>
            )}
            {said && (
              <p role="status" className="mb-2 text-secondary text-sm">
                {said}
              </p>
            )}
            {judged.section && <SectionView section={judged.section} chosen={step} onChoose={setStep} />}
            <Measures judged={judged} />
            <fieldset disabled={stale} className="min-w-0">
              <Findings findings={judged.findings} onRepair={repair} onStep={setStep} />
            </fieldset>
          </>
        )}
      </section>
    </div>
  );
}

/** Measures are the figures of the verdict, as a sentence first. */
function Measures({ judged }: { judged: ZoneResult }) {
  const a = judged.adhesion;
  return (
    <dl className="my-3 grid grid-cols-[auto_1fr] gap-x-4 gap-y-1 border-base-300 border-y py-2">
      <dt className="text-secondary">Peeling</dt>
      <dd>
        {a ? (
          <>
            <b className="font-semibold">{a.risk_words}</b> risk; the weakest layer reaches {a.strength.toFixed(2)} of a
            full bond where {a.demand.toFixed(2)} is asked
          </>
        ) : (
          "nothing is coated yet"
        )}
      </dd>
      <dt className="text-secondary">Bleeding</dt>
      <dd>
        {judged.bleed.length === 0
          ? a
            ? "nothing below that would come through"
            : "nothing is coated yet"
          : judged.bleed.map((b) => (
              <span key={b.id} className="mr-3 inline-block">
                {b.name} <b className="font-semibold">{b.delta_e.toFixed(1)}</b>
              </span>
            ))}
        {judged.bleed.length > 0 && <span className="text-secondary text-sm">the eye sees 1, anyone sees 3 (ΔE)</span>}
      </dd>
    </dl>
  );
}

/** focusField opens the field that a measurement goes into. */
function focusField(field: string) {
  const el = document.querySelector<HTMLElement>(`[data-field="${field}"]`);
  el?.scrollIntoView({ block: "center" });
  el?.focus();
}
