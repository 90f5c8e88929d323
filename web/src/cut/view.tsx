import type { StageView } from "../piece/workspace";
import { laterView } from "../ui/laterView";

export const cut: StageView = {
  id: "section",
  name: "Cross-section",
  of: "plan",
  key: "5",
  says: "Cross-section, large and over time",
  Main: laterView(() => import("./CutPage")),
};
