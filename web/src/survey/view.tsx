import { ZonePlace } from "../overview/ZonePlace";
import { type StageView, useWorkspace } from "../piece/workspace";
import { SmallCut } from "../section/SmallCut";
import { useStable } from "../ui/stable";
import { Survey } from "./Survey";

/** Glance is beside the survey, so that what is entered is seen at once. */
function Glance() {
  const { piece, overview, zone, seen, go } = useWorkspace();
  const toPlan = useStable(() => go("plan"));
  return (
    <>
      <div className="mb-3 grid place-items-center">
        <ZonePlace piece={piece} overview={overview} zone={zone.id} width={340} height={170} />
      </div>
      {seen?.section && <SmallCut section={seen.section} onChoose={toPlan} />}
    </>
  );
}

export const survey: StageView = { id: "survey", name: "Survey", key: "1", Main: Survey, Above: Glance };
