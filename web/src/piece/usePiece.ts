import { useCallback, useEffect, useRef, useState } from "react";
import { answer, api, type Piece, Refused } from "../api/client";

/** SaveState is what the page may truthfully say of the piece on the screen. */
export type SaveState =
  | { is: "saved" }
  | { is: "saving" }
  | { is: "waiting"; why: string } // kept in this browser, sent again by itself
  | { is: "conflict"; changes: string[] };

type Draft = { rev: number; piece: Piece };

const draftKey = (id: number) => `rutile.draft.${id}`;

function readDraft(id: number): Draft | undefined {
  try {
    const text = localStorage.getItem(draftKey(id));
    return text ? (JSON.parse(text) as Draft) : undefined;
  } catch {
    return undefined;
  }
}

function writeDraft(id: number, draft: Draft | undefined) {
  try {
    if (draft) localStorage.setItem(draftKey(id), JSON.stringify(draft));
    else localStorage.removeItem(draftKey(id));
  } catch {
    // A browser without storage still saves to the server.
  }
}

const PAUSE = 400; // ms of quiet before a save
const RETRY = 3000; // ms before a failed save is sent again
const HISTORY = 100;

/**
 * usePiece holds a piece while it is worked on. Every change is kept in the browser at once and sent to the server
 * after a moment's quiet; what the server has not taken is sent again, and nothing is overwritten that another tab
 * has changed.
 */
export function usePiece(id: number) {
  const [piece, setPiece] = useState<Piece>();
  const [missing, setMissing] = useState<string>();
  const [save, setSave] = useState<SaveState>({ is: "saved" });
  const [past, setPast] = useState<Piece[]>([]);
  const [future, setFuture] = useState<Piece[]>([]);

  const current = useRef<Piece>(undefined);
  const rev = useRef(0);
  const dirty = useRef(false);
  const sending = useRef(false);
  const timer = useRef<ReturnType<typeof setTimeout>>(undefined);

  const send = useCallback(async () => {
    if (sending.current || !dirty.current || !current.current) return;
    sending.current = true;
    const sent = current.current;
    setSave({ is: "saving" });
    let again = 0;
    try {
      const s = await answer(
        api.PUT("/api/pieces/{id}", {
          params: { path: { id }, header: { "If-Match": `"${rev.current}"` } },
          body: sent,
        }),
      );
      rev.current = s.rev;
      if (current.current === sent) {
        dirty.current = false;
        writeDraft(id, undefined);
        setSave({ is: "saved" });
      } else {
        writeDraft(id, { rev: rev.current, piece: current.current });
        again = PAUSE;
      }
    } catch (e) {
      if (e instanceof Refused && e.status === 409) {
        setSave({ is: "conflict", changes: (e.problem.errors ?? []).map((x) => x.message ?? "") });
      } else {
        const why = e instanceof Refused ? e.message : "the server does not answer";
        setSave({ is: "waiting", why });
        again = RETRY;
      }
    }
    sending.current = false;
    if (again) {
      clearTimeout(timer.current);
      timer.current = setTimeout(send, again);
    }
  }, [id]);

  const put = useCallback(
    (next: Piece) => {
      current.current = next;
      dirty.current = true;
      setPiece(next);
      writeDraft(id, { rev: rev.current, piece: next });
      setSave((s) => (s.is === "conflict" ? s : { is: "saving" }));
      clearTimeout(timer.current);
      timer.current = setTimeout(send, PAUSE);
    },
    [id, send],
  );

  const load = useCallback(
    async (useDraft: boolean) => {
      try {
        const s = await answer(api.GET("/api/pieces/{id}", { params: { path: { id } } }));
        const draft = useDraft ? readDraft(id) : undefined;
        rev.current = s.rev;
        setMissing(undefined);
        if (draft && draft.rev === s.rev) {
          current.current = s.piece;
          put(draft.piece);
          return;
        }
        if (draft) {
          // Another tab has saved since; the painter decides.
          current.current = draft.piece;
          dirty.current = true;
          rev.current = draft.rev;
          setPiece(draft.piece);
          setSave({ is: "saving" });
          void send();
          return;
        }
        current.current = s.piece;
        dirty.current = false;
        writeDraft(id, undefined);
        setPiece(s.piece);
        setSave({ is: "saved" });
      } catch (e) {
        setMissing(e instanceof Refused ? e.message : "The server does not answer. Start it again and reload.");
      }
    },
    [id, put, send],
  );

  useEffect(() => {
    void load(true);
    const onOnline = () => void send();
    window.addEventListener("online", onOnline);
    return () => {
      clearTimeout(timer.current);
      window.removeEventListener("online", onOnline);
      if (dirty.current) void send();
    };
  }, [load, send]);

  const change = useCallback(
    (next: Piece) => {
      const before = current.current;
      if (!before) return;
      setPast((p) => [...p.slice(-HISTORY), before]);
      setFuture([]);
      put(next);
    },
    [put],
  );

  const undo = useCallback(() => {
    const before = past.at(-1);
    const now = current.current;
    if (!before || !now) return;
    setPast(past.slice(0, -1));
    setFuture((f) => [now, ...f]);
    put(before);
  }, [past, put]);

  const redo = useCallback(() => {
    const [next, ...rest] = future;
    const now = current.current;
    if (!next || !now) return;
    setFuture(rest);
    setPast((p) => [...p, now]);
    put(next);
  }, [future, put]);

  /** settle answers a conflict: keep this tab's version, or take the other. */
  const settle = useCallback(
    async (keep: boolean) => {
      if (!keep) {
        writeDraft(id, undefined);
        const mine = current.current;
        if (mine) setPast((p) => [...p, mine]);
        await load(false);
        return;
      }
      try {
        const s = await answer(api.GET("/api/pieces/{id}", { params: { path: { id } } }));
        rev.current = s.rev;
        dirty.current = true;
        await send();
      } catch {
        setSave({ is: "waiting", why: "the server does not answer" });
      }
    },
    [id, load, send],
  );

  return {
    piece,
    missing,
    save,
    change,
    settle,
    undo: past.length ? undo : undefined,
    redo: future.length ? redo : undefined,
  };
}
