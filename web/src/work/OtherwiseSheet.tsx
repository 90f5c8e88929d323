import { Camera, Check } from "lucide-react";
import { useRef, useState } from "react";
import { again, type Schemas, type Step, why } from "../api/client";
import { useVocabQuery, VocabContext } from "../api/vocab";
import { sendPhoto } from "../overview/sendPhoto";
import { useShelf } from "../shelf/useShelf";
import type { Due } from "../today/useToday";
import { Choice } from "../ui/Choice";
import { Dialog } from "../ui/Dialog";
import { NumberField, TextField } from "../ui/Field";
import { FileInput } from "../ui/FileInput";
import { count } from "../ui/units";
import type { Entry } from "./queue";
import { SeenScale } from "./SeenScale";
import { type Log, newEntry, type Tap } from "./useLog";

type Props = {
  about: Tap;
  zone?: string;
  of?: string; // what it is about, in words; without it the piece and zone
  due?: Due; // the step that was done otherwise; without it something is only noted
  unplanned?: boolean; // something was done that the plan does not have
  entry?: Entry; // what was logged, and is corrected
  log: Pick<Log, "log">;
  onClose: () => void;
};

const AGO = [
  { minutes: 0, says: "just now" },
  { minutes: 15, says: "15 min ago" },
  { minutes: 60, says: "1 h ago" },
];

const AS_LOGGED = -1;
const MOST_WAITING = 25 << 20; // bytes of a picture that is kept until the server answers

// The kinds of work that are logged without a plan.
const UNPLANNED = ["coat", "abrade", "clean", "dust", "fill", "repair", "mask", "raise_grain", "reassemble"];

/** OtherwiseSheet logs what was done otherwise than planned, or something that was seen: nothing has to be typed. */
export default function OtherwiseSheet(p: Props) {
  const v = useVocabQuery();
  if (!v.data) return null;
  return (
    <Dialog
      title={
        p.entry
          ? "Correct what was logged"
          : p.unplanned
            ? "Something else was done"
            : p.due
              ? "Not quite as planned"
              : "Note or photograph"
      }
      onClose={p.onClose}
    >
      <VocabContext value={v.data}>
        <Sheet {...p} v={v.data} />
      </VocabContext>
    </Dialog>
  );
}

