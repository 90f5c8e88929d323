import { useRef, useState } from "react";
import type { Schemas } from "../api/client";
import { useSaveStudio } from "../api/studio";
import { useVocab } from "../api/vocab";
import { Check, Choice } from "../ui/Choice";
import { Dialog } from "../ui/Dialog";
import { TextField } from "../ui/Field";
import { named } from "../ui/named";
import { SaveBar } from "../ui/SaveBar";
import { Ticked } from "../ui/Ticked";

type Kit = Schemas["Kit"];
type Use = "everyday" | "matt" | "hard" | "weather";

type Props = {
  kit: Kit | undefined; // undefined for a new one
  taken: Kit[];
  changed: boolean; // it comes with the program and was changed
  onClose: () => void;
};

/** KitEditor creates, changes or removes a kit. */
export function KitEditor({ kit, taken, changed, onClose }: Props) {
  const v = useVocab();
  const [k, setK] = useState<Kit>(kit ?? { id: "", name: "" });
  const save = useSaveStudio(onClose);
  const id = useRef(kit?.id ?? "");
  const set = (x: Partial<Kit>) => setK({ ...k, ...x });
  const shipped = v.kits.kits.some((x) => x.id === kit?.id);
  const keep = () => {
    id.current ||= named(k.name, taken);
    const own = { ...k, id: id.current, name: k.name.trim() };
    save.mutate((now) => {
      const kits = now.own_kits ?? [];
      const at = kits.findIndex((x) => x.id === own.id);
      const ticked = kit || !now.kits?.length ? now.kits : [...now.kits, own.id];
      return { ...now, own_kits: at < 0 ? [...kits, own] : kits.toSpliced(at, 1, own), kits: ticked };
    });
  };
  const drop = () =>
    save.mutate((now) => ({
      ...now,
      own_kits: (now.own_kits ?? []).filter((x) => x.id !== kit?.id),
      kits: shipped ? now.kits : (now.kits ?? []).filter((x) => x !== kit?.id),
    }));
  const paints = v.products.filter((p) => p.role === "paint");
  return (
    <Dialog title={kit ? `Edit ${kit.name}` : "New kit"} wide onClose={onClose}>
      <form
        onSubmit={(e) => {
          e.preventDefault();
          if (k.name.trim()) keep();
        }}
      >
        <TextField label="Name" of="kit.name" value={k.name} eager onChange={(name) => set({ name })} />
        <fieldset className="mb-2">
          <legend className="font-medium">Tools besides brushes, rags and abrasives</legend>
          <div className="flex flex-wrap gap-x-5">
            {v.kits.tools.map((t) => (
              <Check
                key={t.id}
                label={t.name}
                name={`kit.tool.${t.id}`}
                on={k.tools?.includes(t.id) ?? false}
                onChange={(on) => {
                  const rest = (k.tools ?? []).filter((x) => x !== t.id);
                  set({ tools: on ? [...rest, t.id] : rest });
                }}
              />
            ))}
          </div>
        </fieldset>
        <fieldset className="mb-2">
          <legend className="font-medium">Paints of choice</legend>
          <div className="grid gap-x-4 sm:grid-cols-2">
            {v.kits.uses.map((u) => (
              <Choice
                key={u.id}
                label={u.name}
                name={`kit.${u.id}`}
                none="Any"
                words={paints}
                value={k[u.id as Use] ?? ""}
                onChange={(p) => set({ [u.id]: p || undefined })}
              />
            ))}
          </div>
        </fieldset>
        <Ticked
          legend={`Products that you keep: ${k.products?.length ?? 0} of ${v.products.length}`}
          products={v.products}
          ids={k.products ?? []}
          onChange={(products) => set({ products })}
        />
        <SaveBar
          saving={save}
          ready={!!k.name.trim()}
          onClose={onClose}
          remove={
            kit && (changed || !shipped)
              ? { name: "drop-kit", says: shipped ? "Back to the usual contents" : "Remove it", run: drop }
              : undefined
          }
        />
      </form>
    </Dialog>
  );
}
