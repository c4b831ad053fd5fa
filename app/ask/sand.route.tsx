import { Suspense, lazy } from "react";
import { data, redirect } from "react-router";
import { keepAsJob } from "#server/commands/keep-as-job";
import { serverContext } from "#server/running";
import { listClears } from "#server/repos/product-repo";
import { getShop, shopRegion } from "#server/repos/shop-repo";
import { partName } from "~/kit/words/part-name";
import { readPrefs } from "~/kit/http/prefs.server";
import { PageHeader } from "~/kit/shell/page-header";
import { jsonBodyOf } from "~/kit/http/body.server";
import { guardedAction } from "~/kit/form/guarded-action";
import { acting, inWords } from "~/kit/form/in-words.server";
import { keptReadings } from "./sand.form";
import type { Route } from "./+types/sand.route";

export const meta: Route.MetaFunction = () => [{ title: "Can I sand this? · Yakamoz" }];

export async function loader() {
  const ctx = await serverContext();
  const [product] = await listClears(ctx.db);
  return { productRevisionId: product?.revisionId ?? null, formKey: ctx.newId() };
}

export const action = acting(async ({ request }: Route.ActionArgs) => {
  const parsed = keptReadings.safeParse(await jsonBodyOf(request));
  if (!parsed.success) throw data("Not understood", { status: 400 });
  const { by } = await readPrefs(request);
  const ctx = await serverContext();
  const region = shopRegion(await getShop(ctx.db));
  return inWords(async () => {
    const { jobId, panelId } = await keepAsJob(ctx, { ...parsed.data, panelName: partName(parsed.data.shape, region), by });
    return redirect(`/jobs/${jobId}/panels/${panelId}/inspect`);
  });
});

export const clientAction = ({ serverAction }: Route.ClientActionArgs) => guardedAction(serverAction);

// The desk follows the document: the page is read before its tools have come.
const SandDesk = lazy(() => import("./sand.desk").then((m) => ({ default: m.SandDesk })));

export default function AskSand({ loaderData }: Route.ComponentProps) {
  return (
    <>
      <PageHeader title="Can I sand this?" note="Readings in, verdict out; nothing is stored until you keep it" />
      <main className="px-4 py-6 sm:px-6">
        <Suspense>
          <SandDesk {...loaderData} />
        </Suspense>
      </main>
    </>
  );
}
