import { CircleHelp, Ellipsis, MapPin, RotateCcw, TriangleAlert, X } from "lucide-react";
import { useEffect, useRef, useState } from "react";
import type { Identification, Piece, TestWord, Zone } from "../api/client";
import { useVocab } from "../api/vocab";
import { KeyCap, useKeys, useLetters } from "../frame/keys";
import { today } from "../ui/clock";
import { focusOn, showOn, useName, useTakes } from "../ui/focus";
import { Drawing } from "./drawings";

export const NOT_SURE = "not_sure";
const ROW = "asdfghjkl"; // keys for the outcomes, in their order

type Props = {
  piece: Piece;
  zone: Zone;
  found: Identification | undefined;
  silent: boolean; // the result is older than the last answer, and the server does not answer
  asked: string | undefined; // a test that the painter chose
  onAsk: (test: string | undefined) => void;
  onZone: (z: Zone) => void;
};

/** FindOut is the dialogue: one test at a time, the most useful first. */
export function FindOut({ piece, zone, found, silent, asked, onAsk, onZone }: Props) {
  const v = useVocab();
  const evidence = zone.evidence ?? [];
  const [further, setFurther] = useState(false); // tests more although nothing would change
  const card = useName<HTMLElement>("field identify");
  useTakes("field evidence", () => focusOn("field identify"));
  const fresh = found?.next.find((n) => !evidence.some((e) => e.test === n.test));
  // Until the last answer is evaluated the card stays as it was, so that no question flickers.
  const weighed =
    silent ||
    (found?.answers.length === evidence.length &&
      found.answers.every((a, i) => a.test === evidence[i]?.test && a.outcome === evidence[i]?.outcome));
  const shown = useRef<string>(undefined);
  const proposed = found && (!found.done || further) ? fresh?.test : undefined;
  if (weighed) shown.current = proposed;
  const id = asked ?? (weighed ? proposed : shown.current);
  const test = v.tests.find((t) => t.id === id);
  const offered = found?.next.find((n) => n.test === id);
  const before = evidence.find((e) => e.test === id)?.outcome;
  const give = (outcome: string) => {
    if (!test) return;
    const note = { test: test.id, outcome, date: today() };
    const had = evidence.some((e) => e.test === test.id);
    onZone({ ...zone, evidence: had ? evidence.map((e) => (e.test === test.id ? note : e)) : [...evidence, note] });
    onAsk(undefined);
    focusOn("field identify");
  };
  useKeys("Identify", [
    ...(test?.outcomes ?? []).slice(0, ROW.length).map((o, i) => ({
      key: ROW[i] ?? "",
      says: `Answer: ${o.name}`,
      run: () => give(o.id),
    })),
    { key: "n", says: "Not sure", run: () => test && give(NOT_SURE) },
  ]);
  useEffect(() => {
    if (asked) showOn("field identify");
  }, [asked]);
  if (!found) return null;
  return (
    <div className="mx-auto max-w-4xl">
      <section
        ref={card}
        tabIndex={-1}
        data-field="identify"
        aria-label="The next test"
        className="sheet rounded-r bg-base-100 p-4 outline-none"
        data-test={test?.id}
        aria-busy={!weighed}
      >
        {test ? (
          <Question
            key={test.id}
            test={test}
            why={asked ? undefined : offered?.says}
            rare={offered?.rare ?? []}
            before={before}
            onGive={give}
          />
        ) : (
          <>
            <h2 className="font-semibold text-xl">{found.done ? "Done" : "No tests left"}</h2>
            <p className="mt-1">{found.done_says ?? "Every possible test here has an answer."}</p>
            {found.done && fresh && (
              <button
                data-do="go-on"
                type="button"
                className="btn btn-ghost mt-2 border-base-300"
                onClick={() => setFurther(true)}
              >
                Test more anyway
              </button>
            )}
          </>
        )}
        <Others found={found} id={id} onAsk={onAsk} />
        {found.barred.length > 0 && (
          <p data-barred={found.barred.join(" ")} className="mt-2 flex gap-2 text-sm text-warning">
            <TriangleAlert className="size-4 shrink-0" aria-hidden="true" />
            Not offered, because the old coat may contain lead:{" "}
            {found.barred.map((b) => shortOf(v.tests, b)).join(", ")}.
          </p>
        )}
      </section>
      <section className="mt-4" aria-label="Answered so far">
        <h2 className="font-semibold text-lg">Answered so far</h2>
        {piece.made ? (
          <p className="text-secondary text-sm">Made in {piece.made}, which also counts as an answer.</p>
        ) : null}
        {evidence.length === 0 && (
          <p className="text-secondary">Nothing yet. Start by looking; you do not have to touch anything.</p>
        )}
        <ul className="mt-1 grid gap-1.5 sm:grid-cols-2">
          {evidence.map((e) => {
            const t = v.tests.find((x) => x.id === e.test);
            const o = t?.outcomes.find((x) => x.id === e.outcome);
            return (
              <li key={e.test} className="flex items-stretch rounded border border-base-300 bg-base-100">
                <button
                  data-answered={e.test}
                  type="button"
                  className="flex min-h-14 min-w-0 flex-1 items-center gap-2.5 p-1.5 text-left hover:bg-base-200"
                  title="Change the answer"
                  onClick={() => onAsk(e.test)}
                >
                  {o ? (
                    <Drawing of={o.draw} className="h-10 w-16 shrink-0" />
                  ) : (
                    <CircleHelp className="size-7 shrink-0 text-secondary" aria-hidden="true" />
                  )}
                  <span className="min-w-0 leading-tight">
                    <span className="block text-secondary text-sm">{t?.short}</span>
                    <span className="block font-medium">{o?.name ?? "Not sure"}</span>
                  </span>
                </button>
                <button
                  data-take-back={e.test}
                  type="button"
                  className="btn btn-ghost btn-square h-auto w-11 rounded-l-none"
                  aria-label={`Remove: ${t?.name}`}
                  onClick={() => onZone({ ...zone, evidence: evidence.filter((x) => x.test !== e.test) })}
                >
                  <X className="size-4" aria-hidden="true" />
                </button>
              </li>
            );
          })}
        </ul>
      </section>
    </div>
  );
}

