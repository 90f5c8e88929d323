import { ImagePlus, MapPin, Trash2 } from "lucide-react";
import { useEffect, useRef, useState } from "react";
import { type Photo, type Piece, why } from "../api/client";
import { nameOf, useLimit, useVocab } from "../api/vocab";
import { zoneTitle } from "../piece/edit";
import { Choice } from "../ui/Choice";
import { NumberField, TextField } from "../ui/Field";
import { useStable } from "../ui/stable";
import { date, useUnits } from "../ui/units";
import { useFileDrop } from "../ui/useFileDrop";
import { sendPhoto } from "./sendPhoto";
import { Thumb } from "./Thumb";

type Props = {
  piece: Piece;
  onPiece: (p: Piece) => void;
  latest: () => Piece | undefined;
  point: string | undefined; // label of the damage that the next click points at
};

// A phone sends a JPEG if only that is accepted; on a computer a HEIC file may be all there is.
const PHONE = "image/jpeg,image/png,image/webp";
const accepts = () => (matchMedia("(pointer: coarse)").matches ? PHONE : `${PHONE},.heic,.heif`);

/** Photos are the pictures of a piece; on each, markers point at damage or carry a note. */
export function Photos({ piece, onPiece, latest, point }: Props) {
  const photos = piece.photos ?? [];
  const most = useLimit("piece.photos").max_len ?? 0;
  const [at, setAt] = useState(0);
  const [busy, setBusy] = useState<{ n: number; of: number; name: string }>();
  const [said, setSaid] = useState<string[]>([]);
  const [pointing, setPointing] = useState(point);
  const pick = useRef<HTMLInputElement>(null);
  const here = photos[Math.min(at, photos.length - 1)];

  const { drop, dropping } = useFileDrop((files) => void take(files));
  const take = async (files: File[]) => {
    if (busy || !files.length) return;
    const told: string[] = [];
    for (const [i, file] of files.entries()) {
      setBusy({ n: i + 1, of: files.length, name: file.name });
      try {
        const { already, ...photo } = await sendPhoto(file);
        // The piece may have changed during the upload.
        const now = latest() ?? piece;
        if ((now.photos?.length ?? 0) >= most) {
          told.push(`${file.name}: a piece can have at most ${most} photographs; remove one first.`);
        } else if (now.photos?.some((f) => f.file === photo.file)) {
          told.push(`${file.name}: this photograph has already been added.`);
          setAt(now.photos.findIndex((f) => f.file === photo.file));
        } else {
          onPiece({ ...now, photos: [...(now.photos ?? []), photo] });
          setAt(now.photos?.length ?? 0);
        }
      } catch (e) {
        told.push(`${file.name}: ${why(e, "the server does not answer; try again in a moment.")}`);
      }
    }
    setBusy(undefined);
    setSaid(told);
  };

  const pasted = useStable((files: File[]) => void take(files));
  useEffect(() => {
    const paste = (e: ClipboardEvent) => pasted([...(e.clipboardData?.files ?? [])]);
    window.addEventListener("paste", paste);
    return () => window.removeEventListener("paste", paste);
  }, [pasted]);

  const put = (f: Photo) => onPiece({ ...piece, photos: photos.map((x) => (x.file === f.file ? f : x)) });
  return (
    <div className={`min-h-0 flex-1 px-3 py-4 sm:px-5 ${dropping}`} {...drop}>
      <div className="mx-auto max-w-6xl">
        <div className="mb-3 flex flex-wrap items-center gap-3">
          <div className="min-w-0 flex-1">
            <h2 className="font-semibold text-lg">Photographs</h2>
            <p className="text-secondary" data-pointing={pointing}>
              {pointing && photos.length > 0
                ? `Click the picture where ${pointing} is.`
                : photos.length === 0
                  ? "Photograph the piece from all sides before you take anything off. Pictures are stored here upright, without location data."
                  : "Click a picture to add a marker. You can also drop or paste pictures here."}
            </p>
          </div>
          <button
            type="button"
            className="btn btn-primary h-12"
            disabled={!!busy}
            onClick={() => pick.current?.click()}
          >
            <ImagePlus className="size-5" aria-hidden="true" /> Add photographs
          </button>
          <input
            ref={pick}
            type="file"
            className="sr-only"
            tabIndex={-1}
            aria-label="Photographs to add"
            accept={accepts()}
            multiple
            onChange={(e) => {
              const files = [...(e.target.files ?? [])];
              e.target.value = "";
              void take(files);
            }}
          />
        </div>
        {busy && (
          <p role="status" className="mb-3 flex items-center gap-3">
            <progress className="h-3 w-40 accent-primary" value={busy.n - 1} max={busy.of} />
            Adding {busy.of > 1 ? `${busy.n} of ${busy.of}: ` : ""}
            <bdi className="truncate">{busy.name}</bdi>
          </p>
        )}
        {said.length > 0 && (
          <ul role="alert" data-told className="sheet wash mb-3 rounded-r px-4 py-2">
            {said.map((s) => (
              <li key={s} className="break-words">
                {s}
              </li>
            ))}
          </ul>
        )}
        {here && (
          <div className="grid gap-5 lg:grid-cols-[minmax(0,1fr)_22rem]">
            <Picture
              key={`p${here.file}`}
              photo={here}
              onMark={(m) => {
                put({ ...here, markers: [...(here.markers ?? []), { ...m, defect: pointing }] });
                setPointing(undefined);
              }}
            />
            <Beside
              key={here.file}
              piece={piece}
              photo={here}
              onChange={put}
              onRemove={() => {
                onPiece({ ...piece, photos: photos.filter((f) => f !== here) });
                setAt(Math.max(0, at - 1));
              }}
            />
          </div>
        )}
        {photos.length > 1 && (
          <ul className="mt-4 flex flex-wrap gap-2" aria-label="All photographs">
            {photos.map((f, i) => (
              <li key={f.file}>
                <Thumb photo={f} n={i + 1} here={f === here} onPress={() => setAt(i)} />
              </li>
            ))}
          </ul>
        )}
      </div>
    </div>
  );
}

