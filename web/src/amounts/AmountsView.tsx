import { useWorkspace } from "../piece/workspace";
import { useName } from "../ui/focus";
import { Amounts } from "./Amounts";
import { Coats } from "./Coats";

/** AmountsView is the colour of a zone coat by coat, and what its plan takes. */
export default function AmountsView() {
  const { piece, zone, go } = useWorkspace();
  const focus = useName<HTMLElement>("field can");
  return (
    <section
      ref={focus}
      tabIndex={-1}
      data-field="can"
      aria-label="Colour and amounts"
      className="min-h-0 flex-1 overflow-y-auto px-3 py-4 outline-none sm:px-5"
    >
      {zone.steps?.length ? (
        <div className="mx-auto grid max-w-7xl gap-x-8 gap-y-6 xl:grid-cols-2">
          <Coats piece={piece} zone={zone} />
          <Amounts piece={piece} zone={zone} />
        </div>
      ) : (
        <>
          <p className="mb-3">
            There is no plan yet. With one, you see here coat by coat what it looks like and what it takes.
          </p>
          <button type="button" className="btn btn-primary" onClick={() => go("plan")}>
            Plan the coats
          </button>
        </>
      )}
    </section>
  );
}
