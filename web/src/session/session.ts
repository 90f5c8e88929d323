import type { Piece } from "../api/client";
import { branched, type History, NO_HISTORY, same, stepBack, stepForth, withChange, written } from "./history";
import { keyOf, type Place, spelled, type Typed, withSpelled } from "./typed";

// The open piece as a state machine: next takes a session and an event, and returns the next session with what to do
// outside. It reads no clock, no server and no storage. docs/session.md has the picture.

/** Saved is a piece as the server stores it. */
export type Saved = { id: number; rev: number; created: string; piece: Piece };

/**
 * Draft is what the browser stores of a piece until the server has acknowledged it: the piece, the revision it is
 * based on, and what was sent without an answer, serialized: the server may have it all the same.
 */
export type Draft = { rev: number; created: string; piece: Piece; sent?: string[] };

/** State is how the piece on the screen compares with the server's. */
export type State =
  | { is: "loading" }
  | { is: "missing"; why: string; silent: boolean } // nothing to show; silent while the server may still answer
  | { is: "saved" }
  | { is: "edited" } // sent after a short pause
  | { is: "saving"; sent: Piece; why?: string } // why the last try failed
  | { is: "unsent"; why: string } // the server did not answer; sent again automatically
  | { is: "refused"; why: string } // the server refuses it; sent again once it is changed
  | { is: "checking" } // another revision is there: is it one of ours?
  | { is: "conflict"; changes: string[]; settling?: "keep" | "take"; trouble?: string } // the painter chooses
  | { is: "gone"; trouble?: string } // removed elsewhere
  | { is: "over"; to?: number }; // removed here, or restored as another piece

export type Session = {
  readonly id: number;
  readonly state: State;
  readonly created: string; // when the piece was created: another may have had its number before
  readonly rev: number; // the revision that the screen is based on
  readonly piece: Piece | undefined; // on the screen
  readonly history: History;
  readonly typed: Readonly<Record<string, Typed>>; // sizes, by their places
  readonly sent: readonly string[]; // without an answer, serialized
};

export type Event =
  | { type: "loaded"; saved: Saved; left?: Draft; history?: History; typed?: Typed[] }
  | { type: "not loaded"; why: string; status?: number; left?: Draft }
  | { type: "edited"; piece: Piece; at: number }
  | { type: "undone" }
  | { type: "redone" }
  | { type: "quiet" } // the pause before a save is over, or that before the next try
  | { type: "stored"; rev: number } // the save is done
  | { type: "not stored"; why: string; status?: number; changes?: string[] } // no status: no answer
  | { type: "tick" } // time to check for changes by others
  | { type: "told"; rev: number } // another tab has saved
  | { type: "seen"; since: number; saved: Saved; changes: string[] } // what the check has found
  | { type: "not seen"; since: number; status?: number }
  | { type: "settle"; keep: boolean } // the painter has chosen
  | { type: "fetched"; saved: Saved }
  | { type: "not fetched"; why: string; status?: number }
  | { type: "put back" }
  | { type: "added"; id: number }
  | { type: "not added"; why: string }
  | { type: "removed" }
  | { type: "typed"; place: Place; text: string; before: string | undefined }
  | { type: "emptied"; place: Place; at: number }
  | { type: "read"; key: string; text: string; value: string | undefined; at: number }
  | { type: "not read"; key: string; text: string; why?: string; at: number } // no why: no answer
  | { type: "ask again"; key: string };

export type Command =
  | { do: "load" }
  | { do: "save"; piece: Piece; rev: number }
  | { do: "look"; rev: number }
  | { do: "fetch" }
  | { do: "add"; piece: Piece }
  | { do: "wait"; ms: number } // then quiet; a wait before it is dropped
  | { do: "tell"; rev: number } // the other tabs
  | { do: "keep draft"; draft: Draft }
  | { do: "forget draft" }
  | { do: "keep history"; history: History; piece: Piece }
  | { do: "read"; key: string; typed: Typed } // have a size read
  | { do: "ask again"; key: string } // after a while
  | { do: "keep typed"; typed: Typed[] };

