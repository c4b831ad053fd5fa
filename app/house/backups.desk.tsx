import { Form, Link, useNavigation } from "react-router";
import { KeptForm } from "~/kit/draft/draft-form";
import type { FormAnswer } from "~/kit/form/answer";
import { PageHeader } from "~/kit/shell/page-header";
import { Field, FieldErrors } from "~/kit/ui/field";
import { More } from "~/kit/ui/more";
import { FOR_GOOD, SurePress } from "~/kit/ui/sure-press";
import type { Route } from "./+types/backups.route";

type Kept = Route.ComponentProps["loaderData"];
type Copy = NonNullable<Kept>["copies"][number];

/** Copies of the shop: how old the newest is, what can be brought back, and where they lie. */
export function BackupsDesk({ kept, answer }: { kept: Kept; answer: FormAnswer | undefined }) {
  const making = useNavigation().formData?.get("intent") === "make";
  const [newest] = kept?.copies ?? [];
  return (
    <>
      <PageHeader title="Backups" note="Copies of the whole shop, checked when they are made" />
      <main className="max-w-[860px] space-y-6 px-4 py-6 sm:px-6">
        <div>
          <h2 className="text-[25px] leading-[1.12] font-semibold tracking-tight sm:text-[31px]" data-testid="newest">
            {!kept ? "The invented shop has no backups." : newest ? `The last one was made ${newest.ago}.` : "None has been made yet."}
          </h2>
          {kept?.fault && (
            <p role="status" className="mt-1 font-medium text-stop-ink">
              {kept.fault}
            </p>
          )}
        </div>
        {kept && (
          <>
            <Form method="post">
              <button className="press" data-kind="main" name="intent" value="make" disabled={making}>
                {making ? "Copying…" : "Make one now"}
              </button>
              <FieldErrors errors={answer?.intent === "make" && answer.message && !answer.ok ? [answer.message] : undefined} />
            </Form>
            <CopyList
              copies={kept.copies}
              errors={answer?.intent === "letGo" && answer.message && !answer.ok ? [answer.message] : undefined}
            />
            <SecondPlace second={kept.second} errors={answer?.intent === "second" ? answer.errors.second : undefined} />
            <More label="How long they are kept">
              <p className="max-w-[60ch] text-[14px] text-ink2">
                One is made each hour in which something was entered. Kept are those of the last 24 hours, then one a day for a week, one a
                week for eight weeks, one a month for a year. What you made by hand, and what a restore set aside, stays until you let it
                go.
              </p>
            </More>
          </>
        )}
      </main>
    </>
  );
}

function CopyList({ copies, errors }: { copies: readonly Copy[]; errors: string[] | undefined }) {
  if (copies.length === 0) return null;
  return (
    <ul className="border-t border-hair" aria-label="Copies" data-figures>
      {copies.map(({ id, on, size, what, stays }) => (
        <li key={id} className="flex flex-wrap items-center gap-x-4 gap-y-1 border-b border-hair py-1">
          <span className="min-w-0 flex-1 basis-52">
            <b className="font-semibold">{on}</b>, {size}
            <span className="block text-[13px] text-ink2">{what}</span>
          </span>
          <Link className="press" to={`/house/backups/${id}`}>
            Look into it<span className="sr-only"> of {on}</span>
          </Link>
          {stays && (
            <Form method="post">
              <input type="hidden" name="id" value={id} />
              <SurePress name="intent" value="letGo" ask="Let it go" sure={FOR_GOOD} of={on} />
            </Form>
          )}
        </li>
      ))}
      <FieldErrors errors={errors} />
    </ul>
  );
}

/** A folder on another disk, for the day on which this one dies. */
function SecondPlace({ second, errors }: { second: string | null; errors: string[] | undefined }) {
  return (
    <section>
      <h2 className="mb-2 text-xl font-semibold">Second place</h2>
      <KeptForm place="second place" className="max-w-[34rem] space-y-3">
        <input type="hidden" name="intent" value="second" />
        <Field
          label="Folder on another disk"
          name="second"
          defaultValue={second ?? ""}
          hint="its whole path on the shop's computer, or a mounted share; empty: none"
          errors={errors}
        />
        <button className="press">Keep every backup there too</button>
      </KeptForm>
    </section>
  );
}
