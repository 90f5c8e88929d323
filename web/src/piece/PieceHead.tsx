import { useMutation } from "@tanstack/react-query";
import { Pencil, Trash2 } from "lucide-react";
import { useState } from "react";
import { api, type Piece, removed } from "../api/client";
import { useOpen } from "../session/useSession";
import { TextField } from "../ui/Field";
import { focusOn } from "../ui/focus";
import { RemoveDialog } from "../ui/RemoveDialog";

/** RemovePiece asks before it removes a whole piece; if that fails it says why, and the piece stays. */
export function RemovePiece({ onRemoved }: { onRemoved: () => void }) {
  const open = useOpen();
  const [asked, setAsked] = useState(false);
  const remove = useMutation({
    mutationFn: () => removed(api.DELETE("/api/pieces/{id}", { params: { path: { id: open.latest().id } } }), true),
    onSuccess: () => {
      open.dispatch({ type: "removed" });
      onRemoved();
    },
  });
  return (
    <>
      <button
        data-do="remove-piece"
        type="button"
        className="btn btn-ghost h-12 text-error"
        onClick={() => setAsked(true)}
      >
        <Trash2 className="size-4" aria-hidden="true" /> Remove the piece
      </button>
      {asked && (
        <RemoveDialog title="Remove this piece permanently?" removal={remove} onClose={() => setAsked(false)}>
          Its zones and plans are removed with it. This cannot be undone.
        </RemoveDialog>
      )}
    </>
  );
}

type NameProps = { piece: Piece; fresh: boolean; onName: (name: string) => void };

/** PieceName shows the name of a piece; clicked, it can be changed. A new piece asks for its name. */
export function PieceName({ piece, fresh, onName }: NameProps) {
  const [editing, setEditing] = useState(fresh);
  if (!editing) {
    return (
      <h1 className="min-w-0 max-sm:flex-1">
        <button
          type="button"
          className="flex min-h-11 max-w-full items-center gap-2 font-semibold text-xl hover:text-primary"
          title="Click to change the name"
          data-name
          onClick={() => setEditing(true)}
        >
          <bdi className="line-clamp-1 max-w-sm break-all text-left">{piece.name || "Unnamed piece"}</bdi>
          <Pencil className="size-4 shrink-0 text-secondary" aria-hidden="true" />
        </button>
      </h1>
    );
  }
  return (
    <form
      className="flex items-end gap-2"
      onSubmit={(e) => {
        e.preventDefault();
        setEditing(false);
        focusOn("work");
      }}
    >
      <h1 className="sr-only">{piece.name}</h1>
      <TextField label="Name of the piece" of="piece.name" value={piece.name ?? ""} eager onChange={onName} />
      <button type="submit" className="btn mb-2">
        Done
      </button>
    </form>
  );
}
