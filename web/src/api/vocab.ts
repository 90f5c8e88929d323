import { useQuery } from "@tanstack/react-query";
import { createContext, useContext } from "react";
import { answer, api, type Schemas, type Step, type Vocab } from "./client";

/** VOCAB requests every id with its meaning. */
export const VOCAB = {
  queryKey: ["vocab"],
  queryFn: ({ signal }: { signal: AbortSignal }) => answer(api.GET("/api/vocab", { signal })),
  staleTime: Infinity,
};

export const useVocabQuery = () => useQuery(VOCAB);

const empty = { limits: {} } as Vocab;
export const VocabContext = createContext<Vocab>(empty);

/** useVocab is every id with its meaning; it is loaded inside a piece. */
export const useVocab = () => useContext(VocabContext);

export type Limit = Schemas["Limit"];
const ANY: Limit = {};

/** useLimit is the limit of a field, by its object and name; of a step by its kind, as "coat.coats". */
export function useLimit(of: string | undefined): Limit {
  const v = useContext(VocabContext);
  return (of && v.limits[of]) || ANY;
}

type Word = { id: string; name: string };

export function nameOf(words: Word[] | undefined, id: string | undefined): string {
  return words?.find((w) => w.id === id)?.name ?? id ?? "";
}

/** stepName is the name of a step until the server has named it: its product, otherwise its kind. */
export function stepName(v: Vocab, s: Step): string {
  const all: (Word[] | undefined)[] = [v.products, v.cleaners, v.effects, v.fillers];
  const id = s.product ?? s.effect ?? s.with;
  for (const words of all) {
    const w = words?.find((x) => x.id === id);
    if (w) return w.name;
  }
  return nameOf(v.steps, s.do);
}

/** soilsSay lists the dirt on a surface, as "marked grease, light dust". */
export function soilsSay(v: Vocab, soils: Schemas["Level"][]): string {
  return soils.map((s) => `${v.levels[s.level] ?? ""} ${nameOf(v.soils, s.id)}`).join(", ");
}
