import { acting } from "~/kit/form/in-words.server";
import { DEFECT_KINDS } from "#core/models/defects/kinds";
import { Link } from "react-router";
import { answerQuestion, settleCause } from "#server/commands/causes";
import { serverContext } from "#server/running";
import { loadCauses } from "#server/views/causes-view";
import { CausesDesk } from "./causes.desk";
import { answerForm } from "~/kit/form/answer";
import { causeAnswerForm, causeWordForm, defectKindOf } from "./causes.form";
import { guardedAction } from "~/kit/form/guarded-action";
import { readPrefs } from "~/kit/http/prefs.server";
import { CorrectTabs } from "./tabs";
import { panelOr404 } from "~/kit/http/panel.server";
import { formOf } from "~/kit/http/body.server";
import type { Route } from "./+types/causes.route";
import { usePanel } from "~/kit/panel/use-panel";

export async function loader({ request, params: { jobId, panelId } }: Route.LoaderArgs) {
  const ctx = await serverContext();
  const view = await panelOr404(ctx, jobId, panelId);
  const asked = defectKindOf(new URL(request.url).searchParams.get("kind"));
  const kind = asked ?? view.state.defects.at(-1)?.body.kind ?? null;
  return { causes: kind && (await loadCauses(ctx, view, kind)) };
}

export const action = acting(async ({ request, params: { jobId, panelId } }: Route.ActionArgs) => {
  const ctx = await serverContext();
  const view = await panelOr404(ctx, jobId, panelId);
  const { by } = await readPrefs(request);
  const form = await formOf(request);
  if (form.get("intent") === "word")
    return answerForm(form, causeWordForm, async (word) => ({
      entryId: await settleCause(ctx, view, { ...word, by }),
      message: "Kept as the cause; it counts for the shop",
    }));
  return answerForm(form, causeAnswerForm, async ({ kind, id, so }) => {
    await answerQuestion(ctx, view, { kind, id, so, by });
    return {};
  });
});

export const clientAction = ({ serverAction }: Route.ClientActionArgs) => guardedAction(serverAction);

export default function CausesPage({ loaderData: { causes } }: Route.ComponentProps) {
  const { base, view } = usePanel();
  const kinds = [...new Set(view.state.defects.map((d) => d.body.kind))];
  return (
    <>
      <CorrectTabs base={base} />
      {kinds.length > 1 && (
        <nav aria-label="Defect" className="mb-4 flex flex-wrap gap-1">
          {kinds.map((k) => (
            <Link
              key={k}
              to={`?kind=${k}`}
              aria-current={k === causes?.kind ? "page" : undefined}
              className="press aria-[current=page]:bg-glow-wash"
            >
              {DEFECT_KINDS[k].name}
            </Link>
          ))}
        </nav>
      )}
      {causes ? (
        <CausesDesk causes={causes} />
      ) : (
        <section className="max-w-[60ch] space-y-4">
          <h2 className="text-[25px] leading-[1.12] sm:text-[31px] font-semibold tracking-tight">
            No defect is placed, so there is nothing to explain.
          </h2>
          <Link to={`${base}/inspect/defects`} className="press" data-kind="main">
            Place a defect
          </Link>
        </section>
      )}
    </>
  );
}
