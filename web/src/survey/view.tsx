import { ZonePlace } from "../look/ZonePlace";
import { type StageView, useDesk } from "../piece/desk";
import { SmallCut } from "../section/SmallCut";
import { useSteady } from "../ui/steady";
import { Survey } from "./Survey";

/** Glance stands beside the survey, so that what is entered is seen at once. */
function Glance() {
  const { piece, look, zone, seen, go } = useDesk();
  const toPlan = useSteady(() => go("plan"));
  return (
    <>
      <div className="mb-3 grid place-items-center">
        <ZonePlace piece={piece} look={look} zone={zone.id} width={340} height={170} />
      </div>
      {seen?.section && <SmallCut section={seen.section} onChoose={toPlan} />}
    </>
  );
}

export const lookOver: StageView = { id: "look-over", name: "Survey", key: "1", Main: Survey, Above: Glance };
