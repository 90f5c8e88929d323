import type { StageView } from "../piece/workspace";
import { laterView } from "../ui/laterView";

export const work: StageView = {
  id: "work",
  name: "Work",
  key: "l",
  says: "Work: what is next, and the log",
  Main: laterView(() => import("./WorkView")),
  whole: true,
};
