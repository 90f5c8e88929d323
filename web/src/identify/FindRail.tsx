import { Grid3x3, Search, ShieldAlert } from "lucide-react";
import { useWorkspace } from "../piece/workspace";

const SIDES = [
  { id: "identify", name: "What is it?", icon: Search },
  { id: "lead", name: "Lead", icon: ShieldAlert },
  { id: "patches", name: "Patch tests", icon: Grid3x3 },
] as const;

type Find = (typeof SIDES)[number]["id"];

/** FindRail are the ways to identify a zone and to try whether a coat holds. */
export function FindRail({ at }: { at: Find }) {
  const { zone, judged, go } = useWorkspace();
  const rated = (zone.patches ?? []).filter((p) => p.class !== undefined).length;
  const says: Record<Find, string> = {
    identify: zone.evidence?.length ? `${zone.evidence.length} answered` : "",
    lead: judged?.lead
      ? { undated: "test advised", suspect: "suspect", found: "found", excluded: "excluded" }[judged.lead.state]
      : "",
    patches: zone.patches?.length ? `${rated} of ${zone.patches.length} rated` : "",
  };
  return (
    <nav aria-label="Identify" className="mb-3 flex flex-wrap gap-1 border-base-300 border-b">
      {SIDES.map((s) => (
        <button
          data-view={s.id}
          key={s.id}
          type="button"
          aria-current={s.id === at ? "page" : undefined}
          className={`-mb-px flex min-h-11 items-center gap-1.5 border-b-2 px-3 ${s.id === at ? "border-primary font-semibold text-primary" : "border-transparent hover:bg-base-200"}`}
          onClick={() => go(s.id)}
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