export type Next = readonly [Session, readonly Command[]];

export const PAUSE = 400; // ms of pause before a save
export const RETRY = 3000; // ms before the next try
export const AWAY = "the server does not answer";
const SENT = 8; // unanswered saves that are remembered

export function begin(id: number): Next {
  const s: Session = {
    id,
    state: { is: "loading" },
    created: "",
    rev: 0,
    piece: undefined,
    history: NO_HISTORY,
    typed: {},
    sent: [],
  };
  return [s, [{ do: "load" }]];
}

/** unsaved tells whether the screen has what the server has not acknowledged. */
export function unsaved(s: Session): boolean {
  const is = s.state.is;
  return !!s.piece && is !== "saved" && is !== "over" && is !== "loading" && is !== "missing";
}

const draftOf = (s: Session): Command[] =>
  s.piece
    ? [
        {
          do: "keep draft",
          draft: { rev: s.rev, created: s.created, piece: s.piece, ...(s.sent.length && { sent: [...s.sent] }) },
        },
      ]
    : [];

const again = (ms: number): Command => ({ do: "wait", ms });

/** shown puts a piece on the screen that differs from the server's. */
function shown(s: Session, piece: Piece, history: History): Next {
  const now = { ...s, piece, history };
  const commands: Command[] = [...draftOf(now), { do: "keep history", history, piece }];
  switch (s.state.is) {
    case "saved":
    case "refused":
      return [{ ...now, state: { is: "edited" } }, [...commands, again(PAUSE)]];
    case "edited":
    case "unsent":
      return [now, [...commands, again(PAUSE)]];
    default:
      return [now, commands];
  }
}

function change(s: Session, piece: Piece, at: number): Next {
  if (!s.piece || s.state.is === "over" || same(s.piece, piece)) return [s, []];
  return shown(s, piece, withChange(s.history, s.piece, piece, at));
}

/** taken has the screen show what the server has. */
function taken(s: Session, saved: Saved, history: History): Next {
  return [
    { ...s, state: { is: "saved" }, rev: saved.rev, created: saved.created, piece: saved.piece, history, sent: [] },
    [{ do: "forget draft" }, { do: "keep history", history, piece: saved.piece }],
  ];
}

function loaded(s: Session, e: Extract<Event, { type: "loaded" }>): Next {
  if (s.state.is !== "loading" && s.state.is !== "missing" && s.state.is !== "saved") return [s, []];
  const { saved, left } = e;
  const history = e.history ?? (s.piece ? s.history : NO_HISTORY);
  const typed = Object.fromEntries((e.typed ?? []).map((t) => [keyOf(t.place), t]));
  const at: Session = { ...s, typed: { ...s.typed, ...typed }, created: saved.created };
  const reads: Command[] = (e.typed ?? [])
    .filter((t) => t.is !== "refused")
    .map((t) => ({ do: "read", key: keyOf(t.place), typed: t }));
  // Another piece may have had this number before: of another data folder, or of yesterday's demo.
  if (!left || left.created !== saved.created) {
    const [now, commands] = taken(at, saved, history);
    return [now, [...commands.slice(1), ...reads]]; // the draft of another piece stays
  }
  if (written(left.piece) === written(saved.piece)) {
    const [now, commands] = taken(at, saved, history);
    return [now, [...commands, ...reads]];
  }
  const kept: Session = {
    ...at,
    rev: left.rev,
    piece: left.piece,
    sent: left.sent ?? [],
    history: e.history ?? branched(s.history, saved.piece),
  };
  if (left.rev === saved.rev) return [{ ...kept, state: { is: "edited" } }, [...draftOf(kept), again(PAUSE), ...reads]];
  return [{ ...kept, state: { is: "checking" } }, [...draftOf(kept), { do: "look", rev: left.rev }, ...reads]];
}

