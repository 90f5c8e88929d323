import type { StageView } from "../piece/workspace";
import { laterView } from "../ui/laterView";

export const sheet: StageView = {
  id: "sheet",
  name: "Job sheet",
  key: "4",
  Main: laterView(() => import("./JobSheet")),
  whole: true,
};
