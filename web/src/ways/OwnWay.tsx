import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { answer, api, type Schemas } from "../api/client";
import { useVocab } from "../piece/vocab";
import { Check, Choice } from "../ui/Choice";
import { Dialog } from "../ui/Dialog";
import { TextField } from "../ui/Field";

type Way = Schemas["Way"];
type Props = { studio: Schemas["Studio"]; id: string; onClose: () => void; onSaved: (id: string | undefined) => void };

/** OwnWay makes, changes or removes a way of working of the studio's own. */
export function OwnWay({ studio, id, onClose, onSaved }: Props) {
  const v = useVocab();
  const queries = useQueryClient();
  const ways = studio.ways ?? [];
  const [w, setW] = useState<Way>(ways.find((x) => x.id === id) ?? { id: "", name: "" });
  const save = useMutation({
    mutationFn: (next: { ways: Way[]; id?: string }) => {
      const { demo: _, air: __, ...settings } = studio;
      const way = next.ways.some((x) => x.id === settings.way) || !ways.some((x) => x.id === settings.way);
      return answer(
        api.PUT("/api/studio", { body: { ...settings, ways: next.ways, way: way ? settings.way : undefined } }),
      );
    },
    onSuccess: (saved, next) => {
      queries.setQueryData(["studio"], saved);
      onSaved(next.id);
    },
  });
  const set = (x: Partial<Way>) => setW({ ...w, ...x });
  const keep = () => {
    const made = w.id || named(w.name, [...ways, ...v.ways.ways]);
    const own = { ...w, id: made, name: w.name.trim() };
    save.mutate({ ways: id ? ways.map((x) => (x.id === id ? own : x)) : [...ways, own], id: made });
  };
  const paints = v.products.filter((p) => p.role === "paint");
  const q = v.ways;
  return (
    <Dialog title={id ? "Your way of working" : "A way of your own"} wide onClose={onClose}>
      <form
        onSubmit={(e) => {
          e.preventDefault();
          if (w.name.trim()) keep();
        }}
      >
        <TextField label="Name" value={w.name} max={60} eager onChange={(name) => set({ name })} />
        <div className="grid gap-x-4 sm:grid-cols-2">
          <Choice
            label="What makes paint hold"
            words={q.holds}
            value={w.holds ?? "any"}
            onChange={(x) => set({ holds: x as Way["holds"] })}
          />
          <Choice
            label="Sanding an old surface"
            words={q.sand}
            value={w.sand ?? "by_need"}
            onChange={(x) => set({ sand: x as Way["sand"] })}
          />
          <Choice
            label="What closes an everyday paint"
            words={q.seal}
            value={w.seal ?? "by_wear"}
            onChange={(x) => set({ seal: x as Way["seal"] })}
          />
          <Choice
            label="What closes a flaking paint"
            words={q.flake_seal}
            value={w.flake_seal ?? "wax"}
            onChange={(x) => set({ flake_seal: x as Way["flake_seal"] })}
          />
          <Choice
            label="Blocking knots"
            words={q.knots}
            value={w.knots ?? "either"}
            onChange={(x) => set({ knots: x as Way["knots"] })}
          />
          <Choice
            label="Cracks"
            words={q.crackle}
            value={w.crackle ?? "medium"}
            onChange={(x) => set({ crackle: x as Way["crackle"] })}
          />
          <Choice
            label="Laid on by"
            words={v.methods.filter((m) => ["brush", "roller", "spray"].includes(m.id))}
            value={w.method ?? "brush"}
            onChange={(x) => set({ method: x as Way["method"] })}
          />
          <Choice
            label="Put back together"
            words={[
              { id: "0.3", name: "As soon as careful hands may" },
              { id: "0.6", name: "Once it is hard for every day" },
            ]}
            value={String(w.cure ?? 0.3)}
            onChange={(x) => set({ cure: Number(x) })}
          />
        </div>
        <Check
          label="Every coat waits until the next day"
          on={!!w.next_day}
          onChange={(next_day) => set({ next_day })}
        />
        <Check
          label="Sand first, wipe with solvent after"
          on={!!w.scuff_first}
          onChange={(scuff_first) => set({ scuff_first })}
        />
        <Check label="Nothing carried in solvent" on={!!w.no_smell} onChange={(no_smell) => set({ no_smell })} />
        <fieldset className="mb-2">
          <legend className="font-medium">Only these paints (none ticked: all)</legend>
          <div className="grid sm:grid-cols-2">
            {paints.map((p) => (
              <Check
                key={p.id}
                label={p.name}
                on={!!w.paints?.includes(p.id)}
                onChange={(on) =>
                  set({ paints: on ? [...(w.paints ?? []), p.id] : (w.paints ?? []).filter((x) => x !== p.id) })
                }
              />
            ))}
          </div>
        </fieldset>
        {save.isError && (
          <p role="alert" className="mb-2 text-error">
            Not saved: {save.error.message === "Failed to fetch" ? "the server does not answer." : save.error.message}
          </p>
        )}
        <div className="mt-2 flex gap-2">
          <button type="submit" className="btn btn-primary" disabled={save.isPending || !w.name.trim()}>
            Save
          </button>
          <button type="button" className="btn btn-ghost" onClick={onClose}>
            Leave it
          </button>
          <span className="flex-1" />
          {id && (
            <button
              type="button"
              className="btn btn-ghost text-error"
              onClick={() => save.mutate({ ways: ways.filter((x) => x.id !== id) })}
            >
              Remove it
            </button>
          )}
        </div>
      </form>
    </Dialog>
  );
}

/** named is an id for a way of that name that no other has. */
function named(name: string, taken: { id: string }[]): string {
  const base =
    name
      .toLowerCase()
      .replace(/[^a-z0-9]+/g, "-")
      .replace(/^-+|-+$/g, "")
      .slice(0, 30) || "way";
  let id = base;
  for (let n = 2; taken.some((w) => w.id === id); n++) id = `${base}-${n}`;
  return id;
}
