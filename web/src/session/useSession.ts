import { useQueryClient } from "@tanstack/react-query";
import { createContext, useContext, useEffect, useState, useSyncExternalStore } from "react";
import { flushSync } from "react-dom";
import { askCheck } from "../piece/useCheck";
import { OpenPiece } from "./open";
import type { Session } from "./session";
import { keyOf, type Place, type Typed } from "./typed";

/** useSession opens a piece while a screen shows it. */
export function useSession(id: number): [Session, OpenPiece] {
  const queries = useQueryClient();
  const [open] = useState(
    () => new OpenPiece(id, { queries, changed: (p) => askCheck(queries, p), draw: (f) => flushSync(f) }),
  );
  useEffect(() => open.start(), [open]);
  return [useSyncExternalStore(open.listen, open.shown), open];
}

export const OpenContext = createContext<OpenPiece | undefined>(undefined);

/** useOpen is the surrounding open piece. */
export function useOpen(): OpenPiece {
  const open = useContext(OpenContext);
  if (!open) throw new Error("no piece is open here");
  return open;
}

/** useTypedSize is the text typed in a place, while it counts. */
export function useTypedSize(at: Place, stands: string | undefined): Typed | undefined {
  const open = useOpen();
  const t = useSyncExternalStore(open.listen, () => open.shown().typed[keyOf(at)]);
  return t && t.stands === stands ? t : undefined;
}
