import { type ReactNode, useState } from "react";
import type { Overview, Piece, Schemas } from "../api/client";
import { StartClock } from "../clocks/StartClock";
import { unbroken } from "../ui/units";
import { OrderDrawing } from "./OrderDrawing";
import { Portions } from "./Portions";
import type { Card, Turn } from "./useCards";

type About = Parameters<typeof StartClock>[0]["about"];

export type CardProps = {
  card: Card;
  order: Turn[];
  piece: Piece;
  overview: Overview | undefined;
  about: About;
};

/** Leaf is one page of a card: what is seen at once, at arm's length. */
type Leaf = { id: string; title: string; body: ReactNode };

function Big({ children }: { children: ReactNode }) {
  return <p className="mb-4 text-3xl leading-tight sm:text-4xl lg:text-5xl print:mb-1 print:text-lg">{children}</p>;
}

function Lines({ of }: { of: string[] }) {
  return (
    <ul className="grid gap-2 text-xl print:gap-1 print:text-base">
      {of.filter(Boolean).map((s) => (
        <li key={s} className="sheet rounded px-3 py-1">
          {unbroken(s)}
        </li>
      ))}
    </ul>
  );
}

function Clocks({ of, about }: { of: Schemas["CardClock"][]; about: About }) {
  return (
    <div className="mt-4 flex flex-wrap gap-3 print:mt-1">
      {of.map((c) => (
        <StartClock key={`${c.kind}${c.says}`} clock={c} about={about} big />
      ))}
    </div>
  );
}

function stepLeaves(steps: Schemas["CardStep"][], about: About, of: string): Leaf[] {
  return steps.map((s, i) => ({
    id: `${of}${i + 1}`,
    title: `Step ${i + 1}`,
    body: (
      <>
        <Big>{unbroken(s.says)}</Big>
        {s.clock && <Clocks of={[s.clock]} about={about} />}
        {steps[i + 1] && (
          <p className="no-print mt-8 text-secondary text-xl">
            <b className="font-semibold">Then:</b> {unbroken(steps[i + 1]?.says ?? "")}
          </p>
        )}
      </>
    ),
  }));
}

/** mixLeaves are the pages of a mixing card. */
export function mixLeaves({ card, about }: CardProps): Leaf[] {
  const { mix, batch } = card;
  if (!mix) return [];
  const leaves: Leaf[] = [];
  if (batch && batch.portions.length > 0) {
    leaves.push({
      id: "in",
      title: "What goes in",
      body: (
        <>
          <Portions batch={batch} big />
          <div className="mt-4">
            <Lines of={[batch.life ?? "", ...batch.notes, batch.like ?? ""]} />
          </div>
        </>
      ),
    });
  }
  leaves.push(...stepLeaves(mix.steps, about, "mix"));
  leaves.push({
    id: "ready",
    title: "The pot is ready",
    body: (
      <>
        <dl className="grid gap-3 text-xl print:gap-1 print:text-base">
          <Pair name="Too thick" says={mix.too_thick} />
          <Pair name="Too thin" says={mix.too_thin} />
          {mix.foam && <Pair name="Foam" says={mix.foam} />}
        </dl>
        <div className="mt-4">
          <Lines of={[batch?.life ?? "", ...mix.keeps, batch?.left ?? ""]} />
        </div>
        <Clocks of={mix.clocks} about={about} />
      </>
    ),
  });
  return leaves;
}

function Pair({ name, says }: { name: string; says: string }) {
  return (
    <div>
      <dt className="font-semibold text-primary">{name}</dt>
      <dd>{unbroken(says)}</dd>
    </div>
  );
}