function Sheet({
  about,
  zone,
  of = about.of,
  due,
  unplanned,
  entry,
  log,
  onClose,
  v,
}: Props & { v: Schemas["Vocab"] }) {
  const shelf = useShelf();
  const planned = (entry?.planned?.was ?? (entry?.planned ? entry.step : due?.plan)) as Step | undefined;
  const plan = (entry?.step ?? planned) as Step | undefined;
  const [kind, setKind] = useState<string>(plan?.do ?? (unplanned ? "coat" : ""));
  const [what, setWhat] = useState<string>(plan ? (plan.can ? `can ${plan.can}` : (plan.product ?? "")) : "");
  const [grit, setGrit] = useState(plan?.grit);
  const [tool, setTool] = useState(plan?.with ?? "");
  const [coats, setCoats] = useState(1);
  const [thick, setThick] = useState(entry?.thick);
  const [heat, setHeat] = useState(!!plan?.heat);
  const [wetted, setWetted] = useState(!!plan?.wetted);
  const [ago, setAgo] = useState(entry ? AS_LOGGED : 0);
  const [minutes, setMinutes] = useState(entry?.minutes);
  const [seen, setSeen] = useState<Record<string, number | undefined>>(
    Object.fromEntries(entry?.seen?.map((s) => [s.what, s.level]) ?? []),
  );
  const [note, setNote] = useState(entry?.note ?? "");
  const [lesson, setLesson] = useState(!!entry?.lesson);
  const [photos, setPhotos] = useState(entry?.photos ?? []);
  const [pictures, setPictures] = useState<Blob[]>([]); // that wait for the server
  const [wrong, setWrong] = useState("");
  const [sending, setSending] = useState(false);
  const picture = useRef<HTMLInputElement>(null);
  const at = entry && ago === AS_LOGGED ? entry.at : new Date(Date.now() - ago * 60_000).toISOString();
  const seenList = Object.entries(seen).flatMap(([id, level]) =>
    level === undefined ? [] : [{ what: id as Schemas["Seen"]["what"], level }],
  );
  const common = {
    zone,
    corrects: entry?.id,
    air: entry?.air,
    note: note.trim() || undefined,
    photos: photos.length ? photos : undefined,
    seen: seenList.length ? seenList : undefined,
  };
  const take = async (file: File) => {
    setWrong("");
    setSending(true);
    try {
      const kept = await sendPhoto(file);
      setPhotos((all) => [...all, kept.file]);
    } catch (e) {
      if (again(e) && file.size <= MOST_WAITING) setPictures((all) => [...all, file]);
      else setWrong(`The picture was not taken: ${why(e)}`);
    } finally {
      setSending(false);
    }
  };
  const finish = (...entries: Entry[]) => {
    log.log({ ...about, says: about.says ?? due?.title, pictures }, ...entries);
    onClose();
  };
  const step = (): Step | string => {
    const s: Step = { ...plan, do: kind as Step["do"], coats: undefined };
    if (kind === "coat") {
      const can = shelf.data?.cans.find((c) => what === `can ${c.id}`);
      if (!what) return "Say which product it was.";
      if (can) Object.assign(s, { product: can.kind, can: can.id });
      else if (!what.startsWith("can ")) Object.assign(s, { product: what, can: undefined });
    }
    if (kind === "abrade") {
      s.grit = grit;
      if (!grit) s.how = "pad" as Step["how"];
    }
    if (kind === "clean" || kind === "fill") {
      if (!tool) return "Say what it was done with.";
      s.with = tool as Step["with"];
    }
    if (kind === "effect") Object.assign(s, { heat: heat || undefined, wetted: wetted || undefined });
    return s;
  };
  const done = () => {
    const s = step();
    if (typeof s === "string") {
      setWrong(s);
      return;
    }
    const other = !planned || JSON.stringify(plain(s)) !== JSON.stringify(plain(planned));
    const place = entry ? entry.planned : due?.step ? { step: due.step, coat: due.coat } : undefined;
    const first = place?.coat ?? 0;
    finish(
      ...Array.from({ length: kind === "coat" ? coats : 1 }, (_, n) =>
        newEntry({
          ...common,
          what: "done",
          at: new Date(Date.parse(at) - (coats - 1 - n) * 1000).toISOString(),
          step: other || entry ? s : undefined,
          planned: place
            ? { step: place.step, coat: first ? first + n : undefined, was: other ? planned : undefined }
            : undefined,
          minutes: n === 0 ? minutes : undefined,
          thick: kind === "coat" ? thick : undefined,
        }),
      ),
    );
  };
  const logs = !!due || !!unplanned || entry?.what === "done";
  return (
    <div data-otherwise={due?.step ?? ""}>
      <p className="mb-2">
        <bdi>{of}</bdi>
        {due?.title && (
          <>
            : <b className="font-semibold">{due.title}</b>
          </>
        )}
      </p>
      {due?.step ? (
        <button
          type="button"
          data-do="skip"
          className="btn mb-3 h-14 w-full text-lg"
          onClick={() =>
            finish(
              newEntry({ ...common, what: "skipped", planned: { step: due.step ?? 1, coat: due.coat || undefined } }),
            )
          }
        >
          Left out on purpose
        </button>
      ) : null}
      {unplanned && (
        <Choice
          label="What was done"
          name="kind"
          words={v.steps.filter((s) => UNPLANNED.includes(s.id))}
          value={kind}
          onChange={setKind}
        />
      )}
      {logs && kind === "coat" && (
        <>
          <Choice
            label="What was used"
            name="what"
            none="Choose a can or a product"
            words={[
              ...(shelf.data?.cans ?? [])
                .filter((c) => c.role !== "additive")
                .map((c) => ({ id: `can ${c.id}`, name: `${c.title}, ${c.left}`, group: "Cans on the shelf" })),
              ...v.products.map((x) => ({ id: x.id, name: x.name, group: x.role })),
            ]}
            value={what}
            onChange={setWhat}
          />
          <Chips
            legend="How thick"
            options={v.laid.map((l) => ({ id: l.id, says: l.name.toLowerCase() }))}
            value={v.laid.find((l) => l.times === (thick ?? 1))?.id ?? ""}
            onChange={(id) => setThick(v.laid.find((l) => l.id === id && l.times !== 1)?.times)}
          />
          {!entry && (
            <Chips
              legend="How many coats, one right after the other"
              options={[1, 2, 3].map((n) => ({ id: String(n), says: String(n) }))}
              value={String(coats)}
              onChange={(id) => setCoats(Number(id))}
            />
          )}
        </>
      )}
      {logs && kind === "abrade" && (
        <NumberField label="Grit; empty for a pad" name="grit" min={0} max={2500} value={grit} onChange={setGrit} />
      )}
      {logs && (kind === "clean" || kind === "fill") && (
        <Choice
          label="With"
          name="with"
          none="Choose"
          words={kind === "clean" ? v.cleaners : v.fillers}
          value={tool}
          onChange={setTool}
        />
      )}
      {logs && kind === "effect" && (
        <Chips
          legend="To make it flake more"
          options={[
            { id: "heat", says: "warmed" },
            { id: "wetted", says: "wetted" },
          ]}
          value={heat ? "heat" : wetted ? "wetted" : ""}
          onChange={(id) => {
            setHeat(id === "heat" && !heat);
            setWetted(id === "wetted" && !wetted);
          }}
        />
      )}
      {logs && (
        <>
          <Chips
            legend="When it was finished"
            options={[
              ...(entry ? [{ id: String(AS_LOGGED), says: "as logged" }] : []),
              ...AGO.map((a) => ({ id: String(a.minutes), says: a.says })),
            ]}
            value={String(ago)}
            onChange={(id) => setAgo(Number(id))}
          />
          <NumberField
            label="Minutes of work, if you know"
            name="minutes"
            min={0}
            max={6000}
            value={minutes}
            onChange={setMinutes}
          />
        </>
      )}
      <details className="mb-3" open={!logs}>
        <summary className="min-h-11 py-2 font-medium">What is seen on it</summary>
        {v.seen.map((row) => (
          <SeenScale
            key={row.id}
            row={row}
            level={seen[row.id]}
            onChange={(l) => setSeen((s) => ({ ...s, [row.id]: l }))}
          />
        ))}
      </details>
      <TextField label="Note" name="log-note" of="entry.note" lines={3} value={note} onChange={setNote} />
      {!logs && (
        <label className="mb-2 flex min-h-11 items-center gap-2">
          <input
            type="checkbox"
            className="checkbox"
            data-field="lesson"
            checked={lesson}
            onChange={(e) => setLesson(e.target.checked)}
          />
          That is what I would do otherwise next time
        </label>
      )}
      <div className="mb-2 flex flex-wrap items-center gap-2">
        <button
          type="button"
          data-do="photo"
          className="btn h-12"
          disabled={sending}
          onClick={() => picture.current?.click()}
        >
          <Camera className="size-5" aria-hidden="true" /> {sending ? "Taking it in…" : "Photograph"}
        </button>
        <FileInput ref={picture} name="log-photo" label="A photograph" accept="image/*" onFile={(f) => void take(f)} />
        {photos.map((f) => (
          <img
            key={f}
            src={`/photos/small/${f}`}
            alt=""
            className="h-14 w-18 rounded border border-base-300 object-cover"
          />
        ))}
        {pictures.length > 0 && (
          <span role="status" data-pictures-wait={pictures.length}>
            {count(pictures.length, "picture waits", "pictures wait")} to be sent.
          </span>
        )}
      </div>
      {wrong && (
        <p role="alert" className="mb-2 font-medium text-error" data-wrong>
          {wrong}
        </p>
      )}
      <button
        type="button"
        data-do="log"
        className="btn btn-primary h-16 w-full text-xl"
        disabled={sending || (!logs && !common.note && !common.photos && !pictures.length && !common.seen)}
        onClick={
          logs
            ? done
            : () =>
                finish(
                  newEntry({
                    ...common,
                    at: entry?.at ?? new Date().toISOString(),
                    what: "note",
                    lesson: lesson || undefined,
                  }),
                )
        }
      >
        <Check className="size-6" aria-hidden="true" /> {logs ? "It was done so" : "Keep it"}
      </button>
    </div>
  );
}

/** plain is a step as it is compared: only what says something. */
const plain = (s: Step) =>
  Object.fromEntries(
    Object.entries(s)
      .filter(([k, x]) => x !== undefined && k !== "coats" && k !== "wait_h")
      .sort(([a], [b]) => a.localeCompare(b)),
  );

type ChipsProps = {
  legend: string;
  options: { id: string; says: string }[];
  value: string;
  onChange: (id: string) => void;
};

/** Chips are a few large choices of which one holds. */
function Chips({ legend, options, value, onChange }: ChipsProps) {
  return (
    <fieldset className="mb-3" data-chips={legend}>
      <legend className="mb-1 font-medium text-secondary text-sm">{legend}</legend>
      <div className="flex flex-wrap gap-2">
        {options.map((o) => (
          <button
            key={o.id}
            type="button"
            data-chip={o.id}
            aria-pressed={value === o.id}
            className={`btn min-h-12 flex-1 ${value === o.id ? "btn-primary" : ""}`}
            onClick={() => onChange(o.id)}
          >
            {o.says}
          </button>
        ))}
      </div>
    </fieldset>
  );
}
