import { Plus, Trash2 } from "lucide-react";
import type { Piece, Schemas } from "../api/client";
import { useLimit } from "../api/vocab";
import { WholePiece } from "../survey/WholePiece";
import { NumberField, TextField } from "../ui/Field";

type Props = { piece: Piece; onPiece: (p: Piece) => void };

type Past = Schemas["History"];

const empty = (h: Past) => !h.found && h.paid_minor === undefined && !h.note && !h.earlier?.length;

/** HistoryView is what is known of a piece's past. */
export function HistoryView({ piece, onPiece }: Props) {
  const h = piece.history ?? {};
  const set = (part: Partial<Past>) => {
    const next = { ...h, ...part };
    onPiece({ ...piece, history: empty(next) ? undefined : next });
  };
  const earlier = h.earlier ?? [];
  const most = useLimit("history.earlier").max_len ?? 0;
  return (
    <div className="mx-auto w-full max-w-4xl px-3 py-4 sm:px-5">
      <h2 className="mb-2 font-semibold text-lg">History</h2>
      <div className="grid gap-x-4 sm:grid-cols-[1fr_12rem]">
        <TextField
          label="Origin"
          of="history.found"
          value={h.found ?? ""}
          hint="Where it was found and stood: smoke, damp and kitchens leave traces"
          onChange={(found) => set({ found: found || undefined })}
        />
        <NumberField
          label="Purchase price"
          of="history.paid_minor"
          times={0.01}
          value={h.paid_minor}
          hint="In your currency; empty if it belongs to a client"
          onChange={(paid_minor) => set({ paid_minor })}
        />
      </div>
      <fieldset className="mb-3">
        <legend className="mb-0.5 font-medium text-secondary text-sm">Previous work</legend>
        <ul className="grid gap-1">
          {earlier.map((e, i) => {
            const put = (part: Partial<typeof e>) =>
              set({ earlier: earlier.map((x, j) => (j === i ? { ...x, ...part } : x)) });
            return (
              // biome-ignore lint/suspicious/noArrayIndexKey: an entry's place is its identity
              <li key={i} className="grid grid-cols-[6rem_1fr_auto] items-end gap-x-3">
                <NumberField label="When" of="earlier.year" value={e.year} onChange={(year) => put({ year })} />
                <TextField label="What" of="earlier.what" value={e.what} onChange={(what) => put({ what })} />
                <button
                  type="button"
                  className="btn btn-ghost btn-square mb-2"
                  aria-label={`Remove entry ${i + 1}`}
                  onClick={() => set({ earlier: earlier.filter((_, j) => j !== i) })}
                >
                  <Trash2 className="size-4" aria-hidden="true" />
                </button>
              </li>
            );
          })}
        </ul>
        <button
          data-do="add-earlier"
          type="button"
          className="btn border-base-300 bg-base-100 font-normal"
          disabled={earlier.length >= most}
          onClick={() => set({ earlier: [...earlier, { what: "" }] })}
        >
          <Plus className="size-4" aria-hidden="true" /> Add earlier painting, stripping or repairs
        </button>
      </fieldset>
      <TextField
        label="Other notes"
        of="history.note"
        lines={3}
        value={h.note ?? ""}
        hint="Smells, a drawer that sticks, missing parts"
        onChange={(note) => set({ note: note || undefined })}
      />
      <div className="mt-4 border-base-300 border-t pt-3">
        <WholePiece
          use={piece.use}
          made={piece.made}
          site={piece.site}
          onPiece={(part) => onPiece({ ...piece, ...part })}
        />
      </div>
    </div>
  );
}
