import { memo } from "react";
import type { Schemas } from "../api/client";
import { useUnits } from "../ui/units";
import { bandSays, Cut } from "./Cut";
import { layCut } from "./layout";

type Props = { section: Schemas["Section"]; onChoose: () => void };

/** SmallCut is a cross-section with the names of its layers beside it. */
export const SmallCut = memo(function SmallCut({ section, onChoose }: Props) {
  const u = useUnits();
  const d = layCut(section, 150, 150);
  return (
    <figure className="mb-4 flex items-end gap-3">
      <Cut section={section} drawing={d} width={150} onChoose={onChoose} />
      <figcaption className="min-w-0 flex-1">
        <ul className="flex flex-col-reverse text-sm leading-none">
          {d.bands.map((b) => (
            <li key={b.key} title={bandSays(b, u)} className="flex items-center" style={{ height: b.bottom - b.top }}>
              <span className="truncate leading-tight">
                {b.l.coat && b.l.coat > 1 ? `${b.l.name}, coat ${b.l.coat}` : b.l.name}
              </span>
            </li>
          ))}
        </ul>
      </figcaption>
    </figure>
  );
});
