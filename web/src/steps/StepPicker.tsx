import { useQuery } from "@tanstack/react-query";
import { useEffect, useMemo, useRef } from "react";
import { answer, api, Refused, type Schemas, type Step } from "../api/client";
import { useVocab } from "../api/vocab";
import { numberOf } from "../piece/useCheck";
import { useWorkspace } from "../piece/workspace";
import { Chooser, type Option } from "../ui/Chooser";
import { Joint } from "../ui/Mark";
import { StepIcon } from "./icons";

type Offer = Schemas["NextStep"];
type Choice = Option & { offer: Offer };

type Props = {
  at: number; // after how many steps
  onPick: (s: Step) => void;
  onClose: () => void;
};

const SENSIBLE = "Recommended next";

/**
 * StepPicker offers recommended next steps, with reasons, and below them all steps, with the finding that each would
 * cause. Steps that would fail come last.
 */
export function StepPicker({ at, onPick, onClose }: Props) {
  const v = useVocab();
  const { piece, zone, judged } = useWorkspace();
  const frame = useRef<HTMLElement>(null);
  useEffect(() => {
    frame.current?.scrollIntoView({ block: "nearest" });
  }, []);
  // The plan is not sound: steps that make it sound are marked.
  const fixing = !!judged?.adhesion && judged.verdict !== "sound";
  const next = useQuery({
    queryKey: ["next", numberOf(piece), zone.id, at],
    queryFn: ({ signal }) =>
      answer(api.POST("/api/next", { params: { query: { zone: zone.id, at } }, body: piece, signal })),
    retry: false,
  });
  const options = useMemo(() => {
    // Without an answer all steps are offered equally.
    const offers: Offer[] | undefined = next.isError ? v.starts.map((s) => ({ ...s, verdict: "watch" })) : next.data;
    const words = new Map([...v.products, ...v.cleaners].map((w) => [w.id, w.also]));
    return offers?.map(
      (o): Choice => ({
        id: o.name,
        name: o.name,
        group: o.why ? SENSIBLE : o.group,
        finds: `${o.note ?? ""} ${o.group} ${words.get(o.step.product ?? o.step.with ?? "") ?? ""}`,
        less: !o.why && (!!o.brings || !!o.barred),
        barred: !!o.barred,
        offer: o,
      }),
    );
  }, [next.data, next.isError, v]);
  return (
    <section
      ref={frame}
      className="sheet rounded-r bg-base-100 p-3 shadow-md outline outline-base-300"
      aria-label={at ? `Add a step after ${at}` : "Add the first step"}
      data-picker
    >
      {next.error instanceof Refused && (
        <p role="alert" className="mb-2 text-warning">
          The recommended steps could not be calculated: {next.error.message}
        </p>
      )}
      <Chooser<Choice>
        label="Find a step"
        placeholder="Type: degreaser, shellac, sand …"
        options={options}
        first={SENSIBLE}
        grid={(g) => (g === SENSIBLE ? "mb-1 gap-0.5" : "gap-0.5 sm:grid-cols-2")}
        tall="max-h-[min(26rem,52dvh)] min-h-64"
        look={(_, here) =>
          `flex min-h-12 cursor-pointer items-center gap-2.5 rounded px-2.5 py-1.5 ${here ? "bg-base-200 outline outline-2 outline-accent" : "hover:bg-base-200"}`
        }
        option={({ offer: o }) => (
          <>
            <StepIcon kind={o.step.do} className="size-7 text-primary" />
            <span className="min-w-0 flex-1 leading-tight">
              <span className="block font-medium">{o.name}</span>
              {o.barred ? (
                <span className="block text-error text-sm">{o.barred}</span>
              ) : o.why ? (
                <span className="block text-sm">{o.why}.</span>
              ) : o.brings ? (
                <span data-brings className="block text-error text-sm">
                  New finding: {o.brings}
                </span>
              ) : (
                <span className="block text-secondary text-sm">{o.note}</span>
              )}
            </span>
            {fixing && o.why && o.verdict === "sound" && (
              <span className="flex items-center gap-1 text-sm">
                <Joint verdict="sound" /> <span className="max-sm:sr-only">then the plan is sound</span>
              </span>
            )}
          </>
        )}
        nothing={(q) => `No step is called “${q}”.`}
        eager
        onPick={(o) => onPick(o.offer.step)}
        onShut={onClose}
      />
    </section>
  );
}
