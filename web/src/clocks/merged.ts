import type { Schemas } from "../api/client";
import type { ClockDoing } from "../offline/kept";

type Clock = Schemas["Clock"];

/** withDoing is clocks as they are with what waits; at is the moment that their times are of. */
export function withDoing(clocks: Clock[], at: number, waits: readonly ClockDoing[]): Clock[] {
  let out = clocks;
  for (const x of waits) {
    if (x.do === "stop") out = out.filter((c) => c.id !== x.id);
    else if (x.do === "silence") out = out.map((c) => (c.id === x.id ? { ...c, silent: true } : c));
    else if (x.do === "start" && !out.some((c) => c.id === x.id)) {
      const left = x.seconds - (Date.now() - x.at - (performance.now() - at)) / 1000;
      const { kind, for: what, piece_id, piece, zone, zone_id, card } = x.clock;
      out = [
        ...out,
        {
          ...{
            id: x.id,
            kind,
            for: what,
            piece_id,
            piece,
            zone,
            zone_id,
            card,
            name: x.name,
            rings: "It has run out.",
          },
          ...{
            left_s: left,
            total_s: x.seconds,
            state: "runs",
            touches: [],
            said: x.refused
              ? `It runs on this device alone: ${x.refused}`
              : "Runs on this device until the computer answers.",
          },
        },
      ];
    }
  }
  return out === clocks ? clocks : out.sort((a, b) => a.left_s - b.left_s);
}
