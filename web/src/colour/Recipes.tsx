import { useState } from "react";
import { why } from "../api/client";
import { date, useUnits } from "../ui/units";
import { Swatch } from "./Swatch";
import { type SavedBlend, useBlends, useRemoveBlend, useSaveBlend } from "./useColour";

type Props = { chosen: string | undefined; onOpen: (b: SavedBlend) => void };

/** Recipes are the studio's saved blends, to be made again. */
export function Recipes({ chosen, onOpen }: Props) {
  const u = useUnits();
  const blends = useBlends();
  const [gone, setGone] = useState<SavedBlend>();
  const remove = useRemoveBlend(setGone);
  const back = useSaveBlend(() => setGone(undefined));
  const all = blends.data ?? [];
  return (
    <section aria-label="Recipes" className="mt-6">
      <h2 className="font-semibold text-primary text-xl">Recipes</h2>
      {gone && (
        <p role="status" className="flex flex-wrap items-center gap-2" data-gone>
          “{gone.name}” was removed.
          <button
            data-do="put-back"
            type="button"
            className="btn"
            onClick={() =>
              back.mutate({
                blend: {
                  id: gone.id,
                  name: gone.name,
                  colour: gone.colour,
                  parts: gone.parts,
                  made: gone.made,
                  note: gone.note,
                },
                rev: 0,
              })
            }
          >
            Put it back
          </button>
        </p>
      )}
      {remove.isError && (
        <p role="alert" className="text-error">
          Not removed: {why(remove.error)}
        </p>
      )}
      {blends.data && !all.length && (
        <p className="text-secondary">No recipe yet. Save a blend, and it stands here to be made again.</p>
      )}
      <ul className="mt-1 grid gap-2">
        {all.map((b) => (
          <li
            key={b.id}
            data-recipe={b.id}
            className={`sheet flex items-center gap-3 rounded px-3 py-2 ${chosen === b.id ? "bg-base-200" : ""}`}
          >
            <Swatch colour={b.result} />
            <span className="min-w-0 flex-1 leading-tight">
              <b className="font-semibold">
                <bdi>{b.name}</bdi>
              </b>
              <span className="block text-sm">{b.says}</span>
              {b.made && <span className="block text-secondary text-sm">Last mixed {date(b.made, u)}</span>}
            </span>
            <button type="button" data-do="make-again" className="btn" onClick={() => onOpen(b)}>
              Make again
            </button>
            <button
              type="button"
              data-do="remove-recipe"
              className="btn btn-ghost px-2 text-error"
              aria-label={`Remove ${b.name}`}
              onClick={() => remove.mutate(b)}
            >
              Remove
            </button>
          </li>
        ))}
      </ul>
    </section>
  );
}
