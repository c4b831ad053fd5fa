import { Link, useFetcher } from "react-router";
import { KeptForm } from "~/kit/draft/draft-form";
import type { FormAnswer } from "~/kit/form/answer";
import { PageHeader } from "~/kit/shell/page-header";
import { Field, FieldErrors, SelectField } from "~/kit/ui/field";
import { EntryFields } from "./entry-fields";
import type { Route } from "./+types/entry.route";

/** An entry of the ledger put right in place: figures follow, the old one stays in the ledger. */
export function PutRightDesk({
  loaderData: { entry, what, of, where, at, from, back, panels, panelId },
}: Pick<Route.ComponentProps, "loaderData">) {
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
          {panels.length > 1 && (
            <SelectField
              className="max-w-72"
              label="Belongs to"
              name="panel"
              defaultValue={panelId}
              errors={errors.panel}
              hint="of another panel: it moves there"
            >
              {panels.map(({ id, name }) => (
                <option key={id} value={id}>
                  {name}
                </option>
              ))}
            </SelectField>
          )}
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
