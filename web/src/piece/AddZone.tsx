import type { ReactNode } from "react";
import type { Zone } from "../api/client";
import { Tiles } from "../survey/Tiles";
import { TextField } from "../ui/Field";
import { useKeptText } from "../ui/typed";
import { useVocab } from "./vocab";

type Props = {
  piece: number;
  taken: string[];
  first: boolean;
  removal: ReactNode;
  onAdd: (z: Zone) => void;
  onClose?: () => void;
};

/** AddZone asks for the least a zone can be described by: a name, which may wait, and a material. */
export function AddZone({ piece, taken, first, removal, onAdd, onClose }: Props) {
  const v = useVocab();
  const [name, setName] = useKeptText(`rutile.zone-name.${piece}`);
  return (
    <section className="mx-auto w-full max-w-4xl">
      <div className="mb-3 flex items-start gap-3">
        <div className="flex-1">
          <h2 className="font-semibold text-2xl">{first ? "The first zone" : "Another zone"}</h2>
          <p className="text-secondary">
            A zone is an area of one material with one finish on it: the drawer fronts, the top, the metal handles.
            Press what it is made of.
          </p>
        </div>
        {onClose && (
          <button type="button" className="btn border-base-300 bg-base-100" onClick={onClose}>
            Not now
          </button>
        )}
      </div>
      <div className="max-w-sm">
        <TextField
          label="Name of the zone"
          value={name}
          max={200}
          hint="May wait, as: drawer fronts"
          onChange={setName}
        />
      </div>
      <Tiles
        label="What is it made of?"
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

/** zoneID makes an id of a name that no other zone of the piece has. */
export function zoneID(name: string, taken: string[]): string {
  const base =
    name
      .normalize("NFKD")
      .toLowerCase()
      .replace(/[^a-z0-9]+/g, "-")
      .replace(/^-+|-+$/g, "")
      .slice(0, 32) || "zone";
  let id = base;
  for (let n = 2; taken.includes(id); n++) id = `${base}-${n}`;
  return id;
}
