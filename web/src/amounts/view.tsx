import type { StageView } from "../piece/workspace";
import { laterView } from "../ui/laterView";

export const amounts: StageView = {
  id: "amounts",
  name: "Colour and amounts",
  of: "mix",
  key: "c",
  says: "Colour coat by coat, and how much paint",
  Main: laterView(() => import("./AmountsView")),
  whole: true,
};
