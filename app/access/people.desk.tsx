import { useEffect } from "react";
import { Form, Link, useRevalidator } from "react-router";
import type { Role } from "#server/access/rights";
import { KeptForm } from "~/kit/draft/draft-form";
import type { FormAnswer } from "~/kit/form/answer";
import { PageHeader } from "~/kit/shell/page-header";
import { Field, FieldErrors, SelectField } from "~/kit/ui/field";
import { More } from "~/kit/ui/more";
import { SurePress } from "~/kit/ui/sure-press";
import { Tag } from "~/kit/ui/tag";
import { capital } from "~/kit/words/capital";
import { counted } from "~/kit/words/when";
import type { Route } from "./+types/people.route";

type Shown = Route.ComponentProps["loaderData"];
type Answer = (FormAnswer & { key?: string }) | undefined;

/** What a form of the page said, where it was turned away. */
const saidTo = (answer: Answer, intent: string): string[] | undefined =>
  answer && !answer.ok && answer.intent === intent && answer.message && Object.keys(answer.errors).length === 0
    ? [answer.message]
    : undefined;

/** Who may come in, and on which devices. */
export function PeopleDesk({ asked, people, devices, code, roles, now_ms, formKey, answer }: Shown & { answer: Answer }) {
  return (
    <>
      <PageHeader title="People and devices" note="Who may come in, and on what" />
      <main className="max-w-[860px] space-y-8 px-4 py-6 sm:px-6">
        <h2 className="text-[25px] leading-[1.12] font-semibold tracking-tight sm:text-[31px]">
          {asked
            ? `${counted(people.length, "person", "people")} on ${counted(devices.length, "device", "devices")}.`
            : "The program answers this machine alone."}
        </h2>
        {asked ? (
          <>
            <Devices {...{ devices, code, now_ms, answer }} />
            <People {...{ people, formKey, answer }} />
            <Bridge answer={answer} />
            <More label="Who may do what">
              <dl className="grid max-w-[60ch] gap-2 text-[14px] text-ink2">
                {roles.map(({ role, rights }) => (
                  <div key={role}>
                    <dt className="font-semibold text-ink">{capital(role)}</dt>
                    <dd>
                      {rights.length > 0
                        ? `May ${rights.join("; ")}.`
                        : "May enter everything at a panel, and put right what they entered."}
                    </dd>
                  </div>
                ))}
              </dl>
            </More>
          </>
        ) : (
          <p className="max-w-[60ch]">
            For tablets in the booth and the mixing room start it with <code>npm start -- --lan</code>. It then asks for an owner, and
            nobody comes in whom the owner does not let in.
          </p>
        )}
      </main>
    </>
  );
}

function Devices({ devices, code, now_ms, answer }: Pick<Shown, "devices" | "code" | "now_ms"> & { answer: Answer }) {
  return (
    <section aria-labelledby="devices-title">
      <h2 id="devices-title" className="mb-2 text-xl font-semibold">
        Devices
      </h2>
      {code ? (
        <Code code={code} now_ms={now_ms} />
      ) : (
        <Form method="post" className="mb-3">
          <button className="press" data-kind="main" name="intent" value="pair">
            Pair a device
          </button>
        </Form>
      )}
      <ul className="border-t border-hair">
        {devices.map(({ id, name, bridge, here, locked, who, seen }) => (
          <li key={id} className="flex flex-wrap items-center gap-x-4 gap-y-1 border-b border-hair py-1">
            <span className="min-w-0 flex-1 basis-52">
              <b className="font-semibold">{name}</b> {locked && <Tag kind="stop">locked by wrong PINs</Tag>}
              <span className="block text-[13px] text-ink2">
                {[here ? "this one" : `seen ${seen}`, bridge ? "a bridge" : (who ?? "nobody there")].join(", ")}
              </span>
            </span>
            {locked && (
              <Form method="post">
                <input type="hidden" name="id" value={id} />
                <button className="press" name="intent" value="unlock">
                  Let it try again<span className="sr-only">: {name}</span>
                </button>
              </Form>
            )}
            {!here && (
              <Form method="post">
                <input type="hidden" name="id" value={id} />
                <SurePress name="intent" value="end" ask="End it" sure="It has to be paired again" of={name} />
              </Form>
            )}
          </li>
        ))}
      </ul>
      <FieldErrors errors={saidTo(answer, "end") ?? saidTo(answer, "unlock")} />
    </section>
  );
}

