import type { StageView } from "../piece/workspace";
import { laterView } from "../ui/laterView";

export const mix: StageView = {
  id: "mix",
  name: "Mix",
  key: "m",
  says: "Mix and lay: batches and cards",
  Main: laterView(() => import("./MixView")),
  whole: true,
};
