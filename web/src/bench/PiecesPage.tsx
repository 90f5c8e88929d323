import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { Plus } from "lucide-react";
import { Link, useNavigate } from "react-router";
import { answer, api } from "../api/client";
import { Joint, Mark } from "../ui/Mark";

/** PiecesPage shows the pieces in the workshop, and how the plan of each stands. */
export function PiecesPage() {
  const go = useNavigate();
  const queries = useQueryClient();
  const pieces = useQuery({
    queryKey: ["pieces"],
    queryFn: () => answer(api.GET("/api/pieces")),
    refetchOnMount: "always",
  });
  const create = useMutation({
    mutationFn: () =>
      answer(api.POST("/api/pieces", { body: { format: "rutile/piece", version: 1, name: "New piece", zones: [] } })),
    onSuccess: (s) => {
      void queries.invalidateQueries({ queryKey: ["pieces"] });
      void go(`/pieces/${s.id}`);
    },
  });
  return (
    <div className="mx-auto w-full max-w-6xl px-5 py-5">
      <div className="mb-4 flex items-end gap-4">
        <h1 className="font-semibold text-3xl">On the bench</h1>
        <span className="flex-1" />
        <button type="button" className="btn btn-primary" onClick={() => create.mutate()} disabled={create.isPending}>
          <Plus className="size-5" aria-hidden="true" /> New piece
        </button>
      </div>
      {create.isError && <p className="alert alert-error mb-3">It could not be made: {create.error.message}</p>}
      {pieces.isError && <p className="alert alert-error">The pieces cannot be read: {pieces.error.message}</p>}
      {pieces.data?.length === 0 && (
        <p className="sheet py-3 pl-4">
          Nothing is on the bench yet. Press <b>New piece</b>, give it a name, and describe its first zone: an area of
          one material and one finish.
        </p>
      )}
      <ul className="divide-y divide-base-300 border-base-300 border-y">
        {pieces.data?.map((p) => (
          <li key={p.id} className="grid gap-x-6 gap-y-2 py-4 md:grid-cols-[minmax(0,1fr)_minmax(0,1.4fr)]">
            <div>
              <div className="flex items-baseline gap-3">
                <Link
                  className="font-head font-semibold text-xl hover:text-primary hover:underline"
                  to={`/pieces/${p.id}`}
                >
                  <bdi>{p.name || "Piece without a name"}</bdi>
                </Link>
                <Mark verdict={p.verdict} />
              </div>
              <p className="mt-1 text-secondary">{p.says}</p>
            </div>
            <ul className="grid min-w-0 grid-cols-[minmax(0,1fr)] content-start gap-1.5">
              {p.zones.map((z) => (
                <li key={z.id}>
                  <Link
                    to={`/pieces/${p.id}/${z.id}`}
                    className="flex items-center gap-3 rounded px-2 py-1.5 hover:bg-base-200"
                  >
                    <Swatch colour={z.colour} />
                    <Joint verdict={z.verdict} />
                    <span className="min-w-0 flex-1 leading-tight">
                      <bdi className="block break-words font-medium">{z.name || z.id}</bdi>
                      <span className="block text-secondary text-sm">{z.says}</span>
                    </span>
                    {z.area_m2 > 0 && <span className="text-secondary text-sm tabular-nums">{z.area_m2} m²</span>}
                  </Link>
                </li>
              ))}
            </ul>
          </li>
        ))}
      </ul>
    </div>
  );
}

function Swatch({ colour }: { colour: string }) {
  return (
    <svg viewBox="0 0 10 10" className="size-6 shrink-0 rounded border border-base-300" aria-hidden="true">
      <rect width="10" height="10" fill={colour || "#fbf8f2"} />
      {!colour && <path d="M0 10 10 0" stroke="#d9cdba" />}
    </svg>
  );
}
