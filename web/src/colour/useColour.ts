import { keepPreviousData, useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { answer, api, removed, type Schemas } from "../api/client";

export type Part = Schemas["BlendPart"];
export type Blend = Schemas["Blend"];
export type SavedBlend = Schemas["SavedBlend"];

/** useReadColour is a typed colour as the server understands it. */
export const useReadColour = (text: string) =>
  useQuery({
    queryKey: ["read-colour", text],
    enabled: text.trim() !== "",
    retry: false,
    staleTime: Infinity,
    placeholderData: keepPreviousData,
    queryFn: ({ signal }) => answer(api.GET("/api/colour/read", { params: { query: { text } }, signal })),
  });

/** useNearest are the blends nearest to a colour, from the shelf or a palette. */
export const useNearest = (want: string, from: string, kind: string) =>
  useQuery({
    queryKey: ["nearest", want, from, kind],
    enabled: want !== "",
    retry: false,
    placeholderData: keepPreviousData,
    queryFn: ({ signal }) =>
      answer(
        api.GET("/api/nearest", {
          params: { query: { want, from: from || undefined, kind: kind || undefined } },
          signal,
        }),
      ),
  });

type Asked = { litres?: number; other?: string };

/** useBlend is what the parts of a blend come to. */
export const useBlend = (blend: Blend, { litres = 0, other = "" }: Asked) =>
  useQuery({
    queryKey: ["blend", blend, litres, other],
    enabled: blend.parts.some((p) => p.parts > 0),
    retry: false,
    placeholderData: keepPreviousData,
    queryFn: ({ signal }) =>
      answer(
        api.POST("/api/blend", {
          params: { query: { litres, with: other } },
          body: { parts: blend.parts, colour: blend.colour },
          signal,
        }),
      ),
  });

export const usePalettes = () =>
  useQuery({
    queryKey: ["palettes"],
    queryFn: ({ signal }) => answer(api.GET("/api/palettes", { signal })),
  });

export const useBlends = () =>
  useQuery({ queryKey: ["blends"], queryFn: ({ signal }) => answer(api.GET("/api/blends", { signal })) });

/** useSaveBlend keeps a recipe: a new one has no revision. */
export function useSaveBlend(then: (b: SavedBlend) => void) {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: ({ blend, rev }: { blend: Blend; rev?: number }) =>
      rev === undefined
        ? answer(api.POST("/api/blends", { body: { ...blend, id: undefined } }))
        : answer(
            api.PUT("/api/blends/{id}", {
              params: { path: { id: blend.id ?? "" }, header: { "If-Match": `"${rev}"` } },
              body: blend,
            }),
          ),
    onSuccess: (b) => {
      void queries.invalidateQueries({ queryKey: ["blends"] });
      then(b);
    },
  });
}

/** useRemoveBlend removes a recipe. */
export function useRemoveBlend(then: (b: SavedBlend) => void) {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: async (b: SavedBlend) => {
      await removed(api.DELETE("/api/blends/{id}", { params: { path: { id: b.id ?? "" } } }));
      return b;
    },
    onSuccess: (b) => {
      void queries.invalidateQueries({ queryKey: ["blends"] });
      then(b);
    },
  });
}
