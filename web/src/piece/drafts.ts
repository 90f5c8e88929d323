import { answer, api, type Piece, Refused } from "../api/client";

/** Draft is what this browser keeps of a piece until the server has taken it. */
export type Draft = { rev: number; created: string; piece: Piece };

const PREFIX = "rutile.draft.";

export function readDraft(id: number): Draft | undefined {
  try {
    const text = localStorage.getItem(PREFIX + id);
    return text ? (JSON.parse(text) as Draft) : undefined;
  } catch {
    return undefined;
  }
}

/** writeDraft keeps a draft, or forgets it; false where this browser keeps nothing. */
export function writeDraft(id: number, draft: Draft | undefined): boolean {
  try {
    if (draft) localStorage.setItem(PREFIX + id, JSON.stringify(draft));
    else localStorage.removeItem(PREFIX + id);
    return true;
  } catch {
    return false;
  }
}

/** keptDrafts are the numbers of the pieces that this browser keeps something of. */
export function keptDrafts(): number[] {
  try {
    return Object.keys(localStorage)
      .filter((k) => k.startsWith(PREFIX))
      .map((k) => Number(k.slice(PREFIX.length)));
  } catch {
    return [];
  }
}

const openLock = (id: number) => `rutile.open.${id}`;

/** holdOpen tells the other tabs that a piece is open here, so that its draft is this tab's to send; it returns the end. */
export function holdOpen(id: number): () => void {
  let end = () => {};
  const until = new Promise<void>((done) => {
    end = done;
  });
  void navigator.locks?.request(openLock(id), { mode: "shared" }, () => until);
  return end;
}

/**
 * sendKept sends what was left behind while the server was away, of pieces that are open nowhere. What another has
 * changed meanwhile stays kept: the painter is asked when the piece is opened. It tells whether anything was sent.
 */
export async function sendKept(): Promise<boolean> {
  let sent = false;
  for (const id of keptDrafts()) {
    const send = async () => {
      const draft = readDraft(id);
      if (!draft) return;
      const now = await answer(api.GET("/api/pieces/{id}", { params: { path: { id } } }));
      if (now.created !== draft.created) {
        writeDraft(id, undefined); // of a piece that is no more
        return;
      }
      await answer(
        api.PUT("/api/pieces/{id}", {
          params: { path: { id }, header: { "If-Match": `"${draft.rev}"` } },
          body: draft.piece,
        }),
      );
      writeDraft(id, undefined);
      sent = true;
    };
    try {
      await navigator.locks?.request(openLock(id), { ifAvailable: true }, (lock) => (lock ? send() : undefined));
    } catch (e) {
      if (!(e instanceof Refused)) return sent; // the server is away: later
    }
  }
  return sent;
}