type PictureProps = { photo: Photo; onMark: (m: { x: number; y: number }) => void };

/** Picture is one photograph with its markers; a click adds one. */
function Picture({ photo, onMark }: PictureProps) {
  const [lost, setLost] = useState(false);
  const share = (e: React.MouseEvent<HTMLButtonElement>) => {
    const r = e.currentTarget.getBoundingClientRect();
    // With the keyboard it starts in the middle.
    if (e.detail === 0) return { x: 0.5, y: 0.5 };
    const cut = (n: number) => Math.round(Math.min(1, Math.max(0, n)) * 1e4) / 1e4;
    return { x: cut((e.clientX - r.x) / r.width), y: cut((e.clientY - r.y) / r.height) };
  };
  if (lost) {
    return (
      <p className="wash self-start rounded px-4 py-8 text-center text-secondary">
        This picture is missing from the studio's folder: {photo.file}
      </p>
    );
  }
  const [w, h] = [photo.width ?? 4, photo.height ?? 3];
  return (
    <figure className="relative self-start" style={{ maxWidth: `min(100%, ${(w / h) * 34}rem)` }}>
      <button
        type="button"
        className="block w-full cursor-crosshair overflow-hidden rounded border border-base-300 bg-base-300"
        style={{ aspectRatio: `${w} / ${h}` }}
        aria-label={`Add a marker to: ${photo.caption || "this photograph"}`}
        onClick={(e) => onMark(share(e))}
      >
        <img
          src={`/photos/${photo.file}`}
          alt={photo.caption || "The piece, on arrival"}
          className="h-full w-full object-contain"
          onError={() => setLost(true)}
        />
      </button>
      {photo.markers?.map((m, i) => (
        <span
          // biome-ignore lint/suspicious/noArrayIndexKey: a marker's place in the list is its identity
          key={i}
          className="pointer-events-none absolute grid size-8 -translate-x-1/2 -translate-y-1/2 place-items-center rounded-full border-2 border-[#2b2620] bg-[#f8e9b8] font-head font-semibold text-[#2b2620] text-sm shadow"
          style={{ left: `${m.x * 100}%`, top: `${m.y * 100}%` }}
        >
          {m.defect ?? i + 1}
        </span>
      ))}
    </figure>
  );
}

