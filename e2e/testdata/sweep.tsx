// The view of a made-up stage, as somebody would write it in a folder of its own.
import { useState } from "react";
import { type StageView, useWorkspace } from "../../web/src/piece/workspace";
import { VIEWS as OWN } from "../../web/src/views";

function Sweep() {
  const { zone, change, toField } = useWorkspace();
  const [burst, setBurst] = useState(false);
  if (burst) throw new Error("stopped on purpose");
  const n = zone.steps?.length ?? 0;
  return (
    <div data-swept={n}>
      <button type="button" data-do="sweep" onClick={() => void change({ ...zone, name: "Swept" })}>
        Sweep
      </button>
      <button type="button" data-do="soils" onClick={() => toField("soils")}>
        What lies on it
      </button>
      <button type="button" data-do="burst" onClick={() => setBurst(true)}>
        Sweep harder
      </button>
    </div>
  );
}

const sweep: StageView = { id: "sweep", name: "Sweep", key: "9", Main: Sweep };

export const VIEWS = [...OWN, sweep];
export const viewOf = (id: string | undefined) => VIEWS.find((v) => v.id === id);
