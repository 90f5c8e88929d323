import { answer, api, Refused } from "../api/client";
import { alone, forget, keptDrafts } from "./keep";

/** Unsent is a piece with a draft that the server does not have; gone if the piece was removed. */
export type Unsent = { id: number; name: string; gone?: boolean };

/**
 * sendUnsent sends drafts of pieces that are open in no tab. A draft of a piece that was changed elsewhere stays: the
 * painter is asked when the piece is opened. It returns what is still unsent, and whether anything was sent.
 */
export async function sendUnsent(): Promise<{ sent: boolean; behind: Unsent[] }> {
  let sent = false;
  const behind: Unsent[] = [];
  for (const l of keptDrafts()) {
    const here: Unsent = { id: l.id, name: l.draft.piece.name ?? "" };
    const path = { id: l.id };
    const send = async () => {
      const now = await answer(api.GET("/api/pieces/{id}", { params: { path } }));
      if (now.created !== l.draft.created) return; // of another data folder: it waits for that
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
