import { ArrowDown, ArrowUp, Trash2 } from "lucide-react";

type Props = {
  first: boolean;
  last: boolean;
  says: [earlier: string, later: string, remove: string];
  onMove: (by: number) => void;
  onRemove: () => void;
};

/** Order moves an entry of a list by one place, or removes it. */
export function Order({ first, last, says: [earlier, later, remove], onMove, onRemove }: Props) {
  return (
    <div className="mb-1 flex flex-wrap gap-1">
      <button type="button" className="btn btn-ghost" disabled={first} onClick={() => onMove(-1)}>
        <ArrowUp className="size-4" aria-hidden="true" /> {earlier}
      </button>
      <button type="button" className="btn btn-ghost" disabled={last} onClick={() => onMove(1)}>
        <ArrowDown className="size-4" aria-hidden="true" /> {later}
      </button>
      <span className="flex-1" />
      <button type="button" className="btn btn-ghost text-error" onClick={onRemove}>
        <Trash2 className="size-4" aria-hidden="true" /> {remove}
      </button>
    </div>
  );
}

/** moved is a list with one entry moved by some places. */
export function moved<T>(list: T[], n: number, by: number): T[] {
  const next = [...list];
  next.splice(n + by, 0, ...next.splice(n, 1));
  return next;
}
