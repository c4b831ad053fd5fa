import { serverContext } from "#server/running";
import { PageHeader } from "~/kit/shell/page-header";
import type { Route } from "./+types/pattern.route";
import { PatternDesk } from "./pattern.desk";

export const meta: Route.MetaFunction = () => [{ title: "Pattern test · Yakamoz" }];

export const loader = async () => ({ name: (await serverContext()).newId() });

export default function Pattern({ loaderData: { name } }: Route.ComponentProps) {
  return (
    <>
      <PageHeader title="Pattern test" note="Simulated bursts of a gun of nobody's" />
      <main className="max-w-[1060px] px-4 py-6 sm:px-6">
        <PatternDesk name={name} />
      </main>
    </>
  );
}
