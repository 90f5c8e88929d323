import { Armchair, Plus } from "lucide-react";
import { memo, useEffect, useRef } from "react";
import type { Zone, ZoneResult } from "../api/client";
import { Joint } from "../ui/Mark";
import { count } from "../ui/units";
import { zoneTitle } from "./edit";
import type { Stage, StageView } from "./workspace";

type TabsProps = {
  zones: Zone[];
  results: ZoneResult[] | undefined;
  here: string | undefined;
  whole: string; // stands for the whole piece
  loose: number; // painted parts without a zone
  onWhole: () => void;
  onShow: (zone: string) => void;
  onAdd: () => void;
};

const MANY = 24; // zones from which the bar scrolls, so that it leaves room for the work

/** ZoneTabs are the zones of a piece, each with how it stands. */
export const ZoneTabs = memo(function ZoneTabs(p: TabsProps) {
  const { zones, results, here, whole, loose, onWhole, onShow, onAdd } = p;
  const open = useRef<HTMLButtonElement>(null);
  const many = zones.length > MANY;
  // biome-ignore lint/correctness/useExhaustiveDependencies: another zone is another place in the bar
  useEffect(() => {
    if (many) open.current?.scrollIntoView({ block: "nearest" });
  }, [many, here]);
  return (
    <nav
      aria-label="Zones"
      className={`flex min-w-0 flex-wrap items-end gap-1 ${many ? "max-h-34 overflow-y-auto overscroll-contain" : ""}`}
    >
      <button
        type="button"
        data-tab={whole}
        aria-current={here === whole ? "page" : undefined}
        title={loose > 0 ? `${count(loose, "painted part is", "painted parts are")} not in a zone yet` : undefined}
        className={`-mb-px flex min-h-11 items-center gap-2 rounded-t border px-3 py-1.5 ${here === whole ? "border-base-300 border-b-base-100 bg-base-100 font-semibold" : "border-transparent hover:bg-base-100"}`}
        onClick={onWhole}
      >
        <Armchair className="size-5 text-primary" aria-hidden="true" />
        Whole piece
        {loose > 0 && zones.length > 0 && (
          <span className="rounded-full border border-warning px-1.5 text-sm text-warning tabular-nums">
            {loose}
            <span className="sr-only"> parts without a zone</span>
          </span>
        )}
      </button>
      {zones.map((z) => {
        const v = results?.find((r) => r.id === z.id)?.verdict;
        const on = z.id === here;
        return (
          <button
            key={z.id}
            ref={on ? open : undefined}
            type="button"
            data-tab={z.id}
            aria-current={on ? "page" : undefined}
            className={`-mb-px flex min-h-11 items-center gap-2 rounded-t border px-3 py-1.5 ${on ? "border-base-300 border-b-base-100 bg-base-100 font-semibold" : "border-transparent hover:bg-base-100"}`}
            onClick={() => onShow(z.id)}
          >
            {v ? <Joint verdict={v} /> : <span className="size-5" />}
            <bdi className="max-w-48 truncate">{zoneTitle(z)}</bdi>
            {v && <span className="sr-only">{v}</span>}
          </button>
        );
      })}
      <button data-do="add-zone" type="button" className="btn btn-ghost min-h-11 px-2.5" onClick={onAdd}>
        <Plus className="size-5" aria-hidden="true" /> Zone
      </button>
    </nav>
  );
});

type RailProps = {
  stages: Stage[] | undefined | null;
  view: StageView;
  onGo: (s: Stage) => void;
};

const STATE = { done: "done", open: "unfinished", stuck: "something is blocking it" };

/** StageRail is the stages of a zone in the order of the work; each shows whether something is unfinished. */
export const StageRail = memo(function StageRail({ stages, view, onGo }: RailProps) {
  const rail = useRef<HTMLElement>(null);
  const bead = useRef<HTMLButtonElement>(null);
  const here = stages && firstOf(stages, view.of ?? view.id);
  // biome-ignore lint/correctness/useExhaustiveDependencies: another view is another place on the rail
  useEffect(() => {
    if (rail.current && bead.current) {
      rail.current.scrollLeft = bead.current.offsetLeft - rail.current.clientWidth / 2;
    }
  }, [view]);
  return (
    <nav ref={rail} aria-label="Stages of the work" className="relative min-w-0 max-w-full overflow-x-auto">
      <ol className="flex items-center whitespace-nowrap">
        {stages?.map((s, i) => {
          const on = s.id === here;
          return (
            <li key={s.id} className="flex items-center">
              {i > 0 && <span aria-hidden="true" className="h-px w-2 bg-base-300 sm:w-3" />}
              <button
                ref={on ? bead : undefined}
                type="button"
                data-stage={s.id}
                aria-current={on ? "step" : undefined}
                title={s.says}
                className={`flex min-h-11 items-center gap-1.5 px-1.5 text-sm ${on ? "font-semibold text-primary underline decoration-2 decoration-accent underline-offset-8" : "hover:underline"}`}
                onClick={() => onGo(s)}
              >
                <Bead state={s.state} />
                {s.name}
                <span className="sr-only">
                  , {STATE[s.state]}: {s.says}
                </span>
              </button>
            </li>
          );
        })}
      </ol>
    </nav>
  );
});

/** firstOf is which of the stages of one view is meant: the first with something unfinished, otherwise the last. */
function firstOf(stages: Stage[], view: string) {
  const here = stages.filter((s) => s.view === view);
  return (here.find((s) => s.state !== "done") ?? here.at(-1))?.id;
}

/** Bead is the state of a stage: filled when done, a ring when unfinished, split when blocked. */
export function Bead({ state }: { state: Stage["state"] }) {
  const tone = { done: "text-success", open: "text-secondary", stuck: "text-error" }[state];
  return (
    <svg viewBox="0 0 16 16" className={`size-4 shrink-0 ${tone}`} aria-hidden="true">
      {state === "done" && <circle cx="8" cy="8" r="5.500" fill="currentColor" />}
      {state === "open" && <circle cx="8" cy="8" r="4.700" fill="none" stroke="currentColor" strokeWidth="1.800" />}
      {state === "stuck" && (
        <>
          <path d="M2.500 8.500a5.500 5.500 0 0 1 5-6L6 7l3 2-1.500 4.500a5.500 5.500 0 0 1-5-5Z" fill="currentColor" />
          <path d="M10.500 3a5.500 5.500 0 0 1 0 10L12 9 9.500 7.500Z" fill="currentColor" />
        </>
      )}
    </svg>
  );
}
