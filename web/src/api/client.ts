import createClient from "openapi-fetch";
import { answered } from "./reach";
import type { components, paths } from "./schema.gen";

export type Schemas = components["schemas"];
export type Piece = Schemas["Piece"];
export type Zone = Schemas["Zone"];
export type Step = Schemas["Step"];
export type CheckResult = Schemas["CheckResult"];
export type ZoneResult = Schemas["ZoneResult"];
export type Finding = Schemas["Finding"];
export type Repair = Schemas["Repair"];
export type Vocab = Schemas["Vocab"];
export type Saved = Schemas["Saved"];
export type Overview = Schemas["Overview"];
export type ZoneOverview = Schemas["ZoneOverview"];
export type Part = Schemas["Part"];
export type Fitting = Schemas["Fitting"];
export type Photo = Schemas["Photo"];
export type Defect = Schemas["Defect"];
export type Identification = Schemas["Identification"];
export type TestWord = Schemas["TestWord"];
export type Patch = Schemas["Patch"];
export type Can = Schemas["Can"];
export type ShelfCan = Schemas["ShelfCan"];
export type Verdict = ZoneResult["verdict"];

export const api = createClient<paths>({ baseUrl: "" });
api.use({ onResponse: ({ response }) => answered(response) });

let openPiece: number | undefined;

/** setOpenPiece tells which piece is open, so that cans reserved for it count. */
export const setOpenPiece = (id: number | undefined) => {
  openPiece = id;
};

/** ofOpen is the number of the open piece, for questions about it. */
export const ofOpen = () => (openPiece ? { of: openPiece } : {});

/** Problem is what the server says when it refuses. */
export type Problem = { status?: number; detail?: string; errors?: { message?: string; location?: string }[] | null };

/** Refused is an error answer of the server. */
export class Refused extends Error {
  constructor(
    readonly status: number,
    readonly problem: Problem,
  ) {
    super(problem.detail ?? "The server refused the request.");
  }
}

/** answer unwraps a response, or throws a Refused; a lost connection throws as fetch does. */
export async function answer<T>(
  call: Promise<{ data?: T; error?: unknown; response: Response }>,
): Promise<NonNullable<T>> {
  const { data, error, response } = await call;
  if (!response.ok || data === undefined || data === null) {
    throw new Refused(response.status, (error ?? {}) as Problem);
  }
  return data;
}

const GONE = 404;

/** removed unwraps the answer to a removal; what was not there any more is removed, too, unless it must have been. */
export async function removed(call: Promise<{ error?: unknown; response: Response }>, must = false): Promise<void> {
  const { error, response } = await call;
  if (!response.ok && (must || response.status !== GONE)) {
    throw new Refused(response.status, (error ?? {}) as Problem);
  }
}

/** RETRY is the wait before an unanswered request is repeated, in milliseconds. */
export const RETRY = 3000;

const BUSY = 503;

/** again tells that a request is worth repeating: the server did not answer, or is busy. */
export const again = (e: unknown) => !(e instanceof Refused) || e.status === BUSY;

/** TYPING is the pause in typing before a request that follows it, in milliseconds. */
export const TYPING = 150;

/** why is the reason that something failed: the server's, or the given one if it does not answer. */
export const why = (e: unknown, away = "the server does not answer.") => (e instanceof Refused ? e.message : away);
