import { type StageView, useWorkspace } from "../piece/workspace";
import { remember } from "../shelf/carry";
import { useKept } from "./useWays";
import { WaysView } from "./WaysView";

function Main() {
  const { piece, zone, change, choose, say, go, toField } = useWorkspace();
  const [kept, keep] = useKept();
  return (
    <WaysView
      piece={piece}
      zone={zone}
      kept={kept}
      onKept={keep}
      onTake={(w) => {
        remember(w.cans ?? []);
        void change({ ...zone, steps: w.steps, way: w.way }, () => {
          choose(undefined);
          say(`Plan “${w.name}” is now in use. You can undo this.`);
          go("plan");
        });
      }}
      onBack={() => go("plan")}
      onField={toField}
    />
  );
}

export const ways: StageView = {
  id: "compare",
  name: "Compare plans",
  of: "plan",
  key: "w",
  says: "Compare plans side by side",
  Main,
  whole: true,
};
