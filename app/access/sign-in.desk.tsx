import { Delete } from "lucide-react";
import { useEffect, useRef } from "react";
import { Form, Link } from "react-router";
import type { Role } from "#server/access/rights";
import type { FormAnswer } from "~/kit/form/answer";
import { Field, FieldErrors } from "~/kit/ui/field";
import { Door } from "./door";

interface Shown {
  id: string;
  name: string;
  role: Role;
}

/** Who stands at this device: a name, then a PIN; a name alone for somebody who gave it here already. */
export function SignInDesk({
  to,
  people,
  person,
  again,
  here,
  device,
  answer,
}: {
  to: string;
  people: readonly Shown[];
  person: Shown | null;
  again: boolean;
  here: { id: string; name: string } | null;
  device: string;
  answer: FormAnswer | undefined;
}) {
  const said =
    answer && !answer.ok ? (answer.errors.secret ?? answer.errors.person ?? (answer.message ? [answer.message] : undefined)) : undefined;
  if (person)
    return (
      <Door title={again ? `${person.name}, once more your passcode.` : `Hello ${person.name}.`}>
        <Secret key={person.id} person={person} to={to} said={said} />
        {!again && people.length > 1 && (
          <Link to={`/sign-in?${new URLSearchParams({ to })}`} className="press">
            Somebody else
          </Link>
        )}
      </Door>
    );
  return (
    <Door title="Who is here?">
      <ul className="border-t border-hair">
        {people.map(({ id, name, role }) => (
          <li key={id} className="border-b border-hair">
            <Form method="post">
              <input type="hidden" name="person" value={id} />
              <input type="hidden" name="to" value={to} />
              <button
                name="intent"
                value="take"
                className="flex min-h-16 w-full cursor-pointer items-center justify-between gap-4 px-2 text-left text-[19px] font-medium hover:bg-tint"
                aria-current={here?.id === id ? "true" : undefined}
              >
                {name}
                <span className="text-[14px] font-normal text-ink2">{here?.id === id ? "here now" : role}</span>
              </button>
            </Form>
          </li>
        ))}
      </ul>
      <FieldErrors errors={said} />
      <p className="text-[14px] text-ink2">This is {device}.</p>
      {here && (
        <Form method="post">
          <button className="press" name="intent" value="leave">
            Sign everybody off here
          </button>
        </Form>
      )}
    </Door>
  );
}

const KEYS = ["1", "2", "3", "4", "5", "6", "7", "8", "9"] as const;
const KEY = "press !min-h-[60px] !p-0 text-[23px]";

/** A PIN on keys for gloves; the owner's passcode has letters, and the keyboard. */
function Secret({ person: { id, role }, to, said }: { person: Shown; to: string; said: string[] | undefined }) {
  const form = useRef<HTMLFormElement>(null);
  const field = () => form.current!.elements.namedItem("secret") as HTMLInputElement;
  const pin = role !== "owner";
  useEffect(() => field().focus(), []); // nothing else is done here
  const type = (key: string) => (field().value += key);
  return (
    <Form method="post" ref={form} className="space-y-4">
      <input type="hidden" name="intent" value="secret" />
      <input type="hidden" name="person" value={id} />
      <input type="hidden" name="to" value={to} />
      <Field
        label={pin ? "PIN" : "Passcode"}
        name="secret"
        type="password"
        inputMode={pin ? "numeric" : "text"}
        autoComplete={pin ? "off" : "current-password"}
        maxLength={pin ? 8 : 128}
        className="max-w-[18rem]"
        errors={said}
      />
      {pin && (
        <div className="grid max-w-[18rem] grid-cols-3 gap-1.5" role="group" aria-label="PIN pad">
          {KEYS.map((k) => (
            <button key={k} type="button" className={KEY} onClick={() => type(k)}>
              {k}
            </button>
          ))}
          <button
            type="button"
            className={KEY}
            aria-label="Take the last figure back"
            onClick={() => (field().value = field().value.slice(0, -1))}
          >
            <Delete size={22} aria-hidden />
          </button>
          <button type="button" className={KEY} onClick={() => type("0")}>
            0
          </button>
          <button className={`${KEY} !text-[16px]`} data-kind="main">
            Come in
          </button>
        </div>
      )}
      {!pin && (
        <button className="press" data-kind="main">
          Come in
        </button>
      )}
    </Form>
  );
}
