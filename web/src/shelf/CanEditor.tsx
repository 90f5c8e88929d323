import { useQuery } from "@tanstack/react-query";
import { Camera, Scale } from "lucide-react";
import { useRef, useState } from "react";
import { answer, api, type Can, type Schemas, why } from "../api/client";
import { useStudio } from "../api/studio";
import { useVocab } from "../api/vocab";
import { sendPhoto } from "../overview/sendPhoto";
import { Choice } from "../ui/Choice";
import { ColourField } from "../ui/ColourField";
import { DateField } from "../ui/DateField";
import { Dialog } from "../ui/Dialog";
import { NumberField, TextField } from "../ui/Field";
import { FileInput } from "../ui/FileInput";
import { SaveBar } from "../ui/SaveBar";
import { date, perGram, perLitre, useUnits, volume, volumeUnit, weightUnit } from "../ui/units";
import { useKept } from "../ui/useKept";
import { ADDITIVE } from "./carry";
import { LabelFields } from "./LabelFields";
import { Tin } from "./Tin";
import { canOf, usePutCan, useRemoveCan } from "./useShelf";

type ShelfCan = Schemas["ShelfCan"];

type Props = {
  can: ShelfCan | undefined; // undefined for a new one
  start?: Partial<Can>; // what a new one begins with
  onClose: () => void;
  onSaved?: (c: ShelfCan) => void;
  onRemoved: (c: ShelfCan) => void;
};

/** CanEditor creates, changes or removes a can of the shelf. */
export function CanEditor({ can, start, onClose, onSaved, onRemoved }: Props) {
  const v = useVocab();
  const u = useUnits();
  const [x, change, forget] = useKept<Can>(`rutile.can.${can?.id ?? (start ? "mixed" : "new")}`, () =>
    can ? canOf(can) : { id: "new", kind: "", ...start },
  );
  const close = () => {
    forget();
    onClose();
  };
  const [weighing, setWeighing] = useState(false);
  const put = usePutCan((saved) => {
    onSaved?.(saved);
    close();
  });
  const remove = useRemoveCan((gone) => {
    onRemoved(gone);
    close();
  });
  const set = (part: Partial<Can>) => change((now) => ({ ...now, ...part }));
  const product = v.products.find((p) => p.id === x.kind);
  const kinds = [
    ...v.products.map((p) => ({ id: p.id, name: p.name, group: p.role })),
    { id: ADDITIVE, name: "Bonding additive", group: "additive" },
  ];
  const sizes = product?.sizes_l ?? [];
  const size = x.size_l;
  const left = x.left_l ?? size;
  const share = size ? Math.min(1, (left ?? 0) / size) : 0;
  const coloured = product?.role === "paint" || product?.role === "primer";
  const shines = product?.role === "paint" || product?.role === "clear";
  const amount = size ? volume(left ?? 0, u) : "";
  return (
    <Dialog title={can ? can.title : "New can"} wide onClose={close}>
      <form
        onSubmit={(e) => {
          e.preventDefault();
          if (x.kind) put.mutate({ can: x, rev: can?.rev });
        }}
      >
        <div className="flex gap-4 max-sm:flex-col">
          <div className="flex shrink-0 flex-col items-center gap-1">
            <Tin
              colour={x.colour ?? product?.colour}
              share={share}
              size={150}
              bag={product?.powder}
              says={amount}
              onShare={size ? (s) => set({ left_l: Number((s * size).toFixed(3)) }) : undefined}
            />
            <p className="text-center text-sm" data-left>
              {size ? `${amount} left` : "Enter its size to see what is left."}
            </p>
            {size && (
              <button
                data-do="weigh"
                type="button"
                className="btn btn-ghost"
                aria-expanded={weighing}
                onClick={() => setWeighing(!weighing)}
              >
                <Scale className="size-4" aria-hidden="true" /> Weigh it
              </button>
            )}
          </div>
          <div className="grid min-w-0 flex-1 content-start gap-x-3 sm:grid-cols-2">
            <Choice
              label="What is in it"
              name="can.kind"
              words={kinds}
              value={x.kind}
              none="Choose…"
              onChange={(kind) => {
                const p = v.products.find((q) => q.id === kind);
                set({ kind, size_l: x.size_l ?? p?.sizes_l[Math.min(1, p.sizes_l.length - 1)] });
              }}
            />
            <TextField
              label="Name in your studio"
              of="can.name"
              value={x.name ?? ""}
              onChange={(name) => set({ name })}
            />
            {coloured && (
              <ColourField label="Colour" name="can.colour" value={x.colour} onChange={(colour) => set({ colour })} />
            )}
            {shines && (
              <Choice
                label="Sheen"
                name="can.sheen"
                words={v.gloss}
                value={x.sheen}
                none="as usual"
                onChange={(id) => set({ sheen: id || undefined })}
              />
            )}
            <div>
              <NumberField
                label="Size"
                of="can.size_l"
                unit={volumeUnit(u)}
                times={perLitre(u)}
                value={x.size_l}
                hint={sizes.length ? `Usual: ${sizes.map((l) => volume(l, u)).join(", ")}` : undefined}
                onChange={(n) => set({ size_l: n, left_l: n && x.left_l ? Math.min(n, x.left_l) : x.left_l })}
              />
            </div>
            <NumberField
              label="Left"
              of="can.left_l"
              unit={volumeUnit(u)}
              times={perLitre(u)}
              value={x.left_l}
              max={x.size_l && x.size_l * perLitre(u)}
              hint="Empty: full. Or drag the level on the can."
              onChange={(n) => set({ left_l: n })}
            />
            {weighing && size && <Weigh kind={x.kind} size={size} onLeft={(n) => set({ left_l: n })} />}
            <DateField label="Opened on" name="can.opened" value={x.opened} onChange={(d) => set({ opened: d })} />
            <DateField label="Bought on" name="can.bought" value={x.bought} onChange={(d) => set({ bought: d })} />
            <NumberField
              label="Price, in your currency"
              of="can.price_minor"
              value={x.price_minor}
              times={0.01}
              onChange={(n) => set({ price_minor: n })}
            />
            <TextField
              label="Batch"
              of="can.batch"
              value={x.batch ?? ""}
              onChange={(batch) => set({ batch: batch || undefined })}
            />
            <Reserve x={x} onChange={set} />
            <Picture x={x} onChange={set} />
          </div>
        </div>
        {product && <LabelFields product={product} label={x.label} onChange={(label) => set({ label })} />}
        {!!x.mixed_from?.length && (
          <p className="mt-2 text-sm">
            Mixed from {x.mixed_from.join(", ")}
            {x.mixed && ` on ${date(x.mixed, u)}`}.
          </p>
        )}
        <TextField
          label="Note"
          of="can.note"
          lines={2}
          value={x.note ?? ""}
          onChange={(note) => set({ note: note || undefined })}
        />
        {remove.isError && (
          <p role="alert" className="text-error">
            Not removed: {why(remove.error)}
          </p>
        )}
        <SaveBar
          saving={put}
          ready={!!x.kind}
          onClose={close}
          remove={can && { says: "Take off the shelf", name: "remove-can", run: () => remove.mutate(can) }}
        />
      </form>
    </Dialog>
  );
}

