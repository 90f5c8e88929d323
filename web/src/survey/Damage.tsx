import { Camera, Trash2 } from "lucide-react";
import { memo } from "react";
import type { Defect, Photo, Schemas } from "../api/client";
import { useVocab } from "../api/vocab";
import { Thumb } from "../overview/Thumb";
import { nextLabel } from "../piece/edit";
import { useWorkspace } from "../piece/workspace";
import { useOpen } from "../session/useSession";
import { NumberField, TextField } from "../ui/Field";
import { useName } from "../ui/focus";
import { SizeField } from "../ui/SizeField";
import { useStable } from "../ui/stable";
import { FormSection } from "./FormSection";

const USUAL = 9; // kinds that are shown; the others are one click away

/** Damage lists the damage of a zone: how many, how large, where, and the work that it needs. */
export function Damage() {
  const { piece, zone, overview, change, toPhotos } = useWorkspace();
  const open = useOpen();
  return (
    <Drawn
      zone={zone.id}
      list={zone.defects ?? NONE}
      photos={piece.photos}
      work={overview?.zones.find((z) => z.id === zone.id)?.mending}
      label={useStable(() => nextLabel(open.latest().piece ?? piece))}
      onList={useStable((defects: Defect[]) => change({ ...zone, defects }))}
      onPhotos={useStable(toPhotos)}
    />
  );
}

const NONE: Defect[] = [];

type Props = {
  zone: string;
  list: Defect[];
  photos: Photo[] | undefined;
  work: Schemas["DamageWork"] | undefined;
  label: () => string; // for the next one
  onList: (list: Defect[]) => void;
  onPhotos: (point?: string) => void; // shows the photographs; point is the label of the damage to point at
};

const Drawn = memo(function Drawn({ zone, list, photos, work, label, onList: put, onPhotos }: Props) {
  const v = useVocab();
  const first = useName<HTMLButtonElement>("field defects");
  // Knots have a field of their own, and are no damage.
  const rows = list.flatMap((d, n) => (d.id === "knot" ? [] : [{ d, n }]));
  const kinds = v.defects.filter((k) => k.id !== "knot");
  const own = new Set(list.flatMap((d) => d.label ?? []));
  const pictures = (photos ?? []).filter(
    (f) => f.zone === zone || f.markers?.some((m) => m.defect && own.has(m.defect)),
  );
  const add = (id: string) => put([...list, { id, count: 1, label: label() }]);
  const button = (k: { id: string; name: string }, i: number) => (
    <button
      key={k.id}
      ref={i === 0 ? first : undefined}
      data-field={i === 0 ? "defects" : undefined}
      data-defect={k.id}
      type="button"
      className="btn h-11 border-base-300 bg-base-100 font-normal"
      onClick={() => add(k.id)}
    >
      {k.name}
    </button>
  );
  const items = [...(work?.items ?? [])];
  return (
    <FormSection title="Damage" says="Click each kind you find; each gets a letter for the tape next to it">
      <ul className="grid gap-1.5">
        {rows.map(({ d, n }) => {
          const at = items.findIndex((m) => m.defect === d.id);
          const [work] = at >= 0 ? items.splice(at, 1) : [];
          return (
            <Row
              key={n}
              n={n}
              d={d}
              kind={v.defects.find((k) => k.id === d.id)}
              work={work}
              pictured={photos?.some((f) => f.markers?.some((m) => d.label && m.defect === d.label)) ?? false}
              onPhotos={() => onPhotos(d.label)}
              onChange={(part) => put(list.map((x, i) => (i === n ? { ...x, ...part } : x)))}
              onRemove={() => put(list.filter((_, i) => i !== n))}
            />
          );
        })}
      </ul>
      <div className="mt-1.5 mb-2 flex flex-wrap gap-1.5">{kinds.slice(0, USUAL).map(button)}</div>
      <details className="mb-2">
        <summary className="inline-flex min-h-8 items-center text-primary text-sm underline underline-offset-2">
          {kinds.length - USUAL} less common
        </summary>
        <div className="mt-1 flex flex-wrap gap-1.5">{kinds.slice(USUAL).map((k) => button(k, -1))}</div>
      </details>
      {pictures.length > 0 && (
        <ul className="mb-2 flex flex-wrap gap-2" aria-label="Photographs of this zone">
          {pictures.map((f, i) => (
            <li key={f.file}>
              <Thumb photo={f} n={i + 1} onPress={() => onPhotos()} />
            </li>
          ))}
        </ul>
      )}
      {work && work.items.length > 0 && (
        <div className="wash mb-3 rounded px-3 py-2 text-sm">
          <p>
            <b className="font-semibold">About {work.work} of repairs.</b>
          </p>
          {work.says.map((s) => (
            <p key={s}>{s}</p>
          ))}
        </div>
      )}
    </FormSection>
  );
});

