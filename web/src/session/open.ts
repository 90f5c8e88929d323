import type { QueryClient } from "@tanstack/react-query";
import { answer, api, type Piece, Refused, TYPING, why } from "../api/client";
import { whenReleased } from "../ui/press";
import {
  adopted,
  forgetDraft,
  keepDraft,
  keepHistory,
  keepTyped,
  keptHistory,
  keptTyped,
  leftOf,
  tabName,
} from "./keep";
import { merged } from "./merged";
import { AWAY, begin, type Command, type Event, next, RETRY, type Saved, type Session, unsaved } from "./session";
import { sizesOf, spelledArea, spelledSizes, type Typed } from "./typed";

const LOOK = 4000; // ms between two checks for changes by others
const PATIENCE = 100; // ms that a change waits to be drawn with its verdict

/** The tabs of one browser tell each other when a piece was saved. */
const tabs = typeof BroadcastChannel === "undefined" ? undefined : new BroadcastChannel("rutile");

const status = (e: unknown) => (e instanceof Refused ? e.status : undefined);
const says = (e: unknown) => why(e, AWAY);

/** Around is what an open piece needs from outside. */
type Around = {
  queries: QueryClient;
  changed: (p: Piece) => Promise<unknown>; // has a changed piece judged
  draw: (f: () => void) => void; // draws at once
};

/**
 * OpenPiece runs a session: it carries out its commands, with the server, the browser's storage and the other tabs,
 * and reports the results as events.
 */
export class OpenPiece {
  private now: Session;
  private drawn: Session;
  private tab = "";
  private listeners = new Set<() => void>();
  private atOnce = new Set<() => void>(); // of callers that do not wait for the drawing
  private pause: ReturnType<typeof setTimeout> | undefined;
  private reads = new Map<string, ReturnType<typeof setTimeout>>();
  private held: (() => void) | undefined; // a change that waits to be drawn
  private started = false;

  /** kept tells whether this browser has a copy of what is not saved. */
  kept = true;

  constructor(
    private readonly id: number,
    private readonly around: Around,
  ) {
    [this.now] = begin(id);
    this.drawn = this.now;
  }

  listen = (f: () => void) => {
    this.listeners.add(f);
    return () => void this.listeners.delete(f);
  };

  listenAtOnce = (f: () => void) => {
    this.atOnce.add(f);
    return () => void this.atOnce.delete(f);
  };

  /** shown is the session as it is drawn; latest may be a few milliseconds ahead. */
  shown = () => this.drawn;
  latest = () => this.now;

  /** start opens the piece; what it returns closes it. */
  start = () => {
    this.started = true;
    const ends = new AbortController();
    const { signal } = ends;
    window.addEventListener(
      "beforeunload",
      (e) => {
        if (unsaved(this.now) && !this.kept) e.preventDefault();
      },
      { signal },
    );
    window.addEventListener("online", () => this.dispatch({ type: "quiet" }), { signal });
    const look = () => this.dispatch({ type: "tick" });
    document.addEventListener("visibilitychange", () => document.visibilityState === "visible" && look(), { signal });
    const told = (e: MessageEvent<{ id: number; rev: number }>) => {
      if (e.data.id === this.id) this.dispatch({ type: "told", rev: e.data.rev });
    };
    tabs?.addEventListener("message", told as EventListener, { signal });
    // Another browser reports nothing.
    const poll = setInterval(look, LOOK);
    // The next action finds the change drawn. A press finds it at its end, when its target is decided; for a finger
    // that is with the mouse events that follow it.
    for (const h of ["keydown", "mouseup", "beforeinput", "paste", "drop", "pagehide"]) {
      window.addEventListener(h, this.draw, { capture: true, signal });
    }
    const lifted = (e: PointerEvent) => e.pointerType !== "touch" && this.draw();
    window.addEventListener("pointerup", lifted, { capture: true, signal });
    if (this.now.state.is === "loading") for (const c of begin(this.id)[1]) this.run(c);
    return () => {
      ends.abort();
      clearInterval(poll);
      this.started = false;
      queueMicrotask(this.draw);
      // Typed sizes are read and changes are sent without waiting for the drawing.
      for (const key of this.reads.keys()) this.read(key);
      this.dispatch({ type: "quiet" });
    };
  };