/** layLeaves are the pages of a laying card. */
export function layLeaves({ card, about, order, overview, piece }: CardProps): Leaf[] {
  const { lay } = card;
  if (!lay) return [];
  const leaves: Leaf[] = [];
  const before = [...lay.protect, ...lay.setup, ...lay.before];
  if (lay.tool || before.length) {
    leaves.push({
      id: "before",
      title: "Before the first stroke",
      body: (
        <>
          {lay.tool && (
            <Big>
              {lay.tool}
              {lay.why && <span className="mt-2 block text-2xl text-secondary print:text-base">{lay.why}</span>}
            </Big>
          )}
          <Lines of={[lay.load ?? "", ...before]} />
        </>
      ),
    });
  }
  if (lay.ordered && order.length && overview) {
    leaves.push({
      id: "order",
      title: "The order",
      body: <Order order={order} overview={overview} piece={piece} across={!!lay.across} />,
    });
  } else if (lay.order?.length) {
    leaves.push({ id: "order", title: "The order", body: <Lines of={lay.order} /> });
  }
  if (lay.stroke) {
    leaves.push({
      id: "stroke",
      title: lay.once ? "One stroke" : "Strokes and sections",
      body: (
        <>
          <Big>
            {lay.stroke}
            {lay.stroke_why && (
              <span className="mt-2 block text-2xl text-secondary print:text-base">{lay.stroke_why}</span>
            )}
          </Big>
          <Lines of={[lay.section ?? "", lay.wipe ? `Wipe. ${lay.wipe}` : "", lay.cloth ?? "", lay.little ?? ""]} />
          {lay.edge && <Clocks of={[lay.edge]} about={about} />}
        </>
      ),
    });
  }
  leaves.push(...stepLeaves(lay.steps, about, "lay"));
  if (lay.faults.length || lay.runs) {
    leaves.push({
      id: "faults",
      title: "If something goes wrong",
      body: (
        <>
          {lay.runs && <p className="mb-3 text-xl">It gathers {lay.runs}</p>}
          <table className="w-full border-collapse text-left text-lg print:text-sm">
            <thead>
              <tr className="border-base-content border-b-2 max-sm:hidden">
                <td className="w-1/5 py-1" />
                <th scope="col" className="w-2/5 py-1 pr-3 font-semibold">
                  Wet
                </th>
                <th scope="col" className="py-1 font-semibold">
                  Dry
                </th>
              </tr>
            </thead>
            <tbody>
              {lay.faults.map((f) => (
                <tr
                  key={f.id}
                  className="border-base-300 border-b align-top max-sm:block max-sm:py-2"
                  data-fault={f.id}
                >
                  <th scope="row" className="py-1.5 pr-3 font-semibold text-primary max-sm:block max-sm:py-0">
                    {f.name}
                  </th>
                  <td className="py-1.5 pr-3 leading-snug max-sm:block max-sm:py-0 max-sm:before:content-['Wet:_']">
                    {f.wet}
                  </td>
                  <td className="py-1.5 leading-snug max-sm:block max-sm:py-0 max-sm:before:content-['Dry:_']">
                    {f.dry}
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
        </>
      ),
    });
  }
  if (lay.clocks.length || lay.clean) {
    leaves.push({
      id: "after",
      title: "The coat is on",
      body: (
        <>
          <Clocks of={lay.clocks} about={about} />
          <dl className="mt-4 grid gap-3 text-xl print:gap-1 print:text-base">
            {lay.clean && <Pair name="Clean up" says={lay.clean} />}
            {lay.keep && <Pair name="Until the next coat" says={lay.keep} />}
            {lay.waste && <Pair name="Rags and rests" says={lay.waste} />}
          </dl>
        </>
      ),
    });
  }
  return leaves;
}

type OrderProps = { order: Turn[]; overview: Overview; piece: Piece; across: boolean };

/** Order is walked through turn by turn: what is painted now is marked in the drawing. */
function Order({ order, overview, piece, across }: OrderProps) {
  const [now, setNow] = useState(order[0]?.n ?? 1);
  const apart = order.some((t) => t.apart);
  return (
    <div className="flex flex-wrap items-start gap-6">
      <OrderDrawing
        order={order}
        overview={overview}
        piece={piece}
        width={440}
        height={430}
        now={now}
        across={across}
      />
      <ol className="min-w-64 flex-1 text-lg">
        {order.map((t, i) => (
          <li key={t.n}>
            {apart && (i === 0 || order[i - 1]?.apart !== t.apart) && (
              <p className="mt-1 font-semibold text-secondary text-sm">
                {t.apart ? "Taken off, each lying by itself" : "Then the body"}
              </p>
            )}
            <button
              type="button"
              data-turn-row={t.n}
              aria-current={t.n === now ? "step" : undefined}
              className={`flex min-h-11 w-full items-center gap-3 rounded px-2 text-left leading-tight ${t.n === now ? "bg-base-200 font-semibold" : ""}`}
              onClick={() => setNow(t.n)}
            >
              <span className="w-6 shrink-0 text-right font-head tabular-nums">{t.n}</span>
              <span>
                {t.says}
                {t.marks.length === 0 && <span className="text-secondary text-sm"> (not seen from the front)</span>}
              </span>
            </button>
          </li>
        ))}
      </ol>
    </div>
  );
}
