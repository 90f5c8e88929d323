import { useMemo } from "react";
import type { Look, Piece } from "../api/client";
import { Elevation } from "./Elevation";

type Props = { piece: Piece; look: Look | undefined; zone: string; width: number; height: number };

/** ZonePlace shows where on the piece a zone is; nothing where it has no parts. */
export function ZonePlace({ piece, look, zone, width, height }: Props) {
  const parts = piece.parts;
  const own = useMemo(() => (parts ?? []).flatMap((p, i) => (p.zone === zone ? [i] : [])), [parts, zone]);
  if (!look || !own.length) return null;
  return <Elevation look={look} piece={piece} width={width} height={height} chosen={own} />;
}
