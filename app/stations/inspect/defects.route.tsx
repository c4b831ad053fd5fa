import { acting } from "~/kit/form/in-words.server";
import { DefectsDesk } from "./defects.desk";
import { panelActs } from "~/kit/form/panel-acts.server";
import { guardedAction } from "~/kit/form/guarded-action";
import { InspectTabs } from "./tabs";
import type { Route } from "./+types/defects.route";
import { usePanel } from "~/kit/panel/use-panel";
import { marksAct } from "./marks.act.server";

export const action = acting(panelActs(marksAct));

export const clientAction = ({ serverAction }: Route.ClientActionArgs) => guardedAction(serverAction);

export default function DefectsPage() {
  const { base } = usePanel();
  return (
    <>
      <InspectTabs base={base} />
      <DefectsDesk />
    </>
  );
}
