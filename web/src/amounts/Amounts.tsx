import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { Link } from "react-router";
import { answer, api, ofOpen, type Piece, type Schemas, why, type Zone } from "../api/client";
import { Swatch } from "../colour/Swatch";
import { zoneTitle } from "../piece/edit";
import { numberOf } from "../piece/useCheck";
import { useWorkspace } from "../piece/workspace";
import { unbroken } from "../ui/units";

type Props = { piece: Piece; zone: Zone };
type Needs = Schemas["Needs"];
type Item = Schemas["NeedItem"];

/** Amounts are what the plans take: litres of each coat, whether the shelf has it, and what is used up besides. */
export function Amounts({ piece, zone }: Props) {
  const { toField } = useWorkspace();
  const q = useQuery({
    queryKey: ["needs", numberOf(piece)],
    placeholderData: keepPreviousData,
    retry: false,
    queryFn: ({ signal }) =>
      answer(api.POST("/api/needs", { params: { query: ofOpen() }, body: { ...piece, photos: undefined }, signal })),
  });
  const n = q.data;
  const own = n?.zones.find((z) => z.id === zone.id);
  return (
    <section aria-label="Amounts" className="min-w-0">
      <h2 className="font-semibold text-primary text-xl">How much it takes</h2>
      {q.isError && (
        <p role="alert" className="text-error">
          {why(q.error)}
        </p>
      )}
      {n && (
        <div className={q.isPlaceholderData ? "opacity-60" : ""} data-needs={n.items.length}>
          {own && !own.area && (
            <p className="flex flex-wrap items-center gap-2">
              The area of this zone is not known.
              <button type="button" className="btn" onClick={() => toField("area_m2")}>
                Enter it
              </button>
            </p>
          )}
          {own && own.coats.length > 0 && (
            <>
              <h3 className="mt-1 font-semibold">
                {zoneTitle(zone)}, {own.area}
              </h3>
              <ol className="mt-1">
                {own.coats.map((c) => (
                  <CoatRow key={`${c.step}-${c.coat}`} c={c} />
                ))}
              </ol>
            </>
          )}
          <Stale needs={n} />
          {n.items.length > 0 && (
            <>
              <h3 className="mt-4 font-semibold">
                The whole piece, against your shelf: <span className="font-normal">{n.says}</span>
              </h3>
              <ul className="mt-1 grid gap-1.5">
                {n.items.map((x) => (
                  <ItemRow key={`${x.product}${x.can ?? ""}${x.colour ?? ""}`} x={x} />
                ))}
              </ul>
              <Link to="/shelf" className="btn btn-ghost mt-1" data-do="to-shelf">
                Open the shelf
              </Link>
            </>
          )}
          {n.items.length === 0 && <p>{n.says}</p>}
          {n.supplies.length > 0 && (
            <>
              <h3 className="mt-3 font-semibold">Used up besides</h3>
              <ul className="grid gap-x-4 sm:grid-cols-2" data-supplies={n.supplies.length}>
                {n.supplies.map((s) => (
                  <li key={s.id} className="flex justify-between gap-2 border-base-300 border-b py-0.5">
                    <span>
                      {s.name} <span className="text-secondary text-sm">{s.says}</span>
                    </span>
                    <span className="whitespace-nowrap tabular-nums">{s.amount}</span>
                  </li>
                ))}
              </ul>
            </>
          )}
          <p className="mt-3 text-secondary text-sm">
            Estimates for a usual hand, from least to most. The cover on the label and your own hand decide.
          </p>
        </div>
      )}
    </section>
  );
}

function CoatRow({ c }: { c: Schemas["CoatNeed"] }) {
  return (
    <li className="border-base-300 border-b py-1 leading-tight" data-coat={`${c.step}-${c.coat}`}>
      <details>
        <summary className="flex min-h-9 items-center gap-2">
          {c.colour && <Swatch colour={c.colour} size={20} />}
          <span className="min-w-0 flex-1">
            {c.name}, coat {c.coat}
            {c.parts && <span className="block text-secondary text-sm">{c.parts}</span>}
          </span>
          <span className="text-right tabular-nums">
            {c.says}
            {c.from_label && <span className="block text-accent text-sm">from the label</span>}
          </span>
        </summary>
        <table className="mt-1 mb-1 w-full text-sm">
          <tbody>
            {c.factors.map((f) => (
              <tr key={f.id}>
                <td className="w-24 pr-2 text-right tabular-nums">{f.shown}</td>
                <td className="text-secondary">{f.words}</td>
              </tr>
            ))}
          </tbody>
        </table>
      </details>
    </li>
  );
}

const WORD: Record<Item["state"], [string, string]> = {
  enough: ["enough", "text-success"],
  tight: ["just enough", "text-warning"],
  short: ["too little", "text-error"],
  none: ["not there", "text-error"],
};

function ItemRow({ x }: { x: Item }) {
  const [word, tone] = WORD[x.state];
  return (
    <li
      className="sheet flex items-center gap-3 rounded px-3 py-1.5 leading-tight"
      data-item={x.product}
      data-state={x.state}
    >
      {x.colour && <Swatch colour={x.colour} size={32} />}
      <span className="min-w-0 flex-1">
        <b className="font-semibold">
          <bdi>{x.name}</bdi>
        </b>{" "}
        <span className={`font-medium ${tone}`}>{word}</span>
        <span className="block text-sm">{unbroken(`${x.says} ${x.buy_says ?? ""}`)}</span>
        {x.from.length > 0 && !x.can && <span className="block text-secondary text-sm">From {x.from.join(", ")}</span>}
      </span>
    </li>
  );
}

/** Stale says of which cans the shelf says something else by now, and takes that over. */
function Stale({ needs }: { needs: Needs }) {
  const { piece, changePiece, say } = useWorkspace();
  if (!needs.stale.length) return null;
  const changed = needs.stale.filter((s) => s.now);
  return (
    <div className="sheet wash mt-3 rounded px-3 py-2" data-stale={needs.stale.length}>
      {needs.stale.map((s) => (
        <p key={s.id}>{s.says}</p>
      ))}
      {changed.length > 0 && (
        <button
          data-do="freshen"
          type="button"
          className="btn mt-1"
          onClick={() => {
            changePiece({
              ...piece,
              cans: piece.cans?.map((c) => changed.find((s) => s.id === c.id)?.now ?? c),
            });
            say("The plan now uses what the shelf says. You can undo this.");
          }}
        >
          Use what the shelf says now
        </button>
      )}
    </div>
  );
}
