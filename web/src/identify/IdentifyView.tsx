import { FlaskConical, Grid3x3, Search, ShieldAlert } from "lucide-react";
import { useState } from "react";
import type { Identification, Piece, Zone, ZoneResult } from "../api/client";
import type { View } from "../piece/ZoneBar";
import { Beliefs } from "./Beliefs";
import { FindOut } from "./FindOut";
import { LeadView } from "./LeadView";
import { PatchesView } from "./PatchesView";
import { useIdentify } from "./useIdentify";

export type Find = "identify" | "lead" | "patches";

const SIDES = [
  { id: "identify", name: "What is it?", icon: Search },
  { id: "lead", name: "Lead", icon: ShieldAlert },
  { id: "patches", name: "Patch tests", icon: Grid3x3 },
] as const;

type RailProps = { zone: Zone; judged: ZoneResult | undefined; at: Find; onView: (v: View) => void };

/** FindRail are the ways to find out what a zone is and whether a coat will hold on it. */
export function FindRail({ zone, judged, at, onView }: RailProps) {
  const rated = (zone.patches ?? []).filter((p) => p.class !== undefined).length;
  const says: Record<Find, string> = {
    identify: zone.evidence?.length ? `${zone.evidence.length} answered` : "",
    lead: judged?.lead ? { suspect: "suspect", found: "found", excluded: "excluded" }[judged.lead.state] : "",
    patches: zone.patches?.length ? `${rated} of ${zone.patches.length} rated` : "",
  };
  return (
    <nav aria-label="Finding out" className="mb-3 flex flex-wrap gap-1 border-base-300 border-b">
      {SIDES.map((s) => (
        <button
          key={s.id}
          type="button"
          aria-current={s.id === at ? "page" : undefined}
          className={`-mb-px flex min-h-11 items-center gap-1.5 border-b-2 px-3 ${s.id === at ? "border-primary font-semibold text-primary" : "border-transparent hover:bg-base-200"}`}
          onClick={() => onView(s.id)}
        >
          <s.icon className="size-4" aria-hidden="true" /> {s.name}
          {says[s.id] && (
            <span
              className={`text-sm ${s.id === "lead" && says.lead !== "excluded" ? "text-error" : "text-secondary"}`}
            >
              {says[s.id]}
            </span>
          )}
        </button>
      ))}
    </nav>
  );
}

type Props = {
  id: number; // of the piece
  piece: Piece;
  zone: Zone;
  judged: ZoneResult | undefined;
  view: Find;
  onView: (v: View) => void;
  onZone: (z: Zone) => void;
};

/** useFinding holds what the two halves of the screen share: the answer of the server, and the test gone back to. */
export function useFinding(piece: Piece, zone: Zone, open: boolean) {
  const { found, silent } = useIdentify(piece, zone, open);
  const [asked, setAsked] = useState<string>();
  return { found, silent, asked, setAsked };
}

type Finding = ReturnType<typeof useFinding>;

/** IdentifyView is the stage at which a zone is found out: by looks and small tests, for lead, and by patch tests. */
export function IdentifyView({ id, piece, zone, judged, view, onView, onZone, finding }: Props & { finding: Finding }) {
  return (
    <>
      <FindRail zone={zone} judged={judged} at={view} onView={onView} />
      {view === "identify" && (
        <FindOut
          piece={piece}
          zone={zone}
          found={finding.found}
          silent={finding.silent}
          asked={finding.asked}
          onAsk={finding.setAsked}
          onZone={onZone}
        />
      )}
      {view === "lead" && <LeadView id={id} zone={zone} lead={judged?.lead} onZone={onZone} />}
      {view === "patches" && <PatchesView zone={zone} judged={judged} onZone={onZone} onPlan={() => onView("plan")} />}
    </>
  );
}

/** take gives a survey what is believed. */
export function taken(zone: Zone, t: NonNullable<Identification["take"]>): Zone {
  return { ...zone, substrate: t.substrate, veneer: t.veneer || undefined, finish: t.finish };
}

/** FoundOut is the half that shows the belief. */
export function FoundOut({ zone, onZone, finding }: { zone: Zone; onZone: (z: Zone) => void; finding: Finding }) {
  const { found, silent, setAsked } = finding;
  if (!found) {
    return silent ? (
      <p role="alert" className="text-warning">
        The server does not answer. Your answers are kept; what they come to is worked out when it is back.
      </p>
    ) : (
      <p className="flex items-center gap-2 text-secondary">
        <FlaskConical className="size-5" aria-hidden="true" /> Weighing …
      </p>
    );
  }
  return (
    <>
      {silent && (
        <p role="alert" className="mb-2 text-warning">
          The server does not answer: this was believed before your last answer.
        </p>
      )}
      <Beliefs
        found={found}
        zone={zone}
        onAnswer={setAsked}
        onTake={() => found.take && onZone(taken(zone, found.take))}
      />
    </>
  );
}
