import { acting } from "~/kit/form/in-words.server";
import { panelActs } from "~/kit/form/panel-acts.server";
import { guardedAction } from "~/kit/form/guarded-action";
import { workAct } from "./work.act.server";
import type { Route } from "./+types/correct.route";
import { CorrectDesk } from "./correct.desk";

export const action = acting(panelActs(workAct));

export const clientAction = ({ serverAction }: Route.ClientActionArgs) => guardedAction(serverAction);
export default function Correct() {
  return <CorrectDesk />;
}