function Weigh({ kind, size, onLeft }: { kind: string; size: number; onLeft: (l: number) => void }) {
  const u = useUnits();
  const [grams, setGrams] = useState<number>();
  const [tare, setTare] = useState<number>();
  const q = useQuery({
    queryKey: ["weigh", kind, size, grams, tare],
    enabled: grams !== undefined,
    retry: false,
    queryFn: ({ signal }) =>
      answer(
        api.GET("/api/weigh", {
          params: { query: { kind, size_l: size, grams: grams ?? 0, tare: tare ?? 0 } },
          signal,
        }),
      ),
  });
  return (
    <div className="wash col-span-full mb-2 rounded p-2" data-weighing>
      <div className="grid gap-x-3 sm:grid-cols-2">
        <NumberField
          label="It weighs, with the tin"
          name="weigh.grams"
          unit={weightUnit(u)}
          times={perGram(u)}
          min={0}
          value={grams}
          onChange={setGrams}
        />
        <NumberField
          label="The empty tin weighs"
          name="weigh.tare"
          unit={weightUnit(u)}
          times={perGram(u)}
          min={0}
          value={tare}
          hint="Empty: as is usual"
          onChange={setTare}
        />
      </div>
      {q.isError && (
        <p role="alert" className="text-error text-sm">
          {why(q.error)}
        </p>
      )}
      {q.data && (
        <p className="flex flex-wrap items-center gap-3 text-sm">
          {q.data.says}
          <button data-do="take-weight" type="button" className="btn" onClick={() => onLeft(q.data.left_l)}>
            Use this
          </button>
        </p>
      )}
    </div>
  );
}

function Reserve({ x, onChange }: { x: Can; onChange: (part: Partial<Can>) => void }) {
  const pieces = useQuery({
    queryKey: ["pieces"],
    queryFn: ({ signal }) => answer(api.GET("/api/pieces", { signal })),
  });
  const all = (pieces.data ?? []).map((p) => ({ id: String(p.id), name: p.name || "A piece" }));
  const known = !x.reserved_id || all.some((p) => p.id === String(x.reserved_id));
  return (
    <Choice
      label="Reserved for"
      name="can.reserved"
      words={known ? all : [...all, { id: String(x.reserved_id), name: x.reserved_for ?? "A piece" }]}
      value={x.reserved_id ? String(x.reserved_id) : ""}
      none="nothing"
      onChange={(id) =>
        onChange(
          id
            ? { reserved_id: Number(id), reserved_for: all.find((p) => p.id === id)?.name }
            : { reserved_id: undefined, reserved_for: undefined },
        )
      }
    />
  );
}

function Picture({ x, onChange }: { x: Can; onChange: (part: Partial<Can>) => void }) {
  const pick = useRef<HTMLInputElement>(null);
  const [trouble, setTrouble] = useState<string>();
  const readOnly = useStudio()?.read_only;
  const take = async (file: File) => {
    try {
      onChange({ photo: (await sendPhoto(file)).file });
      setTrouble(undefined);
    } catch (e) {
      setTrouble(why(e));
    }
  };
  return (
    <div className="mb-2">
      <p className="mb-0.5 font-medium text-secondary text-sm">Photograph of the label</p>
      <div className="flex items-center gap-2">
        {x.photo && (
          <a href={`/photos/${x.photo}`} target="_blank" rel="noreferrer">
            <img src={`/photos/small/${x.photo}`} alt="The label" className="h-16 rounded border border-base-300" />
          </a>
        )}
        <button type="button" className="btn" disabled={readOnly} onClick={() => pick.current?.click()}>
          <Camera className="size-4" aria-hidden="true" /> {x.photo ? "Another" : "Add"}
        </button>
        {x.photo && (
          <button type="button" className="btn btn-ghost" onClick={() => onChange({ photo: undefined })}>
            Remove
          </button>
        )}
        <FileInput
          ref={pick}
          name="label"
          label="Photograph of the label"
          accept="image/*"
          onFile={(f) => void take(f)}
        />
      </div>
      {trouble && (
        <p role="alert" className="text-error text-sm">
          {trouble}
        </p>
      )}
    </div>
  );
}
