import { useRef } from "react";
import type { Schemas, Step } from "../api/client";
import { stepName, useVocab } from "../api/vocab";

type Says = Schemas["StepSays"];

const like = (a: Step | undefined, b: Step) =>
  a?.do === b.do && a.product === b.product && a.with === b.with && a.effect === b.effect;

/**
 * useStepWords are the words for the steps of a plan, from the server: says are those of the last verdict, current
 * tells that it is for these steps. Until there is one a step keeps its words, except when the server does not
 * answer: then it is named by its product or kind.
 */
export function useStepWords(steps: Step[], says: Says[] | undefined, current: boolean, silent: boolean): Says[] {
  const v = useVocab();
  const last = useRef<{ steps: Step[]; says: Says[] }>(undefined);
  if (current && says?.length === steps.length) last.current = { steps, says };
  const known = last.current;
  return steps.map((s, i) => {
    const at = known ? known.steps.indexOf(s) : -1;
    const was = known?.says[at >= 0 ? at : i];
    if (was && (at >= 0 || (!silent && like(known?.steps[i], s)))) return was;
    return { title: stepName(v, s) };
  });
}
