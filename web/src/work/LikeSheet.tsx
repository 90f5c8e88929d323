import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { answer, api, type Schemas, type Step, why } from "../api/client";
import { Swatch } from "../colour/Swatch";
import { usePreview } from "../piece/useCheck";
import { useWorkspace } from "../piece/workspace";
import { localOf } from "../ui/clock";
import { Dialog } from "../ui/Dialog";
import { TextField } from "../ui/Field";
import { Mark } from "../ui/Mark";
import { date, useUnits } from "../ui/units";

type Like = Schemas["LikeZone"];

/** LikeSheet finds the plan of a finished piece to be used again here: it is judged for this zone before it is taken. */
export default function LikeSheet({ onUse, onClose }: { onUse: (x: Like) => void; onClose: () => void }) {
  const { zone } = useWorkspace();
  const [words, setWords] = useState("");
  const [chosen, choose] = useState<Like>();
  const { substrate } = zone;
  const finish = zone.finish ?? "unknown";
  const q = useQuery({
    queryKey: ["like", substrate, finish, words],
    placeholderData: keepPreviousData,
    queryFn: ({ signal }) => answer(api.GET("/api/like", { params: { query: { substrate, finish, words } }, signal })),
  });
  return (
    <Dialog title="Do it like a finished piece" wide onClose={onClose}>
      <TextField
        label="Find by material, product, look or name"
        name="like"
        of="piece.name"
        value={words}
        onChange={setWords}
      />
      {q.isError && (
        <p role="alert" className="font-medium text-error">
          {why(q.error)}
        </p>
      )}
      {q.data?.length === 0 && (
        <p>
          {words
            ? `No finished piece has all of “${words}”.`
            : "No piece has been handed over yet. Once one is, its plan can be used again here."}
        </p>
      )}
      <ul className="grid gap-2">
        {q.data?.map((x) => (
          <li key={`${x.piece_id}/${x.zone_id}`} data-like={`${x.piece_id}/${x.zone_id}`}>
            <button
              type="button"
              aria-pressed={chosen?.piece_id === x.piece_id && chosen.zone_id === x.zone_id}
              className={`flex w-full items-start gap-3 rounded border px-3 py-2 text-left leading-tight ${chosen === x ? "border-primary bg-base-200" : "border-base-300 hover:bg-base-200"}`}
              onClick={() => choose(x)}
            >
              <Swatch colour={x.colour} size={36} />
              <span className="min-w-0 flex-1">
                <b className="font-semibold">
                  <bdi>{x.piece}</bdi>, <bdi>{x.zone}</bdi>
                </b>
                <span className="block">
                  {x.material}
                  {x.alike && ", as here"}; {x.look.toLowerCase()}
                </span>
                <span className="block text-secondary">{x.says}</span>
                {x.lessons.map((l) => (
                  <span key={l} className="block italic">
                    To be done otherwise: <bdi>{l}</bdi>
                  </span>
                ))}
              </span>
              <Finished at={x.finished} />
            </button>
            {chosen === x && <Use x={x} onUse={() => onUse(x)} />}
          </li>
        ))}
      </ul>
    </Dialog>
  );
}

function Finished({ at }: { at: string }) {
  const u = useUnits();
  return <span className="whitespace-nowrap text-secondary text-sm">{date(localOf(at), u)}</span>;
}

function Use({ x, onUse }: { x: Like; onUse: () => void }) {
  const { piece, zone } = useWorkspace();
  const seen = usePreview(piece, zone.id, x.steps as Step[]);
  return (
    <div className="flex flex-wrap items-center gap-3 px-3 py-2" data-use={seen?.verdict}>
      <span className="min-w-52 flex-1">{seen ? `Here: ${seen.says}` : "It is checked for this zone…"}</span>
      {seen && <Mark verdict={seen.verdict} />}
      <button type="button" data-do="use" className="btn btn-primary min-h-12" disabled={!seen} onClick={onUse}>
        Use this plan
      </button>
    </div>
  );
}
