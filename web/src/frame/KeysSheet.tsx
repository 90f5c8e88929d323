import { Check } from "../ui/Choice";
import { Dialog } from "../ui/Dialog";
import { KeyCap, setLetters, useLetters, useShortcuts } from "./keys";

/** KeysSheet lists the shortcuts of this screen. */
export default function KeysSheet({ onClose }: { onClose: () => void }) {
  const groups = useShortcuts();
  const letters = useLetters();
  return (
    <Dialog title="Keyboard shortcuts" wide onClose={onClose}>
      <div className="grid gap-x-8 gap-y-4 sm:grid-cols-2">
        {groups
          .filter((g) => g.keys.length > 0)
          .map((g) => (
            <section key={g.title}>
              <h3 className="mb-1 font-semibold">{g.title}</h3>
              <dl className="grid grid-cols-[auto_1fr] items-center gap-x-3 gap-y-1">
                {g.keys.map((k) => (
                  <div key={k.key} className="col-span-2 grid grid-cols-subgrid items-center">
                    <dt>
                      <KeyCap of={k.key} />
                    </dt>
                    <dd>{k.says}</dd>
                  </div>
                ))}
              </dl>
            </section>
          ))}
        <section>
          <h3 className="mb-1 font-semibold">Everywhere</h3>
          <p>
            <KeyCap of="Tab" /> next, <KeyCap of="Shift+Tab" /> previous, <KeyCap of="Enter" /> press,{" "}
            <KeyCap of="Escape" /> close.
          </p>
        </section>
      </div>
      <div className="mt-4 border-base-300 border-t pt-2">
        <Check label="Single letters work as shortcuts" on={letters} onChange={setLetters} />
        <p className="text-secondary text-sm">Turn this off if you use voice input or press keys by accident.</p>
      </div>
    </Dialog>
  );
}
