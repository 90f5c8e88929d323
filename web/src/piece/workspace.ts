import { type ComponentType, createContext, type ReactNode, useContext } from "react";
import type { Overview, Piece, Repair, Schemas, Step, Zone, ZoneResult } from "../api/client";

/** FieldName is a field that an answer of the server may ask for. */
export type FieldName = NonNullable<Repair["field"]>;

/** Workspace is the open zone with what is said of it, and what can be done there: what the views of the stages work with. */
export type Workspace = {
  id: number; // of the piece
  piece: Piece;
  zone: Zone;
  judged: ZoneResult | undefined; // as it stands
  seen: ZoneResult | undefined; // as a repair that is looked at would have it, or as it stands
  trial: Repair | undefined; // the repair that is looked at
  overview: Overview | undefined;
  current: boolean; // it is judged as it stands
  stale: boolean; // judged before the last change, and nobody says when it will be judged again
  silent: boolean; // and the server does not answer
  fresh: boolean; // the zone was just added
  removal: ReactNode; // what removes the whole piece

  step: number | undefined; // that is chosen, from 1
  picking: number | undefined; // after how many steps one is being added
  choose: (step: number | undefined) => void;
  pick: (at: number | undefined) => void;

  change: (z: Zone, then?: () => void) => Promise<void>; // drawn with its verdict, and then with it
  changePiece: (p: Piece) => void;
  say: (what: string) => void; // under the verdict
  go: (view: string) => void;
  toField: (f: FieldName) => void;
  toPhotos: (point?: string) => void; // point is the label of damage that is to be pointed at
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

/** StageView is what a stage of the work, or a side of one, brings to the page. */
export type StageView = {
  id: string; // in the address, and as the server names it
  name: string;
  of?: string; // the view of the stage that it is a side of
  key?: string; // on the keyboard
  says?: string; // what the key does, where that is not its name
  Main: ComponentType;
  whole?: boolean; // it has the screen to itself: neither the verdict nor findings beside it
  Around?: ComponentType<{ children: ReactNode }>; // what its parts share
  Aside?: ComponentType; // stands in the place of the findings
  Above?: ComponentType; // the findings
  Below?: ComponentType;
};

export type Stage = Schemas["Stage"];
