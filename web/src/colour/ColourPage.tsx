import { ArrowLeft } from "lucide-react";
import { useEffect, useRef, useState } from "react";
import { Link, useSearchParams } from "react-router";
import { why } from "../api/client";
import { useStudio } from "../api/studio";
import { useVocabQuery, VocabContext } from "../api/vocab";
import { Shell } from "../frame/Shell";
import { StatusStrip } from "../frame/StatusStrip";
import { useShelf } from "../shelf/useShelf";
import { Choice } from "../ui/Choice";
import { useLater } from "../ui/later";
import { useKeptText } from "../ui/typed";
import { useKept } from "../ui/useKept";
import { BlendEditor } from "./BlendEditor";
import { Recipes } from "./Recipes";
import { Swatch } from "./Swatch";
import { type Blend, type Part, type SavedBlend, useBlends, useNearest, usePalettes, useReadColour } from "./useColour";
import { WantedColour } from "./WantedColour";

/** ColourPage finds the parts of paints that make a colour, and keeps recipes. */
export default function ColourPage() {
  const studio = useStudio();
  const v = useVocabQuery();
  useEffect(() => {
    document.title = "Colours and blends · Rutile";
  }, []);
  return (
    <Shell
      head={<h1 className="font-semibold text-lg">Colours and blends</h1>}
      strip={<StatusStrip air={studio?.air} />}
    >
      {v.isError && <p role="alert">The server does not answer. Start it again and reload.</p>}
      {v.data && (
        <VocabContext value={v.data}>
          <ColourView />
        </VocabContext>
      )}
    </Shell>
  );
}

type Draft = { blend: Blend; saved?: { id: string; rev: number } };
const EMPTY: Draft = { blend: { parts: [] } };

const TYPING = 200; // ms

function ColourView() {
  const [query] = useSearchParams();
  const [kept, keep] = useKeptText("rutile.want");
  const [text, setText] = useState(query.get("want") ?? kept);
  const [from, setFrom] = useState("");
  const [draft, change] = useKept<Draft>("rutile.blend", () => EMPTY);
  const setDraft = (d: Draft) => change(() => d);
  const palettes = usePalettes();
  const shelf = useShelf();
  const later = useLater(text.trim(), TYPING);
  const read = useReadColour(later);
  const want = later && !read.isError ? (read.data?.colour ?? "") : "";
  const nearest = useNearest(want, from, "");
  const type = (t: string) => {
    setText(t);
    keep(t || undefined);
  };
  const take = (parts: Part[]) => setDraft({ blend: { parts, colour: want || undefined } });
  const open = (b: SavedBlend) => {
    setDraft({
      blend: { id: b.id, name: b.name, colour: b.colour, parts: b.parts, made: b.made, note: b.note },
      saved: b.id ? { id: b.id, rev: b.rev } : undefined,
    });
    if (b.colour) type(b.colour);
  };
  // Nothing moves once it is drawn: what stands here at once is asked for before.
  const blends = useBlends();
  const asked = !!text.trim() && (later !== text.trim() || read.isPending || (want && nearest.isPending));
  const ready = useRef(false);
  ready.current ||= !palettes.isPending && !shelf.isPending && !blends.isPending && !asked;
  if (!ready.current) return null;
  const sources = (palettes.data ?? []).map((p) => ({ id: p.id, name: `Palette ${p.name}` }));
  return (
    <div className="mx-auto w-full max-w-7xl flex-1 px-3 py-4 sm:px-5">
      <div className="grid gap-x-8 gap-y-6 lg:grid-cols-2">
        <div className="min-w-0">
          <Link to="/shelf" className="btn btn-ghost mb-2">
            <ArrowLeft className="size-5" aria-hidden="true" /> Shelf
          </Link>
          <WantedColour text={text} onText={type} />
          <section aria-label="Nearest blends" className="mt-5">
            <h2 className="font-semibold text-primary text-xl">The nearest blends</h2>
            <div className="mt-1 w-64">
              <Choice
                label="Made from"
                name="from"
                words={sources}
                value={from}
                none="Paints on the shelf"
                onChange={setFrom}
              />
            </div>
            {!want && <p className="text-secondary">Choose a colour, and the parts that come nearest stand here.</p>}
            {nearest.isError && (
              <p role="alert" className="text-warning" data-none>
                {why(nearest.error)}
              </p>
            )}
            {want && nearest.data && !nearest.isError && (
              <div className={nearest.isPlaceholderData ? "opacity-60" : ""} data-nearest={nearest.data.want.colour}>
                <p className="font-medium">{nearest.data.says}</p>
                <ul className="mt-1 grid gap-2">
                  {nearest.data.blends.map((b, i) => (
                    <li key={b.says} className="sheet flex items-center gap-3 rounded px-3 py-2" data-blend={i}>
                      <Swatch colour={b.colour} />
                      <span className="min-w-0 flex-1 leading-tight">
                        {b.says}
                        <span className="block text-secondary text-sm">
                          {b.against}
                          {i > 0 && `; ${b.parts.length === 1 ? "one paint" : `${b.parts.length} paints`}`}
                        </span>
                      </span>
                      <button
                        type="button"
                        data-do="take-blend"
                        disabled={nearest.isPlaceholderData}
                        className={`btn ${i === 0 ? "btn-primary" : ""}`}
                        onClick={() => take(b.parts)}
                      >
                        Use it
                      </button>
                    </li>
                  ))}
                </ul>
                <p className="mt-1 text-secondary text-sm">
                  Best of {nearest.data.of} {nearest.data.of === 1 ? "paint" : "paints"}, up to three of them and eight
                  parts. {nearest.data.caution}
                </p>
              </div>
            )}
          </section>
        </div>
        <div className="min-w-0">
          <BlendEditor
            draft={draft.blend}
            saved={draft.saved}
            want={want}
            cans={shelf.data?.cans ?? []}
            palettes={palettes.data ?? []}
            onDraft={(blend) => setDraft({ ...draft, blend })}
            onSaved={(b) => open(b)}
            onClear={() => setDraft(EMPTY)}
          />
          <Recipes chosen={draft.saved?.id} onOpen={open} />
        </div>
      </div>
    </div>
  );
}
