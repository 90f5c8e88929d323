import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { answer, api, type Identification, type Piece, RETRY, Refused, type Zone } from "../api/client";
import { ofZones } from "../piece/edit";
import { numberOf } from "../piece/useCheck";

/**
 * useIdentify is the result of a zone's tests. The last answer stays until the next one, so that bars move and
 * nothing flickers; silent tells that it is out of date, refused why there is none.
 */
export function useIdentify(piece: Piece, zone: Zone) {
  const q = useQuery({
    queryKey: ["identify", zone.id, numberOf(piece)],
    queryFn: ({ signal }) =>
      answer(api.POST("/api/identify", { params: { query: { zone: zone.id } }, body: ofZones(piece, [zone]), signal })),
    placeholderData: (before, query) => (query?.queryKey[1] === zone.id ? keepPreviousData(before) : undefined),
    retry: (_, e) => !(e instanceof Refused),
    retryDelay: RETRY,
  });
  return {
    found: q.data,
    silent: q.failureCount > 0 && !q.isError,
    refused: q.isError ? q.error.message : undefined,
  };
}

/** taken is a survey with the result entered. */
export function taken(zone: Zone, t: NonNullable<Identification["take"]>): Zone {
  return { ...zone, substrate: t.substrate, veneer: t.veneer || undefined, finish: t.finish };
}
