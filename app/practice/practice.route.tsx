import { serverContext } from "#server/running";
import { listSessions } from "#server/repos/practice-repo";
import { progressOf } from "#core/practice/progress";
import { PageHeader } from "~/kit/shell/page-header";
import { PracticeDesk } from "./practice.desk";
import type { Route } from "./+types/practice.route";

export const meta: Route.MetaFunction = () => [{ title: "Practice · Yakamoz" }];

export async function loader() {
  const { db, actor } = await serverContext();
  return { progress: progressOf(await listSessions(db, actor.personId)) };
}

export default function Practice({ loaderData: { progress } }: Route.ComponentProps) {
  return (
    <>
      <PageHeader title="Practice" note="Simulated film on a panel of nobody's; nothing of it enters a job" />
      <main className="max-w-[1060px] px-4 py-6 sm:px-6">
        <PracticeDesk progress={progress} />
      </main>
    </>
  );
}
