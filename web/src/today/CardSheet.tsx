import { useQueryClient } from "@tanstack/react-query";
import { lazy, type ReactNode, Suspense, useEffect, useState } from "react";
import { VOCAB } from "../api/vocab";
import { SHELF } from "../shelf/useShelf";
import type { Log } from "../work/useLog";
import type { Item } from "./useToday";

// Opened now and then: the first load is without it.
const loadSheet = () => import("../work/OtherwiseSheet");
const OtherwiseSheet = lazy(loadSheet);
const SOON = 400; // ms after the first drawing

/** Asked is what a card opens its sheet for: its step was done otherwise, or something is only noted. */
export type Asked = { x: Item; what: "otherwise" | "note" };

/**
 * useCardSheet is the sheet of a card, and what opens it. The page has it, and not the card: the card moves or goes when
 * an answer comes, and what was typed stays.
 */
export function useCardSheet(log: Log): [sheet: ReactNode, open: (of: Asked) => void] {
  const queries = useQueryClient();
  const [of, open] = useState<Asked>();
  useEffect(() => {
    // Fetched before it is opened: the server may be out of reach by then.
    const soon = setTimeout(() => {
      void loadSheet();
      void queries.prefetchQuery(VOCAB);
      void queries.prefetchQuery(SHELF());
    }, SOON);
    return () => clearTimeout(soon);
  }, [queries]);
  const sheet = of && (
    <Suspense>
      <OtherwiseSheet
        about={aboutOf(of.x)}
        zone={of.x.zone_id}
        due={of.what === "note" ? undefined : of.x.due}
        log={log}
        onClose={() => open(undefined)}
      />
    </Suspense>
  );
  return [sheet, open];
}

/** aboutOf is the piece that a card is about, as it is logged. */
export const aboutOf = (x: Item) => ({ piece: x.piece_id, created: x.created, of: `${x.piece}, ${x.zone}` });
