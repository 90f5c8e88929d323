import { ArrowRight, Camera, Check, FileText, Hand, Play } from "lucide-react";
import { Link } from "react-router";
import { Swatch } from "../colour/Swatch";
import { Joint } from "../ui/Mark";
import { useUnits, when } from "../ui/units";
import { type Log, newEntry } from "../work/useLog";
import { type Asked, aboutOf } from "./CardSheet";
import { timeSays } from "./timeSays";
import type { Due, Item } from "./useToday";

const TONE: Partial<Record<Due["state"], string>> = {
  closing: "border-warning bg-warning/10",
  missed: "border-error bg-error/10",
  working: "border-primary bg-base-200",
};

/** Row is what comes next on a zone in a line; pressed, it opens. */
export function Row({ x, now, onOpen }: { x: Item; now: number; onOpen: () => void }) {
  const u = useUnits();
  const time = timeSays(x.due, now, u);
  return (
    <button
      type="button"
      data-row={`${x.piece_id}/${x.zone_id}`}
      className={`flex min-h-14 w-full items-center gap-3 rounded border px-3 py-1.5 text-left leading-tight hover:bg-base-200 ${TONE[x.due.state] ?? "border-base-300"}`}
      onClick={onOpen}
    >
      {x.due.colour ? <Swatch colour={x.due.colour} size={28} /> : <span className="size-7" />}
      <span className="min-w-0 flex-1">
        <b className="font-semibold text-lg">{x.due.title ?? x.due.says}</b>
        <span className="block">
          <bdi>{x.piece}</bdi>, <bdi>{x.zone}</bdi>
        </span>
        {time && <span className="block font-medium text-secondary">{time}</span>}
      </span>
      {x.fails && <Joint verdict="fails" className="size-6" />}
    </button>
  );
}

type CardProps = { x: Item; now: number; log: Log; onSheet: (of: Asked) => void; as?: "h2" | "h3" };

/** ItemCard is what comes next on a zone, large enough for a knuckle. */
export function ItemCard({ x, now, log, onSheet, as: Head = "h3" }: CardProps) {
  const u = useUnits();
  const { due } = x;
  const at = `/pieces/${x.piece_id}/${x.zone_id}`;
  const planned = due.step ? { step: due.step, coat: due.coat || undefined } : undefined;
  const about = aboutOf(x);
  const tell = (what: "began" | "done") =>
    log.log({ ...about, says: due.title }, newEntry({ what, zone: x.zone_id, planned }));
  const early = due.state === "waiting" && Date.parse(due.may ?? due.from ?? "") > now;
  const time = timeSays(due, now, u);
  return (
    <article
      className={`rounded border-2 px-4 py-3 ${TONE[due.state] ?? "border-base-300"}`}
      aria-label={`${x.piece}, ${x.zone}`}
      data-card={`${x.piece_id}/${x.zone_id}`}
    >
      <p className="flex items-center gap-2 leading-tight">
        <Link to={`${at}/work`} className="min-w-0 flex-1 underline underline-offset-2">
          <bdi>{x.piece}</bdi>, <bdi>{x.zone}</bdi>
        </Link>
        {x.steps > 0 && (
          <span className="whitespace-nowrap text-secondary tabular-nums">
            {x.past} of {x.steps}
          </span>
        )}
      </p>
      <div className="mt-1 flex items-center gap-3">
        {due.colour && <Swatch colour={due.colour} size={44} />}
        <Head className="font-semibold text-3xl leading-tight" data-title>
          {due.name ?? "All steps are done"}
          {due.of ? (
            <span className="block text-xl">{due.of > 1 ? `coat ${due.coat} of ${due.of}` : "one coat"}</span>
          ) : null}
        </Head>
      </div>
      <p className="mt-1 text-xl leading-snug" data-says>
        {due.says}
        {time && <b className="block font-semibold first-letter:uppercase">{time}</b>}
      </p>
      {x.fails && (
        <Link to={`${at}/plan`} className="mt-1 flex items-center gap-2 font-semibold text-error underline" data-fails>
          <Joint verdict="fails" className="size-6" /> {x.fails}
        </Link>
      )}
      {x.open.length > 0 && (
        <div className="mt-2 rounded border border-warning px-3 py-2" data-open>
          Nothing is logged of {x.open.map((o) => o.title).join(", ")}.
          <span className="mt-1 flex flex-wrap gap-2">
            {(["done", "skipped"] as const).map((what) => (
              <button
                key={what}
                type="button"
                data-do={`open-${what}`}
                className="btn min-h-12"
                onClick={() =>
                  log.log(about, ...x.open.map((o) => newEntry({ what, zone: x.zone_id, planned: { step: o.step } })))
                }
              >
                {what === "done" ? "Was done" : "Left out"}
              </button>
            ))}
          </span>
        </div>
      )}
      {planned ? (
        <div className="mt-3 grid grid-cols-2 gap-2">
          {due.state !== "working" && (
            <button
              type="button"
              data-do="start"
              className="btn h-16 border-base-300 text-xl"
              onClick={() => tell("began")}
            >
              <Play className="size-6" aria-hidden="true" /> Start
            </button>
          )}
          <button
            type="button"
            data-do="done"
            className={`btn h-16 text-xl ${early ? "btn-outline btn-primary" : "btn-primary"} ${due.state === "working" ? "col-span-2" : ""}`}
            onClick={() => tell("done")}
          >
            <Check className="size-7" aria-hidden="true" /> Done
          </button>
          <button
            type="button"
            data-do="otherwise"
            className="btn h-14 text-base"
            onClick={() => onSheet({ x, what: "otherwise" })}
          >
            <Hand className="size-5" aria-hidden="true" /> Not quite as planned
          </button>
          <Link
            to={due.card ? `${at}/mix?coat=${due.card}&card=lay` : `${at}/plan`}
            data-do={due.card ? "card" : "plan"}
            className="btn h-14 text-base"
          >
            <FileText className="size-5" aria-hidden="true" /> {due.card ? "Card" : "Plan"}
          </Link>
          <button
            type="button"
            data-do="note"
            className="btn btn-ghost col-span-2 h-12 border-base-300 text-base"
            onClick={() => onSheet({ x, what: "note" })}
          >
            <Camera className="size-5" aria-hidden="true" /> Note or photograph
          </button>
        </div>
      ) : (
        <>
          {!!due.uses?.length && (
            <ul className="mt-2 text-lg">
              {due.uses.map((use) => (
                <li key={use.says}>
                  {use.says}:{" "}
                  <b className="font-semibold">
                    {Date.parse(use.from) <= now ? "now" : `from ${when(use.from, now, u)}`}
                  </b>
                </li>
              ))}
            </ul>
          )}
          <div className="mt-3 grid gap-2">
            {due.state !== "ahead" && (
              <Link to={`${at}/work`} data-do="put-back" className="btn btn-primary h-14 text-lg">
                <ArrowRight className="size-5" aria-hidden="true" /> Put it back together, hand it over
              </Link>
            )}
            <button
              type="button"
              data-do="note"
              className="btn h-12 text-base"
              onClick={() => onSheet({ x, what: "note" })}
            >
              <Camera className="size-5" aria-hidden="true" /> Note or photograph
            </button>
          </div>
        </>
      )}
      {due.takes && due.state !== "working" && (
        <p className="mt-2 text-secondary">It takes about {due.takes} of work.</p>
      )}
    </article>
  );
}
