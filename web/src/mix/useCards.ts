import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { answer, api, ofOpen, type Piece, type Schemas, type Step, type Zone } from "../api/client";
import { useStudio } from "../api/studio";
import { numberOf } from "../piece/useCheck";
import { ADDITIVE } from "../shelf/carry";

export type Card = Schemas["Card"];
export type Cards = Schemas["ZoneCards"];
export type Turn = Schemas["Turn"];

/**
 * cardsBody is a piece as its cards are asked for: the whole of it is drawn, and the names of its other zones stand on
 * the cards; their plans do not matter.
 */
export const cardsBody = (piece: Piece, zone: string): Piece => ({
  ...piece,
  photos: undefined,
  zones: piece.zones?.map((z) => (z.id === zone ? z : { ...z, steps: [] })),
});

/** useCards are the batches and cards of a zone. */
export function useCards(piece: Piece, zone: Zone) {
  const studio = useStudio();
  return useQuery({
    queryKey: ["cards", zone.id, numberOf(piece), studio?.rev],
    placeholderData: keepPreviousData,
    retry: 1,
    queryFn: ({ signal }) =>
      answer(
        api.POST("/api/cards", {
          params: { query: { zone: zone.id, ...ofOpen() } },
          body: cardsBody(piece, zone.id),
          signal,
        }),
      ),
  });
}

/** withMix is a step with something else chosen for its mixing. */
export function withMix(step: Step, field: string, id: string, value: number): Step {
  const mix = (part: NonNullable<Step["mix"]>) => {
    const next = { ...step.mix, ...part };
    const empty = Object.values(next).every((x) => x === undefined || x === false);
    return { ...step, mix: empty ? undefined : next };
  };
  switch (field) {
    case "water_ratio":
      return { ...step, water_ratio: value };
    case "thin_pct":
      return { ...step, thin_pct: value || undefined };
    case "additive":
      return {
        ...step,
        additive: value ? { product: ADDITIVE, ratio: value, coats: step.additive?.coats } : undefined,
      };
    case "tint_ratio":
      return mix({ tint_ratio: value });
    case "recipe":
      return mix({ recipe: id as NonNullable<Step["mix"]>["recipe"] });
    case "paint_l":
      return mix({ paint_l: value || undefined });
  }
  return step;
}

/** withBlend is a step whose paint is blended by a recipe of the studio; without one it is one paint. */
export function withBlend(step: Step, blend: Schemas["SavedBlend"] | undefined): Step {
  const parts = blend?.parts.filter((p) => p.parts > 0);
  const { blend: _, ...rest } = step.mix ?? {};
  const mix = parts ? { ...rest, blend: parts } : Object.keys(rest).length ? rest : undefined;
  return { ...step, mix, colour: blend ? blend.result : step.colour };
}
