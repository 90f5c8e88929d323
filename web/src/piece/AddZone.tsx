import type { ReactNode } from "react";
import type { Zone } from "../api/client";
import { useVocab } from "../api/vocab";
import { Tiles } from "../survey/Tiles";
import { TextField } from "../ui/Field";
import { useKeptText } from "../ui/typed";
import { zoneID } from "./edit";

type Props = {
  piece: number;
  taken: string[];
  first: boolean;
  of?: string[]; // its material
  removal?: ReactNode;
  onAdd: (z: Zone) => void;
  onClose?: () => void;
};

/** AddZone asks for the least that a zone needs: a material, and optionally a name. */
export function AddZone({ piece, taken, first, of = [], removal, onAdd, onClose }: Props) {
  const v = useVocab();
  const [kept, setName] = useKeptText(`rutile.zone-name.${piece}`);
  const suggested = of.length === 1 || of.length === 2 ? of.join(" and ").toLowerCase() : "";
  const name = kept || suggested.charAt(0).toUpperCase() + suggested.slice(1);
  return (
    <section className="mx-auto w-full max-w-7xl">
      <div className="mb-3 flex items-start gap-3">
        <div className="flex-1">
          <h2 className="font-semibold text-2xl">{first ? "First zone" : "New zone"}</h2>
          <p className="text-secondary">
            {of.length > 0
              ? `For: ${of.join(", ").toLowerCase()}. Choose the material; the finish comes next.`
              : "A zone is an area of one material with one finish: the drawer fronts, the top, the metal handles. Choose its material."}
          </p>
        </div>
        {onClose && (
          <button data-do="not-now" type="button" className="btn border-base-300 bg-base-100" onClick={onClose}>
            Cancel
          </button>
        )}
      </div>
      <div className="max-w-sm">
        <TextField
          label="Name of the zone"
          of="zone.name"
          name="zone_name"
          value={name}
          hint="Optional, for example: drawer fronts"
          onChange={setName}
        />
      </div>
      <Tiles
        label="What is it made of?"
        name="material"
        eg="oak, chipboard, worktop, tin …"
        words={v.substrates}
        value={undefined}
        open
        eager={!first}
        onChange={(substrate) => {
          const w = v.substrates.find((s) => s.id === substrate);
          setName(undefined);
          onAdd({
            id: zoneID(name || substrate, taken),
            name: name.trim() || w?.name || substrate,
            substrate,
            steps: [],
          });
        }}
      />
      {removal}
    </section>
  );
}