function shortOf(tests: TestWord[], id: string) {
  return lower(tests.find((t) => t.id === id)?.short ?? id);
}

type QuestionProps = {
  test: TestWord;
  why: string | undefined;
  rare: string[]; // unlikely outcomes
  before: string | undefined;
  onGive: (outcome: string) => void;
};

/** Question is one test: how, where, what to look for, and its outcomes to click. */
function Question({ test, why, rare, before, onGive }: QuestionProps) {
  const [all, setAll] = useState(false);
  const shown = test.outcomes.filter((o) => all || o.id === before || !rare.includes(o.id));
  const letters = useLetters();
  const key = (i: number) => {
    const k = i < 0 ? "n" : ROW[i];
    return letters && k ? <KeyCap of={k} /> : null;
  };
  return (
    <>
      <div className="flex flex-wrap items-baseline gap-x-3">
        <h2 className="font-semibold text-xl leading-tight">{test.name}</h2>
        {why && <span className="text-secondary text-sm">{why}</span>}
      </div>
      <p className="mt-1.5">
        {test.how} <b className="font-semibold">Look for:</b> {lower(test.look_for)}
      </p>
      <p className="mt-1 flex gap-1.5 text-secondary">
        <MapPin className="mt-0.5 size-4 shrink-0" aria-hidden="true" /> {test.where}
      </p>
      {test.caution && (
        <p className="mt-1 flex gap-1.5 text-warning">
          <TriangleAlert className="mt-0.5 size-4 shrink-0" aria-hidden="true" /> {test.caution}
        </p>
      )}
      <div className="mt-3 grid grid-cols-[repeat(auto-fill,minmax(9.5rem,1fr))] gap-2">
        {shown.map((o) => (
          <button
            key={o.id}
            type="button"
            aria-pressed={before === o.id}
            data-outcome={o.id}
            className={`flex min-h-24 flex-col rounded border bg-base-100 p-1.5 text-left leading-tight hover:border-accent hover:bg-base-200 ${before === o.id ? "border-2 border-primary" : "border-base-300"}`}
            onClick={() => onGive(o.id)}
          >
            <Drawing of={o.draw} className="aspect-[96/56] w-full" />
            <span className="mt-1 flex w-full items-start gap-1 font-medium">
              <span className="flex-1">{o.name}</span> {key(test.outcomes.indexOf(o))}
            </span>
          </button>
        ))}
        <button
          type="button"
          aria-pressed={before === NOT_SURE}
          data-outcome={NOT_SURE}
          className={`flex min-h-24 flex-col items-start rounded border bg-base-100 p-1.5 leading-tight hover:border-accent hover:bg-base-200 ${before === NOT_SURE ? "border-2 border-primary" : "border-base-300"}`}
          onClick={() => onGive(NOT_SURE)}
        >
          <span className="grid aspect-[96/56] w-full place-items-center">
            <CircleHelp className="size-8 text-secondary" aria-hidden="true" />
          </span>
          <span className="mt-1 flex w-full items-start gap-1 font-medium">
            <span className="flex-1 text-left">Not sure</span> {key(-1)}
          </span>
        </button>
        {shown.length < test.outcomes.length && (
          <button
            data-do="all-outcomes"
            type="button"
            className="flex min-h-24 flex-col items-start rounded border border-base-300 border-dashed bg-base-100 p-1.5 leading-tight hover:border-accent hover:bg-base-200"
            onClick={() => setAll(true)}
          >
            <span className="grid aspect-[96/56] w-full place-items-center text-secondary">
              <Ellipsis className="size-8" aria-hidden="true" />
            </span>
            <span className="mt-1 text-left font-medium">Something else</span>
          </button>
        )}
      </div>
    </>
  );
}

function lower(s: string) {
  return `${s[0]?.toLowerCase()}${s.slice(1)}`;
}

/** Others are the other possible tests, the most useful first. */
function Others({ found, id, onAsk }: { found: Identification; id: string | undefined; onAsk: (t: string) => void }) {
  const rest = found.next.filter((n) => n.test !== id);
  if (!rest.length) return null;
  return (
    <details className="mt-3">
      <summary
        data-do="others"
        className="inline-flex min-h-9 items-center gap-1.5 text-primary underline underline-offset-2"
      >
        <RotateCcw className="size-4" aria-hidden="true" /> A different test
      </summary>
      <ul className="mt-1 grid gap-1 sm:grid-cols-2">
        {rest.map((n) => (
          <li key={n.test}>
            <button
              data-ask={n.test}
              type="button"
              className="flex min-h-12 w-full flex-col justify-center rounded border border-base-300 px-2.5 py-1 text-left leading-tight hover:bg-base-200"
              onClick={() => onAsk(n.test)}
            >
              <span className="font-medium">{n.name}</span>
              <span className="text-secondary text-sm">{n.says}</span>
            </button>
          </li>
        ))}
      </ul>
    </details>
  );
}