function notStored(s: Session, e: Extract<Event, { type: "not stored" }>): Next {
  if (s.state.is !== "saving") return [s, []];
  const { status } = e;
  if (status === 409) return [{ ...s, state: { is: "checking" } }, [{ do: "look", rev: s.rev }]];
  if (status === 404 || status === 410) return [{ ...s, state: { is: "gone" } }, draftOf(s)];
  const passing = status === undefined || status >= 500 || [408, 412, 425, 429].includes(status);
  if (!passing) {
    // What was changed during the save may be saved already.
    if (s.piece !== s.state.sent) return [{ ...s, state: { is: "edited" } }, [again(PAUSE)]];
    return [{ ...s, state: { is: "refused", why: e.why } }, []];
  }
  const sent = [...s.sent, written(s.state.sent)].slice(-SENT);
  const now: Session = { ...s, state: { is: "unsent", why: e.why }, sent };
  return [now, [...draftOf(now), again(RETRY)]];
}

const looks = (s: Session) => ["saved", "edited", "unsent", "refused"].includes(s.state.is);

function seen(s: Session, e: Extract<Event, { type: "seen" }>): Next {
  if (e.since !== s.rev || !(looks(s) || s.state.is === "checking")) return [s, []];
  if (e.saved.rev === s.rev) {
    if (s.state.is !== "checking") return [s, []];
    return [{ ...s, state: { is: "edited" } }, [again(PAUSE)]];
  }
  const there = written(e.saved.piece);
  if (there === written(s.piece)) {
    return [{ ...s, state: { is: "saved" }, rev: e.saved.rev, sent: [] }, [{ do: "forget draft" }]];
  }
  if (s.sent.includes(there)) {
    const now: Session = { ...s, state: { is: "edited" }, rev: e.saved.rev, sent: [] };
    return [now, [...draftOf(now), again(0)]];
  }
  return [{ ...s, state: { is: "conflict", changes: e.changes } }, []];
}

function fetched(s: Session, e: Extract<Event, { type: "fetched" }>): Next {
  if (s.state.is !== "conflict" || !s.state.settling || !s.piece) return [s, []];
  if (s.state.settling === "take") return taken(s, e.saved, branched(s.history, s.piece));
  const history = branched(s.history, e.saved.piece);
  const now: Session = { ...s, state: { is: "edited" }, rev: e.saved.rev, sent: [], history };
  return [now, [...draftOf(now), { do: "keep history", history, piece: s.piece }, again(0)]];
}

/** withTyped stores what was typed; what has been read stays only in the session. */
function withTyped(s: Session, typed: Session["typed"], ...more: Command[]): Next {
  const waiting = Object.values(typed).filter((t) => t.is !== "read");
  return [{ ...s, typed }, [{ do: "keep typed", typed: waiting }, ...more]];
}

const without = (typed: Session["typed"], key: string) =>
  Object.fromEntries(Object.entries(typed).filter(([k]) => k !== key));

/** put replaces typed text by its value, unless something else was entered in the meantime. */
function put(s: Session, key: string, t: Typed, value: string | undefined, after: Typed, at: number): Next {
  if (!s.piece || spelled(s.piece, t.place) !== t.stands) return withTyped(s, without(s.typed, key));
  const [now, commands] = change(s, withSpelled(s.piece, t.place, value), at);
  const [typed, keep] = withTyped(now, { ...now.typed, [key]: after });
  return [typed, [...commands, ...keep]];
}

