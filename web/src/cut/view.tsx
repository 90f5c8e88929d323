import { type StageView, useWorkspace } from "../piece/workspace";
import { CutView } from "./CutView";

function Main() {
  const { piece, zone, judged, go, apply } = useWorkspace();
  return <CutView piece={piece} zone={zone} judged={judged} onBack={() => go("plan")} onRepair={apply} />;
}

export const cut: StageView = {
  id: "section",
  name: "Cross-section",
  of: "plan",
  key: "5",
  says: "Cross-section, large and over time",
  Main,
};
