import { serverContext } from "#server/running";
import { loadMatteShelf } from "#server/views/matte-view";
import { MatteDesk } from "~/cards/matte.desk";
import { PageHeader } from "~/kit/shell/page-header";
import type { Route } from "./+types/matte.route";

export const meta: Route.MetaFunction = () => [{ title: "Which matte mix? · Yakamoz" }];

export async function loader() {
  const ctx = await serverContext();
  return { ...(await loadMatteShelf(ctx)), formKey: ctx.newId() };
}

export default function AskMatte({ loaderData: { cards, products, levels, formKey } }: Route.ComponentProps) {
  return (
    <>
      <PageHeader title="Which matte mix?" note="This shop’s own cards in, the ratio for a gloss out" />
      <main className="px-4 py-6 sm:px-6">
        <MatteDesk
          cards={cards}
          products={products}
          levelsOf={(p) => levels[p] ?? []}
          target_GU={null}
          targetNote="the vehicle’s own reading near the repair"
          orientation="vertical"
          rowKey={formKey}
        />
      </main>
    </>
  );
}
