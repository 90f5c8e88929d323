import { ChevronDown } from "lucide-react";
import type { Overview, Part, Zone } from "../api/client";
import { useVocab } from "../api/vocab";
import { TypedField } from "../session/TypedField";
import { sizesOf, spelledSizes } from "../session/typed";
import { useTypedSize } from "../session/useSession";
import { Check, Choice } from "../ui/Choice";
import { NumberField, TextField } from "../ui/Field";
import { useName } from "../ui/focus";
import { Order } from "../ui/Order";
import { SizeField } from "../ui/SizeField";
import { sizes, useUnits } from "../ui/units";

type Props = {
  n: number; // index of the part
  part: Part;
  overview: Overview["parts"][number] | undefined;
  zone: Zone | undefined;
  colour: string | undefined; // of its zone
  chosen: boolean;
  open: boolean;
  last: boolean;
  onChoose: (more: boolean) => void;
  onOpen: () => void;
  onChange: (change: Partial<Part>) => void;
  onMove: (by: number) => void;
  onRemove: () => void;
};

const PLACES = [
  { id: "above", name: "on top" },
  { id: "below", name: "at the bottom" },
  { id: "beside", name: "to the right" },
];

/** PartRow is one part, or several alike: what it is, its size, its zone; opened, it is edited there. */
export function PartRow(p: Props) {
  const l = p.overview;
  const asked = useTypedSize({ part: p.n, kind: p.part.kind }, spelledSizes(p.part));
  const name = useName<HTMLLIElement>(`part ${p.n}`);
  const unread = asked && asked.is !== "read" && !p.open;
  return (
    <li
      ref={name}
      data-part-row={p.n}
      data-unread={unread ? "" : undefined}
      data-wrong={unread && asked.says ? "" : undefined}
      className={`rounded border bg-base-100 ${p.open ? "border-primary" : p.chosen ? "border-accent" : "border-base-300"}`}
    >
      <div className="flex items-stretch">
        <label className="grid w-11 shrink-0 cursor-pointer place-items-center">
          <input
            type="checkbox"
            className="checkbox checkbox-primary"
            aria-label={`Choose ${l?.title ?? ""}`}
            checked={p.chosen}
            onChange={() => p.onChoose(true)}
          />
        </label>
        <button
          data-open-part={p.n}
          type="button"
          aria-expanded={p.open}
          className="flex min-h-11 min-w-0 flex-1 items-center gap-2 py-1 pr-2 text-left leading-tight hover:bg-base-200"
          onClick={p.onOpen}
        >
          <span className="min-w-0 flex-1">
            <span className="block font-semibold">
              {(p.part.count ?? 1) > 1 && `${p.part.count} × `}
              <bdi className="break-words">{l?.title}</bdi>
            </span>
            {unread ? (
              <span className="block text-error text-sm">
                <bdi>“{asked.text}”</bdi> {asked.says ? "cannot be read" : "is not calculated yet"}
              </span>
            ) : (
              <span className="block text-secondary text-sm">{l?.sizes}</span>
            )}
          </span>
          <span className="text-right text-sm">
            <span className="block">{l?.area}</span>
            <span className="flex items-center justify-end gap-1 text-secondary">
              {p.zone ? (
                <>
                  <span
                    className="inline-block size-3 shrink-0 rounded-xs border border-base-content/40"
                    style={{ background: p.colour }}
                    aria-hidden="true"
                  />
                  <bdi className="max-w-28 truncate">{p.zone.name || p.zone.id}</bdi>
                </>
              ) : (
                l && l.painted.length > 0 && "no zone yet"
              )}
            </span>
          </span>
          <ChevronDown className={`size-5 shrink-0 ${p.open ? "rotate-180" : ""}`} aria-hidden="true" />
        </button>
      </div>
      {(l?.note || l?.fit) && (
        <p className={`px-3 pb-1 text-sm ${l.tight || l.note ? "text-warning" : "text-secondary"}`}>
          {[l.note, l.fit && `Gap: ${l.fit}.`].filter(Boolean).join(" ")}
        </p>
      )}
      {p.open && <Editor {...p} />}
    </li>
  );
}

function Editor({ part, overview, last, n, onChange, onMove, onRemove }: Props) {
  const v = useVocab();
  const u = useUnits();
  const kind = v.part_kinds.find((k) => k.id === part.kind);
  const fields = (kind?.sizes ?? []) as (keyof Part)[];
  const show = (spelled: string) => {
    const cm = sizesOf(spelled);
    return sizes(
      fields.map((f) => Number(cm[f] ?? 0)).filter((x) => x > 0),
      u,
    );
  };
  const painted = overview?.painted ?? [];
  return (
    <div className="border-base-300 border-t px-3 pt-2 pb-1">
      <div className="grid grid-cols-[1fr_6rem] gap-x-3">
        <TextField
          label="Name"
          of="part.name"
          value={part.name ?? ""}
          hint={`Empty: ${kind?.name.toLowerCase()}`}
          onChange={(name) => onChange({ name: name || undefined })}
        />
        <NumberField
          label="How many"
          of="part.count"
          value={part.count ?? 1}
          required
          onChange={(count) => onChange({ count })}
        />
      </div>
      <TypedField
        label={`Sizes: ${kind?.wants}`}
        at={{ part: n, kind: part.kind }}
        stands={spelledSizes(part)}
        show={show}
        required
      />
      <fieldset className="mb-1">
        <legend className="mb-0.5 font-medium text-secondary text-sm">Painted faces</legend>
        <div className="flex flex-wrap gap-x-4">
          {kind?.faces.map((f) => (
            <Check
              key={f.id}
              label={overview?.faces.find((x) => x.id === f.id)?.words ?? f.name}
              on={painted.includes(f.id)}
              onChange={(on) =>
                onChange({ faces: kind.faces.map((x) => x.id).filter((x) => (x === f.id ? on : painted.includes(x))) })
              }
            />
          ))}
        </div>
      </fieldset>
      <div className="grid grid-cols-2 gap-x-3">
        <Choice
          label="Surface"
          words={v.reliefs}
          value={part.relief ?? "smooth"}
          onChange={(id) => onChange({ relief: id === "smooth" ? undefined : id })}
        />
        {kind?.moves && (
          <SizeField
            label="Gap around it"
            of="part.gap_mm"
            value={part.gap_mm}
            onChange={(gap_mm) => onChange({ gap_mm })}
          />
        )}
        <NumberField
          label="Visible from the front"
          of="part.seen"
          value={part.seen}
          onChange={(seen) => onChange({ seen })}
        />
        <Choice
          label="Position"
          words={PLACES}
          none="in its usual place"
          value={part.place}
          onChange={(id) => onChange({ place: (id || undefined) as Part["place"] })}
        />
      </div>
      <Order
        first={n === 0}
        last={last}
        says={["Move up", "Move down", "Remove this part"]}
        onMove={onMove}
        onRemove={onRemove}
      />
    </div>
  );
}