type BesideProps = { piece: Piece; photo: Photo; onChange: (f: Photo) => void; onRemove: () => void };

/** Beside is what a photograph shows, and what its markers point at. */
function Beside({ piece, photo, onChange, onRemove }: BesideProps) {
  const u = useUnits();
  const v = useVocab();
  const zones = piece.zones ?? [];
  const damage = zones.flatMap((z) =>
    (z.defects ?? []).flatMap((d) =>
      d.label
        ? [{ id: d.label, name: `${d.label}: ${nameOf(v.defects, d.id).toLowerCase()}, ${d.place || zoneTitle(z)}` }]
        : [],
    ),
  );
  const markers = photo.markers ?? [];
  return (
    <div className="min-w-0">
      <TextField
        label="Caption"
        of="photo.caption"
        value={photo.caption ?? ""}
        onChange={(caption) => onChange({ ...photo, caption: caption || undefined })}
      />
      <Choice
        label="Shows"
        name="photo.zone"
        words={zones.map((z) => ({ id: z.id, name: zoneTitle(z) }))}
        none="the whole piece"
        value={photo.zone}
        onChange={(zone) => onChange({ ...photo, zone: zone || undefined })}
      />
      {photo.taken && <p className="mb-2 text-secondary text-sm">Taken on {date(photo.taken, u)}</p>}
      <h3 className="mb-1 font-medium text-secondary text-sm">Markers</h3>
      {markers.length === 0 && (
        <p className="mb-2 flex items-center gap-1.5 text-secondary text-sm">
          <MapPin className="size-4" aria-hidden="true" /> Click the picture to add one.
        </p>
      )}
      <ol className="grid gap-2">
        {markers.map((m, i) => {
          const set = (part: Partial<typeof m>) =>
            onChange({ ...photo, markers: markers.map((x, j) => (j === i ? { ...x, ...part } : x)) });
          return (
            // biome-ignore lint/suspicious/noArrayIndexKey: a marker's place in the list is its identity
            <li key={i} className="rounded border border-base-300 bg-base-100 px-2 pt-1.5">
              <div className="flex items-end gap-2">
                <span className="mb-3 font-head font-semibold">{m.defect ?? i + 1}</span>
                <div className="min-w-0 flex-1">
                  <Choice
                    label={`Marker ${i + 1} points at`}
                    words={damage}
                    none={damage.length ? "something else" : "something (no damage recorded yet)"}
                    value={m.defect}
                    onChange={(defect) => set({ defect: defect || undefined })}
                  />
                </div>
                <button
                  type="button"
                  className="btn btn-ghost btn-square mb-2"
                  aria-label={`Remove marker ${i + 1}`}
                  onClick={() => onChange({ ...photo, markers: markers.filter((_, j) => j !== i) })}
                >
                  <Trash2 className="size-4" aria-hidden="true" />
                </button>
              </div>
              <TextField
                label="Note"
                of="marker.note"
                value={m.note ?? ""}
                onChange={(note) => set({ note: note || undefined })}
              />
              <details className="mb-1">
                <summary
                  data-do="move-marker"
                  className="inline-flex min-h-8 items-center text-primary text-sm underline underline-offset-2"
                >
                  Move it
                </summary>
                <div className="grid grid-cols-2 gap-x-3">
                  <NumberField
                    label="From the left"
                    unit="%"
                    of="marker.x"
                    times={100}
                    value={m.x}
                    required
                    onChange={(x) => x !== undefined && set({ x })}
                  />
                  <NumberField
                    label="From the top"
                    unit="%"
                    of="marker.y"
                    times={100}
                    value={m.y}
                    required
                    onChange={(y) => y !== undefined && set({ y })}
                  />
                </div>
              </details>
            </li>
          );
        })}
      </ol>
      <button data-do="remove-photo" type="button" className="btn btn-ghost mt-2 text-error" onClick={onRemove}>
        <Trash2 className="size-4" aria-hidden="true" /> Remove this photograph
      </button>
    </div>
  );
}
