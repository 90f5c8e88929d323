import { Plus, Trash2 } from "lucide-react";
import type { Piece, Schemas } from "../api/client";
import { WholePiece } from "../survey/WholePiece";
import { NumberField, TextField } from "../ui/Field";

type Props = { piece: Piece; onPiece: (p: Piece) => void };

type Past = Schemas["History"];

const empty = (h: Past) => !h.found && h.paid_minor === undefined && !h.note && !h.earlier?.length;

/** Past is what is known of a piece before it came, and where it goes. */
export function PastView({ piece, onPiece }: Props) {
  const h = piece.history ?? {};
  const set = (part: Partial<Past>) => {
    const next = { ...h, ...part };
    onPiece({ ...piece, history: empty(next) ? undefined : next });
  };
  const earlier = h.earlier ?? [];
  return (
    <div className="mx-auto w-full max-w-4xl px-3 py-4 sm:px-5">
      <h2 className="mb-2 font-semibold text-lg">Where it comes from</h2>
      <div className="grid gap-x-4 sm:grid-cols-[1fr_12rem]">
        <TextField
          label="Found"
          value={h.found ?? ""}
          max={2000}
          hint="Where, and with whom it stood: smoke, damp and kitchens leave traces"
          onChange={(found) => set({ found: found || undefined })}
        />
        <NumberField
          label="Bought for"
          value={h.paid_minor === undefined ? undefined : h.paid_minor / 100}
          min={0}
          max={10_000_000}
          hint="In the studio's money; empty where it is a client's"
          onChange={(n) => set({ paid_minor: n === undefined ? undefined : Math.round(n * 100) })}
        />
      </div>
      <fieldset className="mb-3">
        <legend className="mb-0.5 font-medium text-secondary text-sm">What others have done to it</legend>
        <ul className="grid gap-1">
          {earlier.map((e, i) => {
            const put = (part: Partial<typeof e>) =>
              set({ earlier: earlier.map((x, j) => (j === i ? { ...x, ...part } : x)) });
            return (
              // biome-ignore lint/suspicious/noArrayIndexKey: an entry's place is its identity
              <li key={i} className="grid grid-cols-[6rem_1fr_auto] items-end gap-x-3">
                <NumberField
                  label="About"
                  value={e.year}
                  min={1000}
                  max={2200}
                  whole
                  onChange={(year) => put({ year })}
                />
                <TextField label="What" value={e.what} max={2000} onChange={(what) => put({ what })} />
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
          type="button"
          className="btn border-base-300 bg-base-100 font-normal"
          disabled={earlier.length >= 50}
          onClick={() => set({ earlier: [...earlier, { what: "" }] })}
        >
          <Plus className="size-4" aria-hidden="true" /> Painted, stripped, mended before
        </button>
      </fieldset>
      <TextField
        label="What else was noticed"
        lines={3}
        value={h.note ?? ""}
        max={2000}
        hint="Smells, a drawer that sticks, what is missing"
        onChange={(note) => set({ note: note || undefined })}
      />
      <div className="mt-4 border-base-300 border-t pt-3">
        <WholePiece piece={piece} onPiece={onPiece} />
      </div>
    </div>
  );
}
