import { Tag } from "lucide-react";
import { useState } from "react";
import type { Fitting, Overview, Piece, Zone } from "../api/client";
import { nameOf, useVocab } from "../api/vocab";
import { zoneTitle } from "../piece/edit";
import { Box, Choice } from "../ui/Choice";
import { NumberField, TextField } from "../ui/Field";
import { useName } from "../ui/focus";
import { moved, Order } from "../ui/Order";
import { SizeField } from "../ui/SizeField";

type Props = { piece: Piece; overview: Overview; onPiece: (p: Piece) => void };

/**
 * Disassembly is the checklist of hardware: where it goes back to, how it is cleaned and stored. It is ticked in
 * order, and from the end for reassembly.
 */
export function Disassembly({ piece, overview, onPiece }: Props) {
  const v = useVocab();
  const [back, setBack] = useState(false);
  const [open, setOpen] = useState<number>();
  const heading = useName<HTMLHeadingElement>("field take_apart");
  const list = piece.take_apart ?? [];
  const put = (next: Fitting[]) => onPiece({ ...piece, take_apart: next });
  const change = (n: number, part: Partial<Fitting>) => put(list.map((f, i) => (i === n ? { ...f, ...part } : f)));
  const add = (more: Fitting[]) => put([...list, ...more]);
  const order = list.map((_, i) => i);
  const rows = back ? order.toReversed().filter((i) => overview.fittings[i]?.do !== "stay") : order;
  const done = rows.filter((i) => (back ? list[i]?.back : list[i]?.off)).length;
  return (
    <div className="mx-auto w-full max-w-4xl px-3 py-4 sm:px-5">
      <div className="mb-3 flex flex-wrap items-center gap-3">
        <div className="min-w-0 flex-1">
          <h2 ref={heading} tabIndex={-1} data-field="take_apart" className="font-semibold text-lg">
            Disassembly
          </h2>
          <p className="text-secondary">
            {list.length === 0
              ? "Remove or mask hardware, doors, glass and pads first; a label shows where each goes back."
              : back
                ? `In reverse order: ${done} of ${rows.length} done. Wait until the paint is hard.`
                : `${done} of ${rows.length} done.`}
          </p>
        </div>
        {list.length > 0 && (
          <fieldset className="join">
            <legend className="sr-only">Direction</legend>
            {[
              [false, "Disassembly"],
              [true, "Reassembly"],
            ].map(([to, says]) => (
              <button
                data-way-round={to ? "back" : "disassembly"}
                key={String(says)}
                type="button"
                aria-pressed={back === to}
                className={`btn h-11 ${back === to ? "btn-primary" : "border-base-300 bg-base-100"}`}
                onClick={() => setBack(!!to)}
              >
                {says}
              </button>
            ))}
          </fieldset>
        )}
      </div>
      {overview.suggested.length > 0 && !back && (
        <div className="sheet wash mb-3 flex flex-wrap items-center gap-2 rounded-r px-4 py-2">
          <p className="min-w-40 flex-1">The parts list has more to remove:</p>
          {overview.suggested.map((s) => (
            <button
              data-add-fitting={s.kind}
              key={s.kind}
              type="button"
              className="btn border-base-300 bg-base-100 font-normal"
              onClick={() => add([s])}
            >
              Add {s.count} × {nameOf(v.fittings, s.kind).toLowerCase()}
            </button>
          ))}
          {overview.suggested.length > 1 && (
            <button type="button" className="btn btn-primary" onClick={() => add(overview.suggested)}>
              Add all
            </button>
          )}
        </div>
      )}
      <ol className="grid gap-1.5">
        {rows.map((n) => {
          const f = list[n];
          const l = overview.fittings[n];
          if (!f) return null;
          const ticked = back ? f.back : f.off;
          return (
            <li key={n} className={`rounded border bg-base-100 ${open === n ? "border-primary" : "border-base-300"}`}>
              <div className="flex items-stretch">
                <label className="grid w-14 shrink-0 cursor-pointer place-items-center">
                  <Box
                    tick={n}
                    className="checkbox-lg"
                    label={`${l?.title}: ${back ? "refitted" : l?.do === "mask" ? "masked" : "removed"}`}
                    on={!!ticked}
                    onChange={(on) => change(n, back ? { back: on } : { off: on })}
                  />
                </label>
                <button
                  data-fitting={n}
                  type="button"
                  aria-expanded={open === n}
                  className="min-h-14 min-w-0 flex-1 py-1.5 pr-3 text-left leading-tight hover:bg-base-200"
                  onClick={() => setOpen(open === n ? undefined : n)}
                >
                  <span className="flex flex-wrap items-center gap-x-2">
                    <b className={`font-semibold ${ticked ? "line-through decoration-1" : ""}`}>
                      {(f.count ?? 1) > 1 && `${f.count} × `}
                      <bdi>{l?.title}</bdi>
                    </b>
                    {l?.do !== "stay" && (
                      <span className="inline-flex items-center gap-1 rounded-r-full border border-accent bg-base-200 px-2 text-sm tabular-nums">
                        <Tag className="size-3.5" aria-hidden="true" />
                        {l?.labels}
                      </span>
                    )}
                    <span className="text-secondary text-sm">
                      {[back ? "" : nameOf(v.doings, l?.do), f.where].filter(Boolean).join("; ")}
                    </span>
                  </span>
                  <span className="block text-secondary text-sm">
                    {f.note || [l?.clean, back ? "" : l?.store].filter(Boolean).join(" ")}
                  </span>
                  {l?.holes && (
                    <span
                      data-drills={l.drills ? "" : undefined}
                      className={`block text-sm ${l.drills ? "font-medium text-warning" : "text-secondary"}`}
                    >
                      {l.holes}
                    </span>
                  )}
                </button>
              </div>
              {open === n && (
                <Editor
                  f={f}
                  zones={piece.zones ?? []}
                  first={n === 0}
                  last={n === list.length - 1}
                  onChange={(part) => change(n, part)}
                  onMove={(by) => {
                    put(moved(list, n, by));
                    setOpen(n + by);
                  }}
                  onRemove={() => {
                    put(list.filter((_, i) => i !== n));
                    setOpen(undefined);
                  }}
                />
              )}
            </li>
          );
        })}
      </ol>
      {!back && (
        <div className="mt-3 flex flex-wrap gap-1.5">
          <span className="self-center text-secondary text-sm">Add</span>
          {v.fittings.map((k) => (
            <button
              data-fitting-kind={k.id}
              key={k.id}
              type="button"
              className="btn border-base-300 bg-base-100 font-normal"
              onClick={() => {
                add([{ kind: k.id }]);
                setOpen(list.length);
              }}
            >
              {k.name}
            </button>
          ))}
        </div>
      )}
      {overview.mending.says.length > 0 && list.some((_, i) => overview.fittings[i]?.drills) && (
        <p className="mt-3 text-secondary text-sm">
          The old holes are included in the damage: {overview.mending.says[0]}
        </p>
      )}
    </div>
  );
}

