import { answer, api, Refused } from "../api/client";
import { alone, forget, keptDrafts } from "./keep";

/** Unsent is a piece of which this browser keeps something that the server has not: gone where it is no more there. */
export type Unsent = { id: number; name: string; gone?: boolean };

/**
 * sendUnsent sends what was left behind while the server was away, of pieces that are open nowhere. What another has
 * changed meanwhile stays kept: the painter is asked when the piece is opened. It says what is kept still, and whether
 * anything was sent.
 */
export async function sendUnsent(): Promise<{ sent: boolean; behind: Unsent[] }> {
  let sent = false;
  const behind: Unsent[] = [];
  for (const l of keptDrafts()) {
    const here: Unsent = { id: l.id, name: l.draft.piece.name ?? "" };
    const path = { id: l.id };
    const send = async () => {
      const now = await answer(api.GET("/api/pieces/{id}", { params: { path } }));
      if (now.created !== l.draft.created) return; // of another folder of data: it waits for that
      const header = { "If-Match": `"${l.draft.rev}"` };
      await answer(api.PUT("/api/pieces/{id}", { params: { path, header }, body: l.draft.piece }));
      forget(l);
      sent = true;
    };
    try {
      await alone(l.tab, send);
    } catch (e) {
      behind.push(e instanceof Refused && e.status === 404 ? { ...here, gone: true } : here);
    }
  }
  return { sent, behind };
}