type RowProps = {
  n: number;
  d: Defect;
  kind: Schemas["DefectWord"] | undefined;
  work: Schemas["DamageItem"] | undefined;
  pictured: boolean;
  onPhotos: () => void;
  onChange: (part: Partial<Defect>) => void;
  onRemove: () => void;
};

function Row({ n, d, kind, work, pictured, onPhotos, onChange, onRemove }: RowProps) {
  return (
    <li data-damage={n} className="rounded border border-base-300 bg-base-100 px-3 pt-2 pb-1">
      <div className="grid grid-cols-2 items-start gap-x-3 sm:grid-cols-[9rem_4.5rem_7rem_7rem_1fr_auto]">
        <p className="flex min-h-10 items-center gap-2 self-center max-sm:col-span-2">
          <span className="grid min-w-8 place-items-center rounded-xs border border-accent border-dashed bg-[#f8e9b8] px-1 font-head font-semibold text-[#2b2620]">
            {d.label ?? "–"}
          </span>
          <b className="font-semibold leading-tight">{kind?.name}</b>
        </p>
        <NumberField
          label="How many"
          of="defect.count"
          min={1}
          value={d.count}
          onChange={(count) => onChange({ count })}
        />
        {kind?.across ? (
          <SizeField
            label={sentence(kind.across)}
            of="defect.size_mm"
            value={d.size_mm}
            above
            onChange={(size_mm) => onChange({ size_mm })}
          />
        ) : (
          <span />
        )}
        {kind?.along ? (
          <SizeField
            label={sentence(kind.along)}
            long
            of="defect.length_cm"
            value={d.length_cm}
            above
            onChange={(length_cm) => onChange({ length_cm })}
          />
        ) : (
          <span className="max-sm:hidden" />
        )}
        <TextField
          label="Where"
          of="defect.place"
          value={d.place ?? ""}
          onChange={(place) => onChange({ place: place || undefined })}
        />
        <div className="flex self-center">
          <button
            data-do="point"
            type="button"
            className={`btn btn-ghost btn-square ${pictured ? "text-success" : ""}`}
            aria-label={pictured ? "Marked on a photograph" : "Mark it on a photograph"}
            title={pictured ? "Marked on a photograph" : "Mark it on a photograph"}
            onClick={onPhotos}
          >
            <Camera className="size-5" aria-hidden="true" />
          </button>
          <button
            data-do="remove-defect"
            type="button"
            className="btn btn-ghost btn-square text-error"
            aria-label={`Remove ${kind?.name.toLowerCase()} ${d.label ?? ""}`}
            onClick={onRemove}
          >
            <Trash2 className="size-4" aria-hidden="true" />
          </button>
        </div>
      </div>
      {work && (
        <p data-work className="pb-1 text-secondary text-sm leading-tight">
          {work.how} <b className="font-medium">{work.takes}.</b>
        </p>
      )}
    </li>
  );
}

const sentence = (s: string) => s.charAt(0).toUpperCase() + s.slice(1);
