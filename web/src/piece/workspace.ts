import { type ComponentType, createContext, type ReactNode, useContext } from "react";
import type { Overview, Piece, Repair, Schemas, Step, Zone, ZoneResult } from "../api/client";

/** FieldName is a field that an answer of the server may ask for. */
export type FieldName = NonNullable<Repair["field"]>;

/** Workspace is the open zone with its results and actions: what the views of the stages work with. */
export type Workspace = {
  id: number; // of the piece
  piece: Piece;
  zone: Zone;
  judged: ZoneResult | undefined; // as it is
  seen: ZoneResult | undefined; // with the previewed fix, or as it is
  trial: Repair | undefined; // the previewed fix
  overview: Overview | undefined;
  current: boolean; // it is up to date
  stale: boolean; // from before the last change, and not being updated
  silent: boolean; // and the server does not answer
  fresh: boolean; // the zone was just added
  removal: ReactNode; // removes the whole piece

  step: number | undefined; // the selected one, from 1
  picking: number | undefined; // after which step one is being added
  choose: (step: number | undefined) => void;
  pick: (at: number | undefined) => void;

  change: (z: Zone, then?: () => void) => Promise<void>; // drawn with its verdict, and then with it
  changePiece: (p: Piece) => void;
  say: (what: string) => void; // under the verdict
  go: (view: string) => void;
  toField: (f: FieldName) => void;
  toPhotos: (point?: string) => void; // point is the label of the damage to point at
  apply: (r: Repair) => void;
  steps: (s: Step[], then?: () => void) => Promise<void>; // changes the plan
  remove: () => void; // the zone
};

export const WorkspaceContext = createContext<Workspace | undefined>(undefined);

export function useWorkspace(): Workspace {
  const workspace = useContext(WorkspaceContext);
  if (!workspace) throw new Error("no zone is open here");
  return workspace;
}

/** StageView is what a stage of the work, or another view of it, brings to the page. */
export type StageView = {
  id: string; // in the address, and as the server names it
  name: string;
  of?: string; // the view of the stage that it belongs to
  key?: string; // on the keyboard
  says?: string; // the shortcut's description, if it is not the name
  Main: ComponentType;
  whole?: boolean; // it has the screen to itself: no verdict and no findings
  Around?: ComponentType<{ children: ReactNode }>; // what its parts share
  Aside?: ComponentType; // in place of the findings
  Above?: ComponentType; // the findings
  Below?: ComponentType;
};

export type Stage = Schemas["Stage"];
