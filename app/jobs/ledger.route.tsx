import { Link, data } from "react-router";
import { serverContext } from "#server/running";
import { othersEntries } from "#server/access/others-entries";
import { getJob } from "#server/repos/job-repo";
import { getPanel } from "#server/repos/panel-repo";
import { getShop, shopRegion } from "#server/repos/shop-repo";
import { loadLedgerLines } from "#server/views/ledger-view";
import { LedgerList } from "~/kit/panel/ledger-list";
import { OthersEntries } from "~/kit/root/use-root";
import { PageHeader } from "~/kit/shell/page-header";
import { shapeInRegion } from "~/kit/words/region";
import type { Route } from "./+types/ledger.route";

export const meta: Route.MetaFunction = () => [{ title: "Ledger · Yakamoz" }];

export async function loader({ request, params: { jobId, panelId } }: Route.LoaderArgs) {
  const ctx = await serverContext();
  const [job, panel, shop] = await Promise.all([getJob(ctx.db, jobId), getPanel(ctx.db, panelId), getShop(ctx.db)]);
  if (!job || panel?.jobId !== jobId) throw data("This panel is not in the file.", { status: 404 });
  const asked = Number(new URL(request.url).searchParams.get("part"));
  const page = Number.isInteger(asked) && asked > 0 && asked < 1e6 ? asked : 1;
  return {
    held: await othersEntries(ctx.actor, ctx.db, panelId),
    ...(await loadLedgerLines(ctx, panelId, { page })),
    page,
    of: `${job.vehicle}, ${panel.name.toLowerCase()}`,
    base: `/jobs/${jobId}/panels/${panelId}`,
    shape: shapeInRegion(panel.shape, shopRegion(shop)),
  };
}

/** A panel's ledger by itself: what was logged, each entry to be put right or taken out, whatever the models make of it. */
export default function Ledger({ loaderData: { held, lines, count, pages, page, of, base, shape } }: Route.ComponentProps) {
  return (
    <>
      <PageHeader title="Ledger" note={`${of}. ${count} entries, newest first; nothing is ever overwritten`}>
        <Link className="press" to={base}>
          Back to the panel
        </Link>
      </PageHeader>
      <main className="max-w-[1100px] space-y-4 px-4 py-6 sm:px-6">
        <OthersEntries value={held}>
          <LedgerList log={lines} shape={shape} base={base} from="ledger" />
        </OthersEntries>
        {pages > 1 && (
          <nav aria-label="Parts of the ledger" className="flex flex-wrap items-center gap-3">
            {page > 1 && (
              <Link className="press" to={`?part=${page - 1}`}>
                Newer entries
              </Link>
            )}
            <span className="text-ink2">
              Part {page} of {pages}
            </span>
            {page < pages && (
              <Link className="press" to={`?part=${page + 1}`}>
                Older entries
              </Link>
            )}
          </nav>
        )}
      </main>
    </>
  );
}