/** The code that waits: by camera or by hand. The page looks again when it is over. */
function Code({ code: { code, until_ms, link, svg }, now_ms }: { code: NonNullable<Shown["code"]>; now_ms: number }) {
  const { revalidate } = useRevalidator();
  useEffect(() => {
    const timer = setTimeout(() => void revalidate(), Math.max(0, until_ms - now_ms) + 500);
    return () => clearTimeout(timer);
  }, [until_ms, now_ms, revalidate]);
  return (
    <div className="mb-4 grid items-center gap-x-6 gap-y-3 border-y border-hair py-4 sm:grid-cols-[180px_1fr]">
      <div
        className="size-[180px] bg-white p-1"
        role="img"
        aria-label="Square code with the address and the code"
        dangerouslySetInnerHTML={{ __html: svg }}
      />
      <div>
        <p>Point the new device&rsquo;s camera at it, or open</p>
        <p className="font-medium break-all">{link}</p>
        <p className="mt-2">and type</p>
        <p className="text-[34px] font-semibold tracking-[0.12em] tabular-nums" data-testid="code">
          {code.slice(0, 3)} {code.slice(3)}
        </p>
        <p className="text-[13px] text-ink2">Good for five minutes and one device.</p>
      </div>
    </div>
  );
}

function People({ people, formKey, answer }: Pick<Shown, "people" | "formKey"> & { answer: Answer }) {
  const errors = answer?.intent === "add" ? answer.errors : {};
  return (
    <section aria-labelledby="people-title">
      <h2 id="people-title" className="mb-2 text-xl font-semibold">
        People
      </h2>
      <ul className="border-t border-hair">
        {people.map(({ id, name, role }) => (
          <li key={id} className="flex items-center gap-4 border-b border-hair py-1">
            <span className="min-w-0 flex-1">
              <b className="font-semibold">{name}</b>, {role}
            </span>
            <Link className="press" to={`/house/people/${id}`}>
              Change<span className="sr-only"> {name}</span>
            </Link>
          </li>
        ))}
      </ul>
      <KeptForm place="person" className="mt-4 grid max-w-[44rem] gap-3 sm:grid-cols-[1fr_9rem_8rem_auto] sm:items-start">
        <input type="hidden" name="intent" value="add" />
        <input type="hidden" name="formKey" value={formKey} />
        <Field label="Name" name="name" autoComplete="off" errors={errors.name} />
        <RoleField />
        <Field label="PIN" name="pin" inputMode="numeric" autoComplete="off" hint="4 to 8 figures" errors={errors.pin} />
        <button className="press sm:mt-6">Add</button>
        <div className="col-span-full">
          <FieldErrors errors={saidTo(answer, "add")} />
        </div>
      </KeptForm>
    </section>
  );
}

function RoleField() {
  return (
    <SelectField label="Role" name="role" defaultValue="painter">
      {(["painter", "apprentice"] satisfies Role[]).map((role) => (
        <option key={role} value={role}>
          {role}
        </option>
      ))}
    </SelectField>
  );
}

/** A program beside a gauge or a scale has no screen: it shows a key. */
function Bridge({ answer }: { answer: Answer }) {
  const key = answer?.intent === "bridge" ? answer.key : undefined;
  return (
    <More label="A key for a gauge's bridge">
      <p className="max-w-[60ch] text-[14px] text-ink2">
        A program beside a gauge, a scale or a probe sends what it reads with this key (docs/formats.md). It can send readings, and nothing
        else.
      </p>
      {key ? (
        <p className="max-w-[60ch]">
          Copy it now, it is not shown again: <code className="break-all select-all">{key}</code>
        </p>
      ) : (
        <Form method="post" className="flex flex-wrap items-end gap-3">
          <Field
            label="What it is called"
            name="name"
            defaultValue="Gauge bridge"
            errors={answer?.intent === "bridge" ? answer.errors.name : undefined}
          />
          <button className="press" name="intent" value="bridge">
            Make a key
          </button>
        </Form>
      )}
    </More>
  );
}
