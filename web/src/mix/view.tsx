import type { StageView } from "../piece/workspace";
import { laterView } from "../ui/laterView";

export const mix: StageView = {
  id: "mix",
  name: "Colour and amounts",
  of: "plan",
  key: "m",
  says: "Colour coat by coat, and how much paint",
  Main: laterView(() => import("./MixView")),
  whole: true,
};