/** next is the session after an event, and what to do. An event that does not apply changes nothing. */
export function next(s: Session, e: Event): Next {
  const { state } = s;
  switch (e.type) {
    case "loaded":
      return loaded(s, e);
    case "not loaded":
      if (state.is !== "loading" && state.is !== "missing") return [s, []];
      if ((e.status === 404 || e.status === 410) && e.left) {
        const { rev, created, piece, sent = [] } = e.left;
        return [{ ...s, state: { is: "gone" }, rev, created, piece, sent }, []];
      }
      return [{ ...s, state: { is: "missing", why: e.why, silent: e.status === undefined } }, []];
    case "edited":
      return change(s, e.piece, e.at);
    case "undone":
    case "redone": {
      const there = s.piece && (e.type === "undone" ? stepBack : stepForth)(s.history, s.piece);
      return there && state.is !== "over" ? shown(s, there.piece, there.history) : [s, []];
    }
    case "quiet":
      if ((state.is !== "edited" && state.is !== "unsent") || !s.piece) return [s, []];
      return [
        { ...s, state: { is: "saving", sent: s.piece, why: state.is === "unsent" ? state.why : undefined } },
        [{ do: "save", piece: s.piece, rev: s.rev }],
      ];
    case "stored": {
      if (state.is !== "saving") return [s, []];
      const now: Session = { ...s, rev: e.rev, sent: [] };
      const tell: Command = { do: "tell", rev: e.rev };
      if (s.piece === state.sent) return [{ ...now, state: { is: "saved" } }, [{ do: "forget draft" }, tell]];
      return [{ ...now, state: { is: "edited" } }, [...draftOf(now), tell, again(PAUSE)]];
    }
    case "not stored":
      return notStored(s, e);
    case "tick":
      if (state.is === "missing" && state.silent) return [s, [{ do: "load" }]];
      return [s, looks(s) ? [{ do: "look", rev: s.rev }] : []];
    case "told":
      return [s, looks(s) && e.rev !== s.rev ? [{ do: "look", rev: s.rev }] : []];
    case "seen":
      return seen(s, e);
    case "not seen":
      if (e.since !== s.rev) return [s, []];
      if (e.status === 404 && (looks(s) || state.is === "checking")) {
        return [{ ...s, state: { is: "gone" } }, draftOf(s)];
      }
      if (state.is !== "checking") return [s, []];
      return [{ ...s, state: { is: "unsent", why: AWAY } }, [again(RETRY)]];
    case "settle":
      if (state.is !== "conflict" || state.settling) return [s, []];
      return [
        { ...s, state: { is: "conflict", changes: state.changes, settling: e.keep ? "keep" : "take" } },
        [{ do: "fetch" }],
      ];
    case "fetched":
      return fetched(s, e);
    case "not fetched":
      if (state.is !== "conflict") return [s, []];
      if (e.status === 404) return [{ ...s, state: { is: "gone" } }, []];
      return [{ ...s, state: { is: "conflict", changes: state.changes, trouble: e.why } }, []];
    case "put back":
      return [s, state.is === "gone" && s.piece ? [{ do: "add", piece: s.piece }] : []];
    case "added":
      if (state.is !== "gone") return [s, []];
      return [{ ...s, state: { is: "over", to: e.id } }, [{ do: "forget draft" }]];
    case "not added":
      return state.is === "gone" ? [{ ...s, state: { is: "gone", trouble: e.why } }, []] : [s, []];
    case "removed":
      return [{ ...s, state: { is: "over" } }, [{ do: "forget draft" }]];
    case "typed": {
      if (!s.piece) return [s, []];
      const t: Typed = {
        place: e.place,
        text: e.text,
        stands: spelled(s.piece, e.place),
        before: e.before,
        is: "asked",
      };
      const key = keyOf(e.place);
      return withTyped(s, { ...s.typed, [key]: t }, { do: "read", key, typed: t });
    }
    case "emptied": {
      if (!s.piece) return [s, []];
      const [now, commands] = change(s, withSpelled(s.piece, e.place, undefined), e.at);
      const [typed, keep] = withTyped(now, without(now.typed, keyOf(e.place)));
      return [typed, [...commands, ...keep]];
    }
    case "read":
    case "not read": {
      const t = s.typed[e.key];
      if (!t || t.text !== e.text || t.is === "read" || t.is === "refused") return [s, []];
      if (e.type === "read") {
        return put(s, e.key, t, e.value, { ...t, stands: e.value, is: "read", says: undefined }, e.at);
      }
      if (e.why === undefined) {
        return withTyped(s, { ...s.typed, [e.key]: { ...t, is: "away" } }, { do: "ask again", key: e.key });
      }
      // The field then does not have the value of half-typed text.
      return put(s, e.key, t, t.before, { ...t, stands: t.before, is: "refused", says: e.why }, e.at);
    }
    case "ask again": {
      const t = s.typed[e.key];
      return [s, t && (t.is === "away" || t.is === "asked") ? [{ do: "read", key: e.key, typed: t }] : []];
    }
  }
}
