import { type StageView, useWorkspace } from "../piece/workspace";
import { Amounts } from "./Amounts";
import { Coats } from "./Coats";

function Main() {
  const { piece, zone, go } = useWorkspace();
  if (!zone.steps?.length) {
    return (
      <div className="p-6">
        <p className="mb-3">
          There is no plan yet. With one, you see here coat by coat what it looks like and what it takes.
        </p>
        <button type="button" className="btn btn-primary" onClick={() => go("plan")}>
          Plan the coats
        </button>
      </div>
    );
  }
  return (
    <div className="min-h-0 flex-1 overflow-y-auto px-3 py-4 sm:px-5">
      <div className="mx-auto grid max-w-7xl gap-x-8 gap-y-6 xl:grid-cols-2">
        <Coats piece={piece} zone={zone} />
        <Amounts piece={piece} zone={zone} />
      </div>
    </div>
  );
}

export const mix: StageView = {
  id: "mix",
  name: "Colour and amounts",
  of: "plan",
  key: "m",
  says: "Colour coat by coat, and how much paint",
  Main,
  whole: true,
};
