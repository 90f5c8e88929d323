import { Pencil, Trash2 } from "lucide-react";
import { useState } from "react";
import type { Piece } from "../api/client";
import { Dialog } from "../ui/Dialog";
import { TextField } from "../ui/Field";
import { focusSoon } from "../ui/focus";

/** RemovePiece asks before it removes a whole piece. */
export function RemovePiece({ onRemove }: { onRemove: () => void }) {
  const [asked, setAsked] = useState(false);
  return (
    <>
      <button type="button" className="btn btn-ghost h-12 text-error" onClick={() => setAsked(true)}>
        <Trash2 className="size-4" aria-hidden="true" /> Remove the whole piece
      </button>
      {asked && (
        <Dialog title="Remove the piece for good?" onClose={() => setAsked(false)}>
          <p>Its zones and plans go with it. This cannot be undone.</p>
          <div className="mt-3 flex gap-2">
            <button type="button" className="btn btn-error" onClick={onRemove}>
              Remove it
            </button>
            <button type="button" className="btn btn-ghost" onClick={() => setAsked(false)}>
              Keep it
            </button>
          </div>
        </Dialog>
      )}
    </>
  );
}

/** PieceName shows the name of a piece; pressed, it can be changed. */
export function PieceName({ piece, onName }: { piece: Piece; onName: (name: string) => void }) {
  const [editing, setEditing] = useState(piece.name === "New piece");
  if (!editing) {
    return (
      <h1 className="min-w-0 max-sm:flex-1">
        <button
          type="button"
          className="flex min-h-11 max-w-full items-center gap-2 font-semibold text-xl hover:text-primary"
          title="Press to change the name"
          onClick={() => setEditing(true)}
        >
          <bdi className="line-clamp-1 max-w-sm break-all text-left">{piece.name || "Piece without a name"}</bdi>
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
        focusSoon(() => document.querySelector<HTMLElement>("#work button, #work input"));
      }}
    >
      <h1 className="sr-only">{piece.name}</h1>
      <TextField label="Name of the piece" value={piece.name ?? ""} max={200} eager onChange={onName} />
      <button type="submit" className="btn mb-2">
        Done
      </button>
    </form>
  );
}
