import { useState } from "react";
import type { Zone } from "../api/client";
import { Choice } from "../ui/Choice";
import { useVocab } from "./vocab";

type Props = { taken: string[]; first: boolean; onAdd: (z: Zone) => void; onClose?: () => void };

/** AddZone asks for the least a zone can be described by: a name and a material. */
export function AddZone({ taken, first, onAdd, onClose }: Props) {
  const v = useVocab();
  const [name, setName] = useState("");
  const [substrate, setSubstrate] = useState("");
  const [said, setSaid] = useState<string>();
  return (
    <form
      className="sheet max-w-xl rounded-r bg-base-200 p-4"
      onSubmit={(e) => {
        e.preventDefault();
        if (!substrate) {
          setSaid("Choose what it is made of; “unknown wood” and “unknown plastic” are among the choices.");
          return;
        }
        onAdd({ id: zoneID(name || substrate, taken), name: name.trim().slice(0, 200), substrate, steps: [] });
      }}
    >
      <h2 className="mb-1 font-semibold text-lg">{first ? "The first zone" : "Another zone"}</h2>
      <p className="mb-3 text-secondary">
        A zone is an area of one material with one finish on it: the drawer fronts, the top, the metal handles.
      </p>
      <label className="mb-2 block">
        <span className="mb-0.5 block font-medium text-secondary text-sm">Name</span>
        <input
          className="input w-full"
          dir="auto"
          maxLength={200}
          value={name}
          placeholder="Drawer fronts"
          onChange={(e) => setName(e.target.value)}
        />
      </label>
      <Choice label="Made of" words={v.substrates} none="Choose …" value={substrate} onChange={setSubstrate} />
      {said && (
        <p role="alert" className="mb-2 text-error text-sm">
          {said}
        </p>
      )}
      <button type="submit" className="btn btn-primary">
        Add zone
      </button>
      {onClose && (
        <button type="button" className="btn btn-ghost ml-2" onClick={onClose}>
          Not now
        </button>
      )}
    </form>
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
