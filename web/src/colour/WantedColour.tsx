import { useQueryClient } from "@tanstack/react-query";
import { Download, ImagePlus, Trash2, Upload } from "lucide-react";
import { useRef, useState } from "react";
import { answer, api, type Problem, Refused, removed, type Schemas, why } from "../api/client";
import { sendPhoto } from "../overview/sendPhoto";
import { Choice } from "../ui/Choice";
import { Field } from "../ui/Field";
import { FileInput } from "../ui/FileInput";
import { PhotoPatch } from "./PhotoPatch";
import { Swatch } from "./Swatch";
import { usePalettes, useReadColour } from "./useColour";

type Props = {
  text: string; // as it was typed
  onText: (text: string) => void;
};

const WAYS = [
  ["type", "Type it"],
  ["palette", "From a palette"],
  ["photo", "From a photograph"],
] as const;

/** WantedColour takes the wanted colour: typed, from a palette, or from a photograph. */
export function WantedColour({ text, onText }: Props) {
  const [way, setWay] = useState<(typeof WAYS)[number][0]>("type");
  const read = useReadColour(text.trim());
  const good = text.trim() && !read.isError ? read.data : undefined;
  return (
    <section aria-label="The colour you want">
      <h2 className="font-semibold text-primary text-xl">The colour you want</h2>
      <div className="mt-2 flex gap-4">
        <Swatch colour={good?.colour} size={96} />
        <div className="min-w-0 flex-1">
          <Field
            label="Name, #rrggbb or L*a*b*"
            error={text.trim() && read.isError ? why(read.error) : undefined}
            hint={
              good
                ? `${good.name}, ${good.colour}, L* ${good.l} a* ${good.a} b* ${good.b}`
                : "pale grey-green, #e4e8df, lab(62, 12, -8)"
            }
          >
            {(id) => (
              <input
                id={id}
                data-field="want"
                data-wrong={text.trim() && read.isError ? "" : undefined}
                className="input w-full"
                autoComplete="off"
                value={text}
                onChange={(e) => onText(e.target.value)}
              />
            )}
          </Field>
          {good?.caution && <p className="text-sm text-warning">{good.caution}</p>}
        </div>
      </div>
      <div className="mt-1 flex flex-wrap gap-1" role="tablist" aria-label="Where the colour comes from">
        {WAYS.map(([id, says]) => (
          <button
            key={id}
            type="button"
            role="tab"
            aria-selected={way === id}
            data-from={id}
            className={`btn ${way === id ? "btn-primary" : "btn-ghost border-base-300"}`}
            onClick={() => setWay(id)}
          >
            {says}
          </button>
        ))}
      </div>
      {way === "palette" && <Palettes chosen={good?.colour} onColour={onText} />}
      {way === "photo" && <Photograph onColour={onText} />}
    </section>
  );
}

function Palettes({ chosen, onColour }: { chosen: string | undefined; onColour: (hex: string) => void }) {
  const palettes = usePalettes();
  const queries = useQueryClient();
  const [id, setID] = useState("foyer");
  const [said, setSaid] = useState<string>();
  const pick = useRef<HTMLInputElement>(null);
  const all = palettes.data ?? [];
  const shown = all.find((p) => p.id === id) ?? all[0];
  const changed = () => queries.invalidateQueries({ queryKey: ["palettes"] });
  const bring = async (file: File) => {
    const r = await fetch(`/api/palettes?name=${encodeURIComponent(file.name.replace(/\.gpl$/i, ""))}`, {
      method: "POST",
      body: file,
      headers: { "Content-Type": "application/octet-stream" },
    }).catch(() => undefined);
    const body = (await r?.json().catch(() => ({}))) as Schemas["Palette"] & Problem;
    if (!r?.ok) {
      setSaid(r ? why(new Refused(r.status, body)) : "The server does not answer.");
      return;
    }
    setSaid(body.note);
    await changed();
    setID(body.id);
  };
  const drop = async () => {
    if (!shown) return;
    try {
      await removed(api.DELETE("/api/palettes/{id}", { params: { path: { id: shown.id } } }));
      setSaid(`“${shown.name}” was removed.`);
      setID("foyer");
      await changed();
    } catch (e) {
      setSaid(why(e));
    }
  };
  return (
    <div className="mt-2" data-palettes={all.length}>
      <div className="flex flex-wrap items-end gap-2">
        <div className="w-52">
          <Choice label="Palette" name="palette" words={all} value={shown?.id} onChange={setID} />
        </div>
        <span className="mb-2 flex flex-wrap gap-1">
          <button
            type="button"
            className="btn btn-ghost"
            data-do="import-palette"
            onClick={() => pick.current?.click()}
          >
            <Upload className="size-4" aria-hidden="true" /> Import .gpl
          </button>
          {shown && (
            <a
              className="btn btn-ghost"
              data-do="export-palette"
              href={`/api/palettes/${shown.id}`}
              download={`${shown.name}.gpl`}
            >
              <Download className="size-4" aria-hidden="true" /> Export
            </a>
          )}
          {shown?.own && (
            <button type="button" className="btn btn-ghost" data-do="remove-palette" onClick={() => void drop()}>
              <Trash2 className="size-4" aria-hidden="true" /> Remove
            </button>
          )}
        </span>
        <FileInput ref={pick} name="palette" label="GIMP palette" accept=".gpl" onFile={(f) => void bring(f)} />
      </div>
      {said && (
        <p role="status" className="mb-1 text-sm" data-said>
          {said}
        </p>
      )}
      <ul className="flex max-h-64 flex-wrap gap-1 overflow-y-auto">
        {shown?.swatches.map((s) => (
          <li key={`${s.name}${s.colour}`}>
            <button
              type="button"
              title={`${s.name}, ${s.colour}`}
              aria-label={`${s.name}, ${s.colour}`}
              aria-pressed={chosen === s.colour}
              data-pick={s.colour}
              className={`size-11 rounded-sm border ${chosen === s.colour ? "border-4 border-primary" : "border-base-content/40"}`}
              style={{ background: s.colour }}
              onClick={() => onColour(s.colour)}
            />
          </li>
        ))}
      </ul>
    </div>
  );
}

function Photograph({ onColour }: { onColour: (hex: string) => void }) {
  const [photo, setPhoto] = useState<Schemas["PhotoKept"]>();
  const [trouble, setTrouble] = useState<string>();
  const pick = useRef<HTMLInputElement>(null);
  const take = async (file: File) => {
    try {
      setPhoto(await sendPhoto(file));
      setTrouble(undefined);
    } catch (e) {
      setTrouble(why(e));
    }
  };
  return (
    <div className="mt-2">
      <button type="button" className="btn" data-do="add-photo" onClick={() => pick.current?.click()}>
        <ImagePlus className="size-5" aria-hidden="true" /> {photo ? "Another photograph" : "Choose a photograph"}
      </button>
      <FileInput
        ref={pick}
        name="photo"
        label="Photograph with the colour"
        accept="image/*"
        onFile={(f) => void take(f)}
      />
      {trouble && (
        <p role="alert" className="mt-1 text-error text-sm">
          {trouble}
        </p>
      )}
      {photo && <PhotoPatch key={photo.file} file={photo.file} ask={askPatch} onColour={onColour} />}
    </div>
  );
}

type Asked = { file: string; x: number; y: number; white?: { x: number; y: number } };

const askPatch = ({ file, x, y, white }: Asked, signal: AbortSignal) =>
  answer(
    api.GET("/api/colour/patch", {
      params: { query: { file, x, y, r: 0, white_x: white?.x ?? -1, white_y: white?.y ?? -1 } },
      signal,
    }),
  );
