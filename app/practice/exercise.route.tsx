import { data, redirect } from "react-router";
import { z } from "zod";
import { type BenchId, exerciseOf } from "#core/practice/exercises";
import { freeChoice } from "#core/practice/free";
import { practiceSession } from "#core/practice/session-body";
import { keepSession } from "#server/commands/practice";
import { serverContext } from "#server/running";
import { benchView, freeBenchView } from "#server/views/bench-view";
import { answerForm, textOf } from "~/kit/form/answer";
import { guardedAction } from "~/kit/form/guarded-action";
import { acting } from "~/kit/form/in-words.server";
import { formOf } from "~/kit/http/body.server";
import { jsonOf } from "~/kit/http/json-lines";
import { later, useLater } from "~/kit/root/later";
import { useUnits } from "~/kit/root/use-root";
import { PageHeader } from "~/kit/shell/page-header";
import { exerciseNote } from "./practice.words";
import type { Route } from "./+types/exercise.route";

export const meta: Route.MetaFunction = ({ loaderData }) => [{ title: `${loaderData?.exercise.name ?? "Practice"} · Yakamoz` }];

const known = (id: string): BenchId => {
  if (id !== "free" && !exerciseOf(id)) throw data("There is no such exercise.", { status: 404 });
  return id as BenchId;
};

export async function loader({ params, request }: Route.LoaderArgs) {
  const ctx = await serverContext();
  const id = known(params.exerciseId);
  if (id !== "free") return benchView(ctx, id);
  const choice = freeChoice.safeParse(Object.fromEntries(new URL(request.url).searchParams));
  if (!choice.success) throw redirect("/practice/choose");
  return freeBenchView(ctx, choice.data);
}

const keepForm = z.object({ session: z.string().max(4000).transform(jsonOf).pipe(practiceSession), formKey: z.string().max(100) });

export const action = acting(async ({ request, params }: Route.ActionArgs) => {
  known(params.exerciseId);
  const ctx = await serverContext();
  const form = await formOf(request);
  return answerForm(form, keepForm, async ({ session }) => {
    await keepSession(ctx, session, textOf(form, "formKey"));
  });
});
export const clientAction = ({ serverAction }: Route.ClientActionArgs) => guardedAction(serverAction);

/** The bench with its models: no other page needs any of it. */
const exerciseDesk = later(() => import("./exercise.desk"));

export default function ExercisePage({ loaderData }: Route.ComponentProps) {
  const units = useUnits();
  const desk = useLater(exerciseDesk, true, true);
  const { exercise, sheet, way } = loaderData;
  return (
    <>
      <PageHeader title={`Practice: ${exercise.name}`} note={exerciseNote(exercise, sheet.name, units)} narrow />
      <main className="px-4 py-3 sm:px-6">
        {desk && <desk.ExerciseDesk key={`${loaderData.id} ${way.id} ${JSON.stringify(exercise)} ${sheet.name}`} view={loaderData} />}
      </main>
    </>
  );
}
