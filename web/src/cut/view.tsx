import { type StageView, useDesk } from "../piece/desk";
import { CutView } from "./CutView";

function Main() {
  const { piece, zone, judged, go, mend } = useDesk();
  return <CutView piece={piece} zone={zone} judged={judged} onBack={() => go("plan")} onRepair={mend} />;
}

export const cut: StageView = {
  id: "cut",
  name: "Cross-section",
  of: "plan",
  key: "5",
  says: "Cross-section, large and over time",
  Main,
};
