import type { StageView } from "../piece/workspace";
import { JobSheet } from "./JobSheet";

export const sheet: StageView = { id: "sheet", name: "Job sheet", key: "4", Main: JobSheet, whole: true };
