import { Form, Link } from "react-router";
import type { FormAnswer } from "~/kit/form/answer";
import { Field, FieldErrors } from "~/kit/ui/field";
import { Door } from "./door";

/** Lets this device in, by the code that stands on the owner's screen. */
export function PairDesk({
  name,
  code,
  here,
  plain,
  answer,
}: {
  name: string;
  code: string;
  here: boolean;
  plain: boolean;
  answer: FormAnswer | undefined;
}) {
  const errors = answer?.errors ?? {};
  const said = answer?.message && Object.keys(errors).length === 0 ? [answer.message] : undefined;
  return (
    <Door title="This device is not let in yet.">
      <Form method="post" className="space-y-4">
        <Field
          label="Code from the owner's screen"
          name="code"
          inputMode="numeric"
          autoComplete="one-time-code"
          defaultValue={code}
          hint="House, People and devices, Pair a device"
          errors={errors.code}
        />
        <Field label="What this device is called" name="name" defaultValue={name} autoComplete="off" errors={errors.name} />
        <FieldErrors errors={said} />
        <button className="press" data-kind="main" name="intent" value="code">
          Pair this device
        </button>
      </Form>
      {here && (
        <Form method="post" className="space-y-3 border-t border-hair pt-5">
          <p>This is the machine that the program runs on: the owner&rsquo;s passcode is enough here.</p>
          <Field label="Owner's passcode" name="passcode" type="password" autoComplete="current-password" errors={errors.passcode} />
          <button className="press" name="intent" value="here">
            Come in
          </button>
        </Form>
      )}
      {plain && (
        <p className="text-[14px] text-ink2">
          This address is plain http. Everything works but the live camera, serial devices and opening without the server.{" "}
          <Link to="/trust" className="underline">
            Use the safe address instead
          </Link>
        </p>
      )}
    </Door>
  );
}
