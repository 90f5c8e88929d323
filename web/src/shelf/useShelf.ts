import { keepPreviousData, type QueryClient, useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { answer, api, type Can, removed, type Schemas } from "../api/client";
import { remember } from "./carry";

type ShelfCan = Schemas["ShelfCan"];

/** SHELF requests the cans in which all of some words are found. */
export const SHELF = (find = "") => ({
  queryKey: ["shelf", find],
  queryFn: async ({ signal }: { signal: AbortSignal }) => {
    const shelf = await answer(api.GET("/api/shelf", { params: { query: { find } }, signal }));
    remember(shelf.cans);
    return shelf;
  },
  placeholderData: keepPreviousData,
  staleTime: 5000,
});

/** useShelf is the cans of the studio. */
export const useShelf = (find = "") => useQuery(SHELF(find));

/** shelfChanged has everything that follows from the shelf asked for again. */
export function shelfChanged(queries: QueryClient) {
  for (const key of ["shelf", "needs", "coats", "plans", "nearest", "pieces"]) {
    void queries.invalidateQueries({ queryKey: [key] });
  }
  queries.removeQueries({ queryKey: ["check"], type: "inactive" });
}

/** Kept is a can that was saved: rev is 0 for one that is put back. */
type Kept = { can: Can; rev?: number };

/** usePutCan saves a can: a new one has no revision. */
export function usePutCan(then: (saved: ShelfCan) => void) {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: ({ can, rev }: Kept) =>
      rev === undefined
        ? answer(api.POST("/api/shelf", { body: can }))
        : answer(
            api.PUT("/api/shelf/{id}", {
              params: { path: { id: can.id }, header: { "If-Match": `"${rev}"` } },
              body: can,
            }),
          ),
    onSuccess: (saved) => {
      remember([saved]);
      shelfChanged(queries);
      then(saved);
    },
  });
}

/** useRemoveCan takes a can off the shelf. */
export function useRemoveCan(then: (c: ShelfCan) => void) {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: async (c: ShelfCan) => {
      await removed(api.DELETE("/api/shelf/{id}", { params: { path: { id: c.id } } }));
      return c;
    },
    onSuccess: (c) => {
      shelfChanged(queries);
      then(c);
    },
  });
}

/** canOf is a can of the shelf without what the server says of it. */
export function canOf(c: ShelfCan): Can {
  const { id, kind, name, colour, sheen, size_l, left_l, opened, bought, price_minor, batch, photo, note, label } = c;
  const { reserved_id, reserved_for, mixed_from, mixed } = c;
  const figures = { id, kind, name, colour, sheen, size_l, left_l, opened, bought, price_minor, batch, photo };
  return { ...figures, note, label, reserved_id, reserved_for, mixed_from, mixed };
}
