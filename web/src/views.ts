import { amounts } from "./amounts/view";
import { cut } from "./cut/view";
import { identify, lead, patches } from "./identify/view";
import { mix } from "./mix/view";
import type { StageView } from "./piece/workspace";
import { plan } from "./plan/view";
import { sheet } from "./sheet/view";
import { survey } from "./survey/view";
import { ways } from "./ways/view";
import { work } from "./work/view";

/** VIEWS are the views of a zone, in the order of their keys. A stage brings its view in its folder. */
export const VIEWS: StageView[] = [survey, identify, plan, mix, amounts, sheet, work, cut, ways, lead, patches];

/** viewOf is a view by its name in the address; undefined for none. */
export const viewOf = (id: string | undefined) => VIEWS.find((v) => v.id === id);
