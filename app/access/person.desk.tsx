import { Form } from "react-router";
import type { Role } from "#server/access/rights";
import { KeptForm } from "~/kit/draft/draft-form";
import type { FormAnswer } from "~/kit/form/answer";
import { PageHeader } from "~/kit/shell/page-header";
import { Field, FieldErrors, SelectField } from "~/kit/ui/field";
import { SurePress } from "~/kit/ui/sure-press";

/** Another name, role or PIN for somebody, or none any more. */
export function PersonDesk({ name, role, version, answer }: { name: string; role: Role; version: string; answer: FormAnswer | undefined }) {
  const errors = answer?.errors ?? {};
  const isOwner = role === "owner";
  return (
    <>
      <PageHeader title={name} note={role} />
      <main className="max-w-[34rem] space-y-8 px-4 py-6 sm:px-6">
        <KeptForm place="person" version={version} className="space-y-4">
          <Field label="Name" name="name" defaultValue={name} autoComplete="off" errors={errors.name} />
          {isOwner ? (
            <input type="hidden" name="role" value="owner" />
          ) : (
            <SelectField label="Role" name="role" defaultValue={role} errors={errors.role}>
              <option value="painter">painter</option>
              <option value="apprentice">apprentice</option>
            </SelectField>
          )}
          <Field
            label={isOwner ? "New passcode" : "New PIN"}
            name="secret"
            type={isOwner ? "password" : "text"}
            inputMode={isOwner ? "text" : "numeric"}
            autoComplete={isOwner ? "new-password" : "off"}
            hint={isOwner ? "empty: the one there is; at least 8 letters or figures" : "empty: the one there is; 4 to 8 figures"}
            errors={errors.secret}
          />
          <FieldErrors errors={answer && !answer.ok && answer.message && answer.intent !== "letGo" ? [answer.message] : undefined} />
          <button className="press" data-kind="main">
            Save
          </button>
        </KeptForm>
        {!isOwner && (
          <Form method="post">
            <SurePress name="intent" value="letGo" ask="They leave the shop" sure="They may not come in any more" of={name} bordered />
            <FieldErrors errors={answer?.intent === "letGo" && answer.message ? [answer.message] : undefined} />
          </Form>
        )}
      </main>
    </>
  );
}
