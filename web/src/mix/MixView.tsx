import { Droplets } from "lucide-react";
import { useSearchParams } from "react-router";
import { why } from "../api/client";
import { useStudio } from "../api/studio";
import { Swatch } from "../colour/Swatch";
import { zoneTitle } from "../piece/edit";
import { useWorkspace } from "../piece/workspace";
import { unbroken } from "../ui/units";
import { BatchView } from "./BatchView";
import { CardScreen } from "./CardScreen";
import { MeasureChoice } from "./MeasureChoice";
import { useCards } from "./useCards";

/** MixView is the stage Mix: the batch of each coat, and the cards to work from. */
export default function MixView() {
  const { piece, zone, id, go, toField, change, overview } = useWorkspace();
  const studio = useStudio();
  const q = useCards(piece, zone);
  const [at, setAt] = useSearchParams();
  const cards = q.data?.cards ?? [];
  const card = cards.find((c) => c.id === at.get("coat")) ?? cards[0];
  const open = at.get("card");
  const show = (coat: string, which?: string) =>
    setAt(which ? { coat, card: which } : { coat }, { replace: !which && !open });
  if (q.isError && !q.data) {
    return (
      <p role="alert" className="p-5 first-letter:uppercase">
        {why(q.error)}
      </p>
    );
  }
  if (!q.data) return <div className="min-h-dvh" />;
  if (card && (open === "mix" ? card.mix : open === "lay" ? card.lay : undefined)) {
    return (
      <CardScreen
        key={`${card.id}${open}`}
        card={card}
        which={open as "mix" | "lay"}
        order={q.data.order}
        piece={piece}
        overview={overview}
        about={{
          for: card.title,
          piece: piece.name || undefined,
          piece_id: id || undefined,
          zone: zoneTitle(zone),
          zone_id: zone.id,
          card: card.id,
          temp_c: (piece.site ?? studio?.site)?.temp_c,
          rh_pct: (piece.site ?? studio?.site)?.rh_pct,
        }}
        onOther={card.mix && card.lay ? () => show(card.id, open === "mix" ? "lay" : "mix") : undefined}
        onClose={() => show(card.id)}
      />
    );
  }
  return (
    <section
      aria-label="Mix"
      data-cards={cards.length}
      className={`min-h-0 flex-1 overflow-y-auto px-3 py-4 sm:px-5 ${q.isPlaceholderData ? "opacity-60" : ""}`}
    >
      <div className="mx-auto flex max-w-7xl flex-wrap items-start gap-x-4 gap-y-1">
        <div className="min-w-64 flex-1">
          <h2 className="font-semibold text-primary text-xl">Mix and lay</h2>
          <p>{unbroken(q.data.says)}</p>
        </div>
        {cards.length > 0 && <MeasureChoice />}
        {!!zone.steps?.length && (
          <button type="button" data-do="amounts" className="btn mt-6" onClick={() => go("amounts")}>
            <Droplets className="size-4" aria-hidden="true" /> Colour and amounts
          </button>
        )}
      </div>
      {q.data.needs === "steps" && (
        <button type="button" className="btn btn-primary mt-2" onClick={() => go("plan")}>
          Plan the coats
        </button>
      )}
      {q.data.needs === "area" && (
        <button type="button" data-do="to-area" className="btn mt-1" onClick={() => toField("area_m2")}>
          Enter the area
        </button>
      )}
      {card && (
        <div className="mx-auto mt-3 grid max-w-7xl gap-x-8 gap-y-5 lg:grid-cols-[22rem_minmax(0,1fr)]">
          <ol aria-label="Coats" className="grid content-start gap-1">
            {cards.map((c) => (
              <li key={c.id}>
                <button
                  type="button"
                  data-card={c.id}
                  aria-current={c.id === card.id ? "true" : undefined}
                  className={`flex min-h-14 w-full items-center gap-3 rounded border px-3 py-1.5 text-left leading-tight ${c.id === card.id ? "border-primary bg-base-200" : "border-base-300 hover:bg-base-200"}`}
                  onClick={() => show(c.id)}
                >
                  {c.colour ? <Swatch colour={c.colour} size={30} /> : <span className="size-7.5" />}
                  <span className="min-w-0">
                    <b className="font-semibold">
                      <bdi>{c.title}</bdi>
                    </b>
                    <span className="block text-secondary text-sm">{unbroken(c.brief)}</span>
                  </span>
                </button>
              </li>
            ))}
          </ol>
          <BatchView key={card.id} card={card} onOpen={(which) => show(card.id, which)} onChange={change} />
        </div>
      )}
    </section>
  );
}
