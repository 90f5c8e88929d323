import { useCallback, useEffect, useRef, useState } from "react";
import { flushSync } from "react-dom";
import { answer, api, type Piece, RETRY, Refused } from "../api/client";
import { type Draft, holdOpen, readDraft, writeDraft } from "./drafts";
import {
  type History,
  NO_HISTORY,
  readHistory,
  same,
  stepBack,
  stepForth,
  withChange,
  writeHistory,
  written,
} from "./history";
import { checkSoon } from "./useCheck";

/** SaveState is what the page may truthfully say of the piece on the screen. */
export type SaveState =
  | { is: "saved" }
  | { is: "saving" }
  | { is: "waiting"; why: string; kept: boolean } // sent again by itself; kept tells whether this browser has a copy
  | { is: "conflict"; changes: string[] }
  | { is: "gone" }; // removed elsewhere

const PAUSE = 400; // ms of quiet before a save
const PATIENCE = 16; // ms that a change waits to be drawn with its verdict
const LOOK = 4000; // ms between two looks at what others have saved

/** The tabs of one browser tell each other when a piece was saved. */
const tabs = typeof BroadcastChannel === "undefined" ? undefined : new BroadcastChannel("rutile");

/**
 * usePiece holds a piece while it is worked on. Every change is kept in the browser at once and sent to the server
 * after a moment's quiet; what the server has not taken is sent again, and nothing is overwritten that another tab
 * has changed.
 */