  dispatch = (e: Event) => {
    const before = this.now;
    const [now, commands] = next(before, e);
    this.now = now;
    if (now.piece && now.piece !== before.piece && before.piece) void this.around.changed(now.piece);
    for (const c of commands) this.run(c);
    for (const f of this.atOnce) f();
    if (now !== before) whenReleased(() => this.held || this.tell());
  };

  /**
   * edit is a change that is drawn together with its verdict, once: it waits the few milliseconds in which the
   * verdict usually arrives, no longer than is noticeable, and never beyond the next press. then is drawn with it.
   * Storing and sending do not wait.
   */
  edit = (piece: Piece, then?: () => void): Promise<void> => {
    // An edit is based on what is drawn, and not on what waits to be drawn.
    const next = this.held ? merged(this.drawn.piece, this.now.piece, piece) : piece;
    return this.soon({ type: "edited", piece: next, at: Date.now() }, then);
  };

  undo = () => void this.soon({ type: "undone" });
  redo = () => void this.soon({ type: "redone" });

  private soon(e: Event, then?: () => void): Promise<void> {
    this.draw();
    return new Promise((done) => {
      const go = () => {
        if (this.held !== go) return;
        this.held = undefined;
        this.around.draw(() => {
          this.tell();
          then?.();
        });
        done();
      };
      this.held = go;
      const before = this.now.piece;
      this.dispatch(e);
      const { piece } = this.now;
      if (!piece || piece === before) go();
      else {
        const shown = () => whenReleased(go);
        this.around.changed(piece).then(shown, shown);
        setTimeout(shown, PATIENCE);
      }
    });
  }

  /**
   * rehearse draws the piece once more while nobody waits for it: the browser has then compiled the code, and the
   * first click is as fast as later ones.
   */
  rehearse = () => {
    if (this.now.state.is !== "saved" || this.held) return;
    this.now = { ...this.now, piece: structuredClone(this.now.piece) };
    this.tell();
  };

  private draw = () => this.held?.();

  private tell() {
    this.drawn = this.now;
    for (const f of this.listeners) f();
  }

  private ask<T>(key: unknown[], ask: (signal: AbortSignal) => Promise<T>): Promise<T> {
    const options = { queryKey: key, staleTime: 0, gcTime: 0, retry: false };
    return this.around.queries.fetchQuery({ ...options, queryFn: ({ signal }) => ask(signal) });
  }

  private fetch(): Promise<Saved> {
    const { id } = this;
    return this.ask(["piece", id], (signal) =>
      answer(api.GET("/api/pieces/{id}", { params: { path: { id } }, signal })),
    );
  }

  private async load() {
    this.tab = await tabName();
    const { id } = this;
    try {
      const saved = await this.fetch();
      const left = await adopted(id, saved.created);
      const history = await keptHistory(id, left?.piece ?? saved.piece);
      this.dispatch({ type: "loaded", saved, left, history, typed: keptTyped(id, saved.created) });
    } catch (e) {
      const left = status(e) === 404 ? await adopted(id) : undefined;
      this.dispatch({ type: "not loaded", why: says(e), status: status(e), left });
    }
  }

