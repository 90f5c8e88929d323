import { Camera, History, LayoutPanelLeft, Rewind, Route, Wrench } from "lucide-react";
import { lazy, type ReactNode, Suspense } from "react";
import type { CheckResult, Part, Piece, Zone } from "../api/client";
import { useKeys } from "../frame/keys";
import { AddZone } from "../piece/AddZone";
import { WholePlan } from "../ways/WholePlan";
import { Disassembly } from "./Disassembly";
import { HistoryView } from "./History";
import { Parts } from "./Parts";
import { QuickEntry } from "./QuickEntry";
import { Templates, useTemplates } from "./Templates";

// Opened now and then: the first load is without them.
const Photos = lazy(() => import("./Photos").then((m) => ({ default: m.Photos })));
const LookBack = lazy(() => import("../work/LookBack"));

export type PieceView = "parts" | "disassembly" | "photos" | "history" | "plan" | "back";
export const PIECE_VIEWS: string[] = ["parts", "disassembly", "photos", "history", "plan", "back"];

const VIEWS = [
  { id: "parts", name: "Parts", icon: LayoutPanelLeft },
  { id: "disassembly", name: "Disassembly", icon: Wrench },
  { id: "photos", name: "Photographs", icon: Camera },
  { id: "history", name: "History", icon: History },
  { id: "plan", name: "Plan the piece", icon: Route },
  { id: "back", name: "Look back", icon: Rewind },
] as const;

const KEYS = ["5", "6", "7", "8", "9", "l"];

type RailProps = { piece: Piece; at: PieceView; onGo: (v: PieceView) => void };

/** PieceRail are the views of a whole piece. */
export function PieceRail({ piece, at, onGo }: RailProps) {
  const list = piece.take_apart ?? [];
  const count: Record<PieceView, string> = {
    parts: piece.parts?.length ? `${piece.parts.length}` : "",
    disassembly: list.length ? `${list.filter((f) => f.off).length}/${list.length}` : "",
    photos: piece.photos?.length ? `${piece.photos.length}` : "",
    history: "",
    plan: "",
    back: "",
  };
  return (
    <nav aria-label="The whole piece" className="min-w-0 max-w-full overflow-x-auto">
      <ul className="flex items-center whitespace-nowrap">
        {VIEWS.map((v) => (
          <li key={v.id}>
            <button
              data-side={v.id}
              data-count={count[v.id]}
              type="button"
              aria-current={v.id === at ? "page" : undefined}
              className={`flex min-h-11 items-center gap-1.5 px-2 text-sm ${v.id === at ? "font-semibold text-primary underline decoration-2 decoration-accent underline-offset-8" : "hover:underline"}`}
              onClick={() => onGo(v.id)}
            >
              <v.icon className="size-4 shrink-0" aria-hidden="true" />
              {v.name}
              {count[v.id] && <span className="text-secondary tabular-nums">{count[v.id]}</span>}
            </button>
          </li>
        ))}
      </ul>
    </nav>
  );
}

type Props = {
  id: number;
  piece: Piece;
  result: CheckResult | undefined;
  view: PieceView;
  removal: ReactNode; // removes the whole piece
  point: string | undefined; // label of the damage to point at on a photograph
  latest: () => Piece | undefined; // the piece as it is at this moment
  onPiece: (p: Piece) => void;
  onView: (v: PieceView) => void;
  onShow: (zone: string) => void;
  onNewZone: (parts: number[]) => void;
  onFirstZone: (z: Zone) => void;
};

/** PieceOverview is a whole piece. */
export function PieceOverview(p: Props) {
  const { piece, result, view } = p;
  useKeys(
    "The whole piece",
    VIEWS.map((v, i) => ({ key: KEYS[i] ?? "", says: v.name, run: () => p.onView(v.id) })),
  );
  const overview = result?.look;
  if (!overview) return null;
  const bare = !piece.parts?.length && !piece.zones?.length;
  switch (view) {
    case "disassembly":
      return (
        <Scroll>
          <Disassembly piece={piece} overview={overview} onPiece={p.onPiece} />
        </Scroll>
      );
    case "photos":
      return (
        <Scroll>
          <Suspense>
            <Photos piece={piece} onPiece={p.onPiece} latest={p.latest} point={p.point} />
          </Suspense>
        </Scroll>
      );
    case "plan":
      return (
        <Scroll>
          <WholePlan piece={piece} onPiece={p.onPiece} onShow={p.onShow} />
        </Scroll>
      );
    case "back":
      return (
        <Scroll>
          <Suspense>
            <LookBack id={p.id} />
          </Suspense>
        </Scroll>
      );
    case "history":
      return (
        <Scroll>
          <HistoryView piece={piece} onPiece={p.onPiece} />
          <div className="mx-auto w-full max-w-4xl px-3 pb-4 sm:px-5">{p.removal}</div>
        </Scroll>
      );
  }
  // The server has read them in the meantime: they are added to the piece as it is now.
  const more = (parts: Part[]) => {
    const now = p.latest() ?? piece;
    const before = now.parts ?? [];
    p.onPiece({ ...now, parts: [...before, ...parts] });
    return before.length;
  };
  if (bare) return <Beginning {...p} onMore={more} />;
  return (
    <Parts
      id={p.id}
      piece={piece}
      overview={overview}
      results={result?.zones}
      onPiece={p.onPiece}
      onMore={more}
      onShow={p.onShow}
      onNewZone={p.onNewZone}
    />
  );
}

/** Beginning is an empty piece: it begins with a template, with parts, or with a zone. */
function Beginning({ id, removal, onMore, onFirstZone }: Props & { onMore: (parts: Part[]) => void }) {
  const templates = useTemplates();
  // It is drawn at once or not at all, so that nothing moves.
  if (templates.isPending) return null;
  return (
    <Scroll>
      <div className="mx-auto w-full max-w-7xl p-3 sm:p-5">
        <section className="mb-6">
          <h2 className="font-semibold text-2xl">What kind of piece is it?</h2>
          <p className="mb-2 text-secondary">
            Choose the closest one and enter its sizes; you can change every part later. Or type a list of its parts.
          </p>
          <Templates all={templates.data ?? []} onMake={onMore} />
          <div className="mt-3 max-w-2xl">
            <QuickEntry piece={id} onAdd={onMore} />
          </div>
        </section>
        <AddZone piece={id} taken={[]} first removal={removal} onAdd={onFirstZone} />
      </div>
    </Scroll>
  );
}

function Scroll({ children }: { children: ReactNode }) {
  return <div className="flex min-h-0 flex-1 flex-col overflow-y-auto">{children}</div>;
}
