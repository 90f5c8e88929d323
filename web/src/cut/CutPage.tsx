import { useWorkspace } from "../piece/workspace";
import { CutView } from "./CutView";

/** CutPage is the cross-section of the open zone, large and over time. */
export default function CutPage() {
  const { piece, zone, judged, go, apply } = useWorkspace();
  return <CutView piece={piece} zone={zone} judged={judged} onBack={() => go("plan")} onRepair={apply} />;
}
