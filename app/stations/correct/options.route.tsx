import { Link } from "react-router";
import { serverContext } from "#server/running";
import { optionSetting } from "#server/views/options-view";
import { later, useLater } from "~/kit/root/later";
import { OptionsWaiting } from "./options-waiting";
import { CorrectTabs } from "./tabs";
import { panelOr404 } from "~/kit/http/panel.server";
import type { Route } from "./+types/options.route";
import { usePanel } from "~/kit/panel/use-panel";

export async function loader({ params: { jobId, panelId } }: Route.LoaderArgs) {
  const ctx = await serverContext();
  const view = await panelOr404(ctx, jobId, panelId);
  return optionSetting(ctx, view);
}

/** With the models its question is asked by: nothing of it stands before they are here. */
const optionsDesk = later(() => import("./options.desk"));

export default function OptionsPage({ loaderData }: Route.ComponentProps) {
  const { base, view } = usePanel();
  const read = view.state.film.mean !== null;
  const desk = useLater(optionsDesk, read, true);
  return (
    <>
      <CorrectTabs base={base} />
      {read ? (
        desk ? (
          <desk.OptionsDesk {...loaderData} />
        ) : (
          <OptionsWaiting />
        )
      ) : (
        <section className="max-w-[60ch] space-y-4">
          <h2 className="text-[25px] leading-[1.12] sm:text-[31px] font-semibold tracking-tight">
            Nothing is read after clear yet, so nothing can be weighed.
          </h2>
          <Link to={`${base}/inspect`} className="press" data-kind="main">
            Read the film
          </Link>
        </section>
      )}
    </>
  );
}
