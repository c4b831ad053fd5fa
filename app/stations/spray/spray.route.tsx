import { acting } from "~/kit/form/in-words.server";
import { panelActs } from "~/kit/form/panel-acts.server";
import { guardedAction } from "~/kit/form/guarded-action";
import { readingAction } from "~/kit/readings/reading-action.server";
import type { Route } from "./+types/spray.route";
import { sprayAct } from "./spray.act.server";
import { SprayDesk } from "./spray.desk";

export const action = acting(panelActs(readingAction, sprayAct));

export const clientAction = ({ serverAction }: Route.ClientActionArgs) => guardedAction(serverAction);
export default function Spray() {
  return <SprayDesk />;
}