export function usePiece(id: number) {
  const [piece, setPiece] = useState<Piece>();
  const [missing, setMissing] = useState<string>();
  const [save, setSave] = useState<SaveState>({ is: "saved" });
  const [history, setHistory] = useState<History>(NO_HISTORY);

  const current = useRef<Piece>(undefined);
  const past = useRef<History>(NO_HISTORY);
  const rev = useRef(0);
  const created = useRef("");
  const dirty = useRef(false);
  const kept = useRef(true);
  const halted = useRef(false); // by a conflict, until the painter settles it
  const sending = useRef(false);
  const timer = useRef<ReturnType<typeof setTimeout>>(undefined);
  const held = useRef<() => void>(undefined); // a change that waits for its verdict

  const remember = useCallback(
    (h: History) => {
      past.current = h;
      setHistory(h);
      if (current.current) writeHistory(id, h, current.current);
    },
    [id],
  );

  const halt = useCallback((changes: string[]) => {
    halted.current = true;
    setSave({ is: "conflict", changes });
  }, []);

  const send = useCallback(async () => {
    if (sending.current || halted.current || !dirty.current || !current.current) return;
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
      tabs?.postMessage({ id, rev: s.rev });
      if (current.current === sent) {
        dirty.current = false;
        writeDraft(id, undefined);
        setSave({ is: "saved" });
      } else {
        kept.current = writeDraft(id, { rev: rev.current, created: created.current, piece: current.current });
        again = PAUSE;
      }
    } catch (e) {
      if (e instanceof Refused && e.status === 409) {
        halt((e.problem.errors ?? []).map((x) => x.message ?? ""));
      } else if (e instanceof Refused && e.status === 404) {
        halted.current = true;
        setSave({ is: "gone" });
      } else {
        const why = e instanceof Refused ? e.message : "the server does not answer";
        setSave({ is: "waiting", why, kept: kept.current });
        again = RETRY;
      }
    }
    sending.current = false;
    if (again) {
      clearTimeout(timer.current);
      timer.current = setTimeout(send, again);
    }
  }, [id, halt]);

  const put = useCallback(
    (next: Piece) => {
      void checkSoon(next);
      current.current = next;
      dirty.current = true;
      setPiece(next);
      kept.current = writeDraft(id, { rev: rev.current, created: created.current, piece: next });
      if (halted.current) return;
      setSave((s) => (s.is === "waiting" ? { ...s, kept: kept.current } : { is: "saving" }));
      clearTimeout(timer.current);
      timer.current = setTimeout(send, PAUSE);
    },
    [id, send],
  );

  /** take shows what the server has. */
  const take = useCallback(
    (s: Draft) => {
      rev.current = s.rev;
      created.current = s.created;
      current.current = s.piece;
      dirty.current = false;
      halted.current = false;
      writeDraft(id, undefined);
      setPiece(s.piece);
      setSave({ is: "saved" });
    },
    [id],
  );

  const load = useCallback(async () => {
    try {
      const s = await answer(api.GET("/api/pieces/{id}", { params: { path: { id } } }));
      const draft = readDraft(id);
      setMissing(undefined);
      created.current = s.created;
      // Another piece may have had this number before: of another folder of data, or of yesterday's demo.
      if (draft && draft.created === s.created) {
        // What this browser kept is worked on; if another tab has saved since, the server says so and the painter
        // decides.
        current.current = draft.rev === s.rev ? s.piece : draft.piece;
        rev.current = draft.rev;
        put(draft.piece);
        if (draft.rev !== s.rev) void send();
      } else {
        take(s);
      }
      const h = readHistory(id, current.current);
      past.current = h;
      setHistory(h);
    } catch (e) {
      setMissing(e instanceof Refused ? e.message : "The server does not answer. Start it again and reload.");
    }
  }, [id, put, send, take]);

  /** look asks whether another tab has saved, and says what. */
  const look = useCallback(async () => {
    if (halted.current || sending.current || !rev.current) return;
    const mine = rev.current;
    try {
      const s = await answer(api.GET("/api/pieces/{id}/since/{rev}", { params: { path: { id, rev: mine } } }));
      if (s.rev === mine || rev.current !== mine || halted.current) return;
      if (written(s.piece) === written(current.current)) rev.current = s.rev;
      else halt(s.changes);
    } catch {
      // The next save will tell.
    }
  }, [id, halt]);

  useEffect(() => {
    void load();
    const close = holdOpen(id);
    const onLeave = (e: BeforeUnloadEvent) => {
      if (dirty.current && !kept.current) e.preventDefault();
    };
    window.addEventListener("beforeunload", onLeave);
    const onOnline = () => void send();
    const onSeen = () => document.visibilityState === "visible" && void look();
    const onTab = (e: MessageEvent<{ id: number; rev: number }>) => {
      if (e.data.id === id && e.data.rev !== rev.current) void look();
    };
    window.addEventListener("online", onOnline);
    document.addEventListener("visibilitychange", onSeen);
    tabs?.addEventListener("message", onTab);
    // Another browser tells nobody.
    const poll = setInterval(look, LOOK);
    return () => {
      clearTimeout(timer.current);
      clearInterval(poll);
      window.removeEventListener("beforeunload", onLeave);
      window.removeEventListener("online", onOnline);
      document.removeEventListener("visibilitychange", onSeen);
      tabs?.removeEventListener("message", onTab);
      if (dirty.current) void send().finally(close);
      else close();
    };
  }, [id, load, look, send]);

  const change = useCallback(
    (next: Piece) => {
      const before = current.current;
      if (!before || same(before, next)) return;
      put(next);
      remember(withChange(past.current, before, next));
    },
    [put, remember],
  );

  /**
   * changeSoon is a change that is drawn together with its verdict, once: it is held for the few milliseconds in which
   * the verdict usually comes, and never while the next press is answered. then is drawn with it.
   */
  const changeSoon = useCallback(
    (next: Piece, then: () => void) =>
      new Promise<void>((done) => {
        const go = () => {
          if (held.current !== go) return;
          held.current = undefined;
          flushSync(() => {
            change(next);
            then();
          });
          done();
        };
        held.current?.();
        held.current = go;
        checkSoon(next).then(go, go);
        setTimeout(go, PATIENCE);
      }),
    [change],
  );

  useEffect(() => {
    const now = () => held.current?.();
    const hands = ["keydown", "pointerdown", "pagehide"] as const;
    for (const h of hands) window.addEventListener(h, now, { capture: true });
    return () => {
      queueMicrotask(now);
      for (const h of hands) window.removeEventListener(h, now, { capture: true });
    };
  }, []);

  const undo = useCallback(() => {
    const now = current.current;
    const back = now && stepBack(past.current, now);
    if (!back) return;
    put(back.piece);
    remember(back.history);
  }, [put, remember]);

  const redo = useCallback(() => {
    const now = current.current;
    const forth = now && stepForth(past.current, now);
    if (!forth) return;
    put(forth.piece);
    remember(forth.history);
  }, [put, remember]);

  /**
   * rehearse draws the piece once more while nobody waits for it: the browser then knows the way, and the first press
   * is answered as soon as the later ones.
   */
  const rehearse = useCallback(() => {
    const now = current.current;
    if (!now || dirty.current) return;
    current.current = structuredClone(now);
    setPiece(current.current);
  }, []);

  /** settle answers a conflict: keep this tab's version, or take the other; the one not kept can be undone to. */
  const settle = useCallback(
    async (keep: boolean) => {
      try {
        const s = await answer(api.GET("/api/pieces/{id}", { params: { path: { id } } }));
        const mine = current.current;
        if (!mine) return;
        if (keep) {
          halted.current = false;
          rev.current = s.rev;
          put(mine);
          remember(withChange(past.current, s.piece, mine));
          return;
        }
        take(s);
        remember(withChange(past.current, mine, s.piece));
      } catch (e) {
        setSave({
          is: "conflict",
          changes: [e instanceof Refused ? e.message : "The server does not answer now; press again in a moment."],
        });
      }
    },
    [id, put, remember, take],
  );

  /** again saves a piece that was removed elsewhere as a new one, and gives its id. */
  const again = useCallback(async () => {
    const mine = current.current;
    if (!mine) return undefined;
    try {
      const s = await answer(api.POST("/api/pieces", { body: mine }));
      writeDraft(id, undefined);
      dirty.current = false;
      return s.id;
    } catch {
      return undefined;
    }
  }, [id]);

  const latest = useCallback(() => current.current, []);
  const made = useCallback(() => created.current, []);

  return {
    piece,
    missing,
    save,
    change,
    changeSoon,
    latest,
    made,
    settle,
    again,
    rehearse,
    undo: history.past.length ? undo : undefined,
    redo: history.future.length ? redo : undefined,
  };
}
