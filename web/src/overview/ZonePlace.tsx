import { useMemo } from "react";
import type { Overview, Piece } from "../api/client";
import { Elevation } from "./Elevation";

type Props = { piece: Piece; overview: Overview | undefined; zone: string; width: number; height: number };

/** ZonePlace shows where on the piece a zone is; nothing if it has no parts. */
export function ZonePlace({ piece, overview, zone, width, height }: Props) {
  const parts = piece.parts;
  const own = useMemo(() => (parts ?? []).flatMap((p, i) => (p.zone === zone ? [i] : [])), [parts, zone]);
  if (!overview || !own.length) return null;
  return <Elevation overview={overview} piece={piece} width={width} height={height} chosen={own} />;
}