type EditorProps = {
  f: Fitting;
  zones: Zone[];
  first: boolean;
  last: boolean;
  onChange: (part: Partial<Fitting>) => void;
  onMove: (by: number) => void;
  onRemove: () => void;
};

function Editor({ f, zones, first, last, onChange, onMove, onRemove }: EditorProps) {
  const v = useVocab();
  const kind = v.fittings.find((k) => k.id === f.kind);
  return (
    <div className="border-base-300 border-t px-3 pt-2 pb-1">
      <div className="grid gap-x-3 sm:grid-cols-[1fr_6rem_10rem]">
        <TextField
          label="Where it was"
          of="fitting.where"
          value={f.where ?? ""}
          hint="Printed on its label"
          onChange={(where) => onChange({ where: where || undefined })}
        />
        <NumberField
          label="How many"
          of="fitting.count"
          value={f.count ?? 1}
          required
          onChange={(count) => onChange({ count })}
        />
        <Choice
          label="Treatment"
          name="fitting.do"
          words={v.doings}
          value={f.do ?? kind?.do}
          onChange={(id) => onChange({ do: id as Fitting["do"] })}
        />
      </div>
      <div className="grid gap-x-3 sm:grid-cols-2">
        {kind?.holes && (
          <>
            <SizeField
              label="Old holes, centre to centre"
              of="fitting.holes_mm"
              value={f.holes_mm}
              hint="0 for a single hole"
              onChange={(holes_mm) => onChange({ holes_mm })}
            />
            <SizeField
              label="New hardware needs"
              of="fitting.new_holes_mm"
              value={f.new_holes_mm}
              hint="Empty: the old hardware goes back"
              onChange={(new_holes_mm) => onChange({ new_holes_mm })}
            />
          </>
        )}
        {zones.length > 1 && (
          <Choice
            label="On the zone"
            name="fitting.zone"
            words={zones.map((z) => ({ id: z.id, name: zoneTitle(z) }))}
            value={f.zone}
            none="any"
            onChange={(id) => onChange({ zone: id || undefined })}
          />
        )}
        <TextField
          label="Name"
          of="fitting.name"
          value={f.name ?? ""}
          onChange={(name) => onChange({ name: name || undefined })}
        />
        <TextField
          label="Cleaning and storage"
          of="fitting.note"
          value={f.note ?? ""}
          hint="Empty: the usual way, as above"
          onChange={(note) => onChange({ note: note || undefined })}
        />
      </div>
      <Order
        first={first}
        last={last}
        says={["Move up", "Move down", "Remove it"]}
        onMove={onMove}
        onRemove={onRemove}
      />
    </div>
  );
}
