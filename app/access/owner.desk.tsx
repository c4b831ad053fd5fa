import { Form } from "react-router";
import type { FormAnswer } from "~/kit/form/answer";
import { Field, FieldErrors } from "~/kit/ui/field";
import { Door } from "./door";

/** The first page of a shop that is to be on its network: who lets the others in. */
export function OwnerDesk({ here, answer }: { here: boolean; answer: FormAnswer | undefined }) {
  if (!here)
    return (
      <Door title="This shop has no owner yet.">
        <p>Open this page on the machine that the program runs on. Whoever sits there says who may come in.</p>
      </Door>
    );
  const errors = answer?.errors ?? {};
  return (
    <Door title="Who lets the others in?">
      <Form method="post" className="space-y-4">
        <Field label="Your name" name="name" defaultValue="Owner" autoComplete="username" errors={errors.name} />
        <Field
          label="Passcode"
          name="passcode"
          type="password"
          autoComplete="new-password"
          hint="at least 8 letters or figures; only you have it"
          errors={errors.passcode}
        />
        <FieldErrors errors={answer?.message && Object.keys(errors).length === 0 ? [answer.message] : undefined} />
        <button className="press" data-kind="main">
          I am the owner
        </button>
      </Form>
      <p className="text-[14px] text-ink2">
        From then on every device is let in by a code, and everybody gives a PIN. A forgotten passcode is made anew on this machine
        (README).
      </p>
    </Door>
  );
}
