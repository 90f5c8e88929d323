import { useMutation, useQueryClient } from "@tanstack/react-query";
import { Download, Trash2, TriangleAlert } from "lucide-react";
import { useState } from "react";
import { api, removed, type Schemas } from "../api/client";
import { RemoveDialog } from "../ui/RemoveDialog";

/** Damaged is a piece that cannot be opened: why, its document to save, and its removal. */
export function Damaged({ p }: { p: Schemas["Summary"] }) {
  const queries = useQueryClient();
  const [asked, setAsked] = useState(false);
  const remove = useMutation({
    mutationFn: () => removed(api.DELETE("/api/pieces/{id}", { params: { path: { id: p.id } } })),
    onSuccess: () => queries.invalidateQueries({ queryKey: ["pieces"] }),
  });
  return (
    <article className="sheet wash flex flex-1 flex-col gap-1.5 px-4 py-3" data-damaged={p.id}>
      <h2 className="font-semibold text-lg leading-tight">
        <bdi className="line-clamp-2 break-words">{p.name || "Unnamed piece"}</bdi>
      </h2>
      <p className="flex items-center gap-1.5 font-medium text-error">
        <TriangleAlert className="size-5 shrink-0" aria-hidden="true" /> Damaged: it cannot be opened.
      </p>
      <p className="break-words text-sm">{p.damaged}</p>
      <p className="text-sm">Nothing of it was changed. Save its document before you remove it.</p>
      <div className="mt-auto flex flex-wrap gap-2 pt-1">
        <a className="btn btn-primary" href={`/api/pieces/${p.id}/document`} download data-do="save-document">
          <Download className="size-4" aria-hidden="true" /> Save its document
        </a>
        <button
          data-do="remove-damaged"
          type="button"
          className="btn border-base-300 bg-base-100 font-normal"
          onClick={() => setAsked(true)}
        >
          <Trash2 className="size-4" aria-hidden="true" /> Remove
        </button>
      </div>
      {asked && (
        <RemoveDialog title="Remove this damaged piece permanently?" removal={remove} onClose={() => setAsked(false)}>
          Its document is removed with it. This cannot be undone.
        </RemoveDialog>
      )}
    </article>
  );
}
