import { acting } from "~/kit/form/in-words.server";
import { format } from "date-fns";
import { Link, data, redirect, useFetcher } from "react-router";
import { placeInWords } from "#core/kernel/geometry/shapes";
import { PHASES } from "#core/record/kinds";
import { type EntryToPutRight, entryToPutRight, putRight } from "#server/commands/put-right";
import { Refusal } from "#server/commands/refusal";
import { serverContext } from "#server/running";
import { KeptForm } from "~/kit/draft/draft-form";
import { type FormAnswer, answerForm, textOf } from "~/kit/form/answer";
import { guardedAction } from "~/kit/form/guarded-action";
import { formOf } from "~/kit/http/body.server";
import { panelOr404, sheetOr404 } from "~/kit/http/panel.server";
import { formPrefs } from "~/kit/http/prefs.server";
import { PageHeader } from "~/kit/shell/page-header";
import { FieldErrors, Field } from "~/kit/ui/field";
import { putRightForm } from "./entry.form";
import { viewInRegion } from "~/kit/words/region";
import { EntryFields } from "./entry-fields";
import type { Route } from "./+types/entry.route";

export const meta: Route.MetaFunction = () => [{ title: "Put right · Yakamoz" }];

/** A minute as a browser's field has it. */
const AS_TYPED = "yyyy-MM-dd'T'HH:mm";
/** Pages that lead here, and back. */
const FROM = new Set(["spray", "inspect", "hand-over", "ledger"]);

/** A page of this very panel that leads here; of any other word, where the ledger is. */
const backTo = ({ jobId, panelId }: { jobId: string; panelId: string }, from: string) =>
  `/jobs/${encodeURIComponent(jobId)}/panels/${encodeURIComponent(panelId)}/${FROM.has(from) ? from : "hand-over"}`;

export async function loader({ request, params }: Route.LoaderArgs) {
  const { jobId, panelId, entryId } = params;
  const ctx = await serverContext();
  const { job, panel, state } = viewInRegion(await panelOr404(ctx, jobId, panelId));
  const entry = await entryToPutRight(ctx, panelId, entryId).catch((error: unknown) => {
    throw error instanceof Refusal ? data(error.message, { status: 404 }) : error;
  });
  const from = new URL(request.url).searchParams.get("from") ?? "";
  const coat = state.coats.findIndex((c) => c.entry.id === entry.id) + 1;
  return {
    entry,
    what: nameOf(entry, coat),
    of: `${job.vehicle}, ${panel.name.toLowerCase()}`,
    where: entry.kind === "reading" ? placeInWords([entry.body.at.x_m, entry.body.at.y_m], panel.shape) : null,
    at: format(entry.at_ms, AS_TYPED),
    from,
    back: backTo(params, from),
  };
}

function nameOf(entry: EntryToPutRight, coat: number): string {
  switch (entry.kind) {
    case "coat":
      return `coat ${coat}`;
    case "mix":
      return "a mix";
    case "climate":
      return "a climate";
    case "reading":
      return `spot ${entry.body.spot}, ${PHASES[entry.body.phase]}`;
    case "wetComb":
      return "a wet comb";
    case "flatten":
      return "a sanding flat";
    case "bake":
      return "a bake";
    case "turn":
      return "how the part lies";
    case "strip":
      return `the strip ${entry.body.phase} clear`;
  }
}

export const action = acting(async ({ request, params }: Route.ActionArgs) => {
  const { panelId, entryId } = params;
  const ctx = await serverContext();
  const form = await formOf(request);
  const { units, by } = await formPrefs(request, form);
  const entry = await entryToPutRight(ctx, panelId, entryId).catch((error: unknown) => {
    throw error instanceof Refusal ? data(error.message, { status: 409 }) : error;
  });
  const answer = await answerForm(form, putRightForm(entry.kind, units, await sheetOr404(ctx, panelId)), async ({ body, at_ms }) => {
    const unmoved = textOf(form, "at") === format(entry.at_ms, AS_TYPED);
    await putRight(ctx, { panelId, entryId, body, at_ms: unmoved ? entry.at_ms : at_ms, by });
  });
  return "ok" in answer && answer.ok ? redirect(backTo(params, textOf(form, "back"))) : answer;
});

export const clientAction = ({ serverAction }: Route.ClientActionArgs) => guardedAction(serverAction);

/** An entry of the ledger put right in place: figures follow, the old one stays in the ledger. */
export default function PutRight({ loaderData: { entry, what, of, where, at, from, back } }: Route.ComponentProps) {
  const fetcher = useFetcher<FormAnswer>();
  const errors = fetcher.data?.errors ?? {};
  return (
    <>
      <PageHeader title={`Put right: ${what}`} note={`${of}. Figures follow; the ledger keeps what stood here, and who changed it`}>
        <Link className="press" to={back}>
          Back
        </Link>
      </PageHeader>
      <main className="max-w-[860px] px-4 py-6 sm:px-6">
        <KeptForm fetcher={fetcher} place={`put right ${entry.id}`} className="space-y-4">
          <input type="hidden" name="back" value={from} />
          {where && <p className="text-ink2">The spot lies {where}.</p>}
          <EntryFields entry={entry} errors={errors} />
          <Field className="w-64" label="When" type="datetime-local" name="at" defaultValue={at} errors={errors.at} />
          <FieldErrors errors={fetcher.data?.ok === false && fetcher.data.message ? [fetcher.data.message] : undefined} />
          <div className="flex flex-wrap gap-3">
            <button className="press" data-kind="main" disabled={fetcher.state !== "idle"}>
              Put it right
            </button>
            <Link className="press" data-kind="quiet" to={back}>
              Leave it as it is
            </Link>
          </div>
        </KeptForm>
      </main>
    </>
  );
}