  private run(c: Command) {
    const { id } = this;
    const path = { id };
    switch (c.do) {
      case "load":
        void this.load();
        return;
      case "save":
        answer(
          api.PUT("/api/pieces/{id}", { params: { path, header: { "If-Match": `"${c.rev}"` } }, body: c.piece }),
        ).then(
          (s) => this.dispatch({ type: "stored", rev: s.rev }),
          (e) => {
            const changes = e instanceof Refused ? (e.problem.errors ?? []).map((x) => x.message ?? "") : [];
            this.dispatch({ type: "not stored", why: says(e), status: status(e), changes });
          },
        );
        return;
      case "look":
        this.ask(["since", id, c.rev], (signal) =>
          answer(api.GET("/api/pieces/{id}/since/{rev}", { params: { path: { id, rev: c.rev } }, signal })),
        ).then(
          ({ changes, ...saved }) => this.dispatch({ type: "seen", since: c.rev, saved, changes }),
          (e) => this.dispatch({ type: "not seen", since: c.rev, status: status(e) }),
        );
        return;
      case "fetch":
        this.fetch().then(
          (saved) => this.dispatch({ type: "fetched", saved }),
          (e) => this.dispatch({ type: "not fetched", why: says(e), status: status(e) }),
        );
        return;
      case "add":
        answer(api.POST("/api/pieces", { body: c.piece })).then(
          (s) => this.dispatch({ type: "added", id: s.id }),
          (e) => this.dispatch({ type: "not added", why: says(e) }),
        );
        return;
      case "wait":
        clearTimeout(this.pause);
        // Once it is closed, what the server does not accept stays a draft.
        if (this.started) this.pause = setTimeout(() => this.dispatch({ type: "quiet" }), c.ms);
        else if (this.now.state.is === "edited") queueMicrotask(() => this.dispatch({ type: "quiet" }));
        return;
      case "tell":
        tabs?.postMessage({ id, rev: c.rev });
        // A closed tab may have left something, too.
        if (this.started) void this.adopt();
        return;
      case "keep draft":
        this.kept = keepDraft(id, this.tab, c.draft);
        return;
      case "forget draft":
        forgetDraft(id, this.tab, this.now.created);
        return;
      case "keep history":
        keepHistory(id, this.tab, c.history, c.piece);
        return;
      case "keep typed":
        keepTyped(id, this.now.created, c.typed);
        return;
      case "read":
        clearTimeout(this.reads.get(c.key));
        if (this.started)
          this.reads.set(
            c.key,
            setTimeout(() => this.read(c.key), TYPING),
          );
        else this.read(c.key);
        return;
      case "ask again":
        if (this.started) setTimeout(() => this.dispatch({ type: "ask again", key: c.key }), RETRY);
    }
  }

  /** adopt uses what a closed tab has left of a piece that is saved here. */
  private async adopt() {
    const { created } = this.now;
    if (!leftOf(this.id, created).some((l) => l.tab !== this.tab)) return;
    const saved = await this.fetch().catch(() => undefined);
    const free = () => this.now.state.is === "saved" && this.now.rev === saved?.rev;
    if (saved && free())
      await adopted(this.id, created, free, (left) => this.dispatch({ type: "loaded", saved, left }));
  }

  private read(key: string) {
    const t = this.now.typed[key];
    this.reads.delete(key);
    if (!t) return;
    const text = t.text;
    void this.around.queries.cancelQueries({ queryKey: ["size", key] });
    this.ask(["size", key, text], (signal) => readSize(t, signal)).then(
      (value) => this.dispatch({ type: "read", key, text, value, at: Date.now() }),
      (e) => {
        if (this.now.typed[key]?.text !== text) return; // cancelled for what was typed after it
        const why = e instanceof Refused ? e.message : undefined;
        this.dispatch({ type: "not read", key, text, why, at: Date.now() });
      },
    );
  }
}

/** readSize has the server read what was typed; sizes that are left out stay as they were. */
function readSize({ place, text, before }: Typed, signal: AbortSignal): Promise<string | undefined> {
  if ("zone" in place) {
    return answer(api.GET("/api/area", { params: { query: { text } }, signal })).then((a) => spelledArea(a.area_m2));
  }
  const { thick_cm, girth_cm, member_cm } = before ? sizesOf(before) : {};
  const query = { kind: place.kind, text, thick_cm, girth_cm, member_cm };
  return answer(api.GET("/api/sizes", { params: { query }, signal })).then(spelledSizes);
}
