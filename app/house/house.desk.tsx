import type { ShopRates } from "#core/judge/option-figures";
import { KeptForm } from "~/kit/draft/draft-form";
import { COVERAGE } from "#core/kernel/units/format";
import { Form, Link } from "react-router";
import { LEARNT, LEARNT_KEYS, houseTexts } from "./house.texts";
import { QUANTITIES, type UnitPreferences } from "#core/kernel/units/quantities";
import { LearntSteps } from "./learnt-steps";
import { usePrefs, useRoot } from "~/kit/root/use-root";
import { useMay } from "~/kit/root/use-may";
import { usePrefsSubmit } from "~/kit/shell/use-prefs-submit";
import { Choices, Toggle } from "~/kit/ui/toggle";
import { Field, FieldErrors, SelectField } from "~/kit/ui/field";
import { REGIONS } from "~/kit/words/region";
import { useRegion } from "~/kit/words/use-region";
import { PageHeader } from "~/kit/shell/page-header";
import { Tag } from "~/kit/ui/tag";
import type { Route } from "./+types/house.route";
import type { ShopSettings } from "#server/repos/shop-repo";
import type { Region } from "#server/repos/shop-repo";
import type { FormAnswer } from "~/kit/form/answer";

const UNIT_LABELS = { film: "Film", length: "Length", temperature: "Temperature", pressure: "Pressure", volume: "Volume" } as const;

/** What costs the shop its own money. */
const RATE_FIELDS: { name: keyof ShopRates; label: string; hint?: string }[] = [
  { name: "labourPerHour", label: "An hour of work costs" },
  { name: "rejected", label: "A panel that comes back costs", hint: "in the shop's own money" },
  { name: "waitingPerDay", label: "A day of waiting for a cure costs", hint: "the stall, the booth; nothing where it does not matter" },
];

export function HouseDesk({
  loaderData: { version, rates, learnt, ways, backup },
  actionData,
}: Pick<Route.ComponentProps, "loaderData" | "actionData">) {
  const { shop } = useRoot();
  const region = useRegion();
  const prefs = usePrefs();
  const start = rates && houseTexts({ ...shop, rates }, region, prefs.units);
  const { send, setUnits } = usePrefsSubmit();
  const errors = actionData?.errors ?? {};
  const keeps = useMay("keep");
  const lets = useMay("people");
  const changes = useMay("shop");
  return (
    <>
      <PageHeader title="House" note="How this shop works, and how this screen shows it" />
      <main className="grid max-w-[1100px] gap-x-12 gap-y-10 px-4 py-6 sm:px-6 lg:grid-cols-2">
        {changes && start && <Shop {...{ version, start, errors, ways, region, actionData }} />}
        <ThisScreen {...{ send, setUnits }} />
        <section aria-labelledby="learnt-title">
          <h2 id="learnt-title" className="mb-2 text-xl font-semibold">
            Learnt from this shop
          </h2>
          <ul className="border-t border-hair" data-testid="learnt">
            {LEARNT_KEYS.map((what) => {
              const l = learnt[what];
              const inUse = shop[LEARNT[what].setting];
              return <LearntRow key={what} {...{ what, l, inUse }} />;
            })}
          </ul>
          <LearntSteps steps={learnt.steps} />
          {learnt.simulated > 0 && (
            <p className="mt-2">
              <Tag kind="simulated">{learnt.simulated} of these panels were read with a stand-in</Tag>
            </p>
          )}
          <p className="mt-2 max-w-[60ch] text-[13px] text-ink2">
            Film: measured after less before clear, over what the settings were to lay, pulled towards 1 while panels are few. Runs: from
            which panels a run was placed on; uncertain below about 20 panels with runs among them. Texture: ratings by eye against the
            forecast. Sanding: read after clear and again after the work, over the plan's forecast. Nothing is changed in the ledger; it can
            be taken back at any time.
          </p>
        </section>
        {changes && <Devices {...{ shop }} />}
        {keeps && backup && <Backup {...backup} />}
        {lets && <People />}
        {keeps && <Help />}
      </main>
    </>
  );
}

/** Who may come in, beyond this machine. */
function People() {
  return (
    <section>
      <h2 className="mb-2 text-xl font-semibold">People and devices</h2>
      <p className="mb-3 max-w-[60ch] text-ink2">Tablets in the booth and the mixing room, and who works on them.</p>
      <Link to="/house/people" className="press">
        Let somebody in
      </Link>
    </section>
  );
}

function Help() {
  return (
    <section>
      <h2 className="mb-2 text-xl font-semibold">When something is wrong</h2>
      <p className="mb-3 max-w-[60ch] text-ink2">
        A file for whoever helps you: how the program runs, what failed and when. No customer, no job and nothing you typed is in it.
      </p>
      <a href="/do/help.json" download="yakamoz-help.json" className="press">
        Bundle for help
      </a>
    </section>
  );
}

interface ShopProps {
  version: string;
  start: ReturnType<typeof houseTexts>;
  errors: Record<string, string[]>;
  ways: { id: string; name: string }[];
  region: Region;
  actionData:
    | FormAnswer
    | {
        ok: boolean;
        intent: string;
        message: string | null;
        errors: Record<string, string[]>;
        entryId?: string | undefined;
        also?: readonly string[] | undefined;
        done?: string | undefined;
        version?: string | undefined;
      }
    | undefined;
}

/** How this shop works. */
function Shop({ version, start, errors, ways, region, actionData }: ShopProps) {
  const prefs = usePrefs();
  return (
    <section>
      <h2 className="mb-3 text-xl font-semibold">The shop</h2>
      <KeptForm place="shop" version={version} className="grid grid-cols-2 gap-4">
        <Field className="col-span-2" label="Name" name="name" defaultValue={start.name} errors={errors.name} />
        <SelectField className="col-span-2" label="Usual way" name="wayId" defaultValue={start.wayId} errors={errors.wayId}>
          {ways.map((w) => (
            <option key={w.id} value={w.id}>
              {w.name}
            </option>
          ))}
        </SelectField>
        <Link to="/house/ways" className="press col-span-2 justify-self-start">
          Look at the ways, change them
        </Link>
        <SelectField className="col-span-2" label="Words for parts, and paper" name="region" defaultValue={region} errors={errors.region}>
          {Object.entries(REGIONS).map(([value, { name }]) => (
            <option key={value} value={value}>
              {name}
            </option>
          ))}
        </SelectField>
        <Field label="Minimum clear to keep" unit={prefs.units.film} name="floor" defaultValue={start.floor} errors={errors.floor} />
        <Field
          label="Readings a spot"
          name="readingsPerSpot"
          inputMode="numeric"
          defaultValue={start.readingsPerSpot}
          errors={errors.readingsPerSpot}
        />
        <Field
          label="Booth changes its air"
          name="airChanges"
          inputMode="decimal"
          defaultValue={start.airChanges}
          hint="times an hour, by its papers; empty: not known"
          errors={errors.airChanges}
        />
        {RATE_FIELDS.map(({ name, label, hint }) => (
          <Field key={name} label={label} name={name} inputMode="decimal" defaultValue={start[name]} hint={hint} errors={errors[name]} />
        ))}
        <div className="col-span-2">
          <FieldErrors errors={actionData?.ok === false && actionData.message ? [actionData.message] : undefined} />
        </div>
        <button className="press col-span-2 justify-self-start" data-kind="main">
          Save for the shop
        </button>
      </KeptForm>
    </section>
  );
}

/** How this screen shows it. */
function ThisScreen({
  send,
  setUnits,
}: {
  send: (
    change: Partial<{
      theme: "booth" | "night";
      units: { film: "µm" | "mil"; length: "mm" | "in"; temperature: "°C" | "°F"; pressure: "bar" | "psi"; volume: "ml" | "fl oz" };
      sound: boolean;
      by: string;
    }>,
  ) => undefined;
  setUnits: (units: UnitPreferences) => undefined;
}) {
  const prefs = usePrefs();
  const { who } = useRoot();
  return (
    <section>
      <h2 className="mb-3 text-xl font-semibold">This screen</h2>
      <div className="space-y-4">
        <p className="flex flex-wrap gap-2">
          <Link to="/words" className="press">
            Words and what they mean
          </Link>
          <Link to="/keys" className="press">
            Keyboard shortcuts
          </Link>
        </p>
        <Choices
          label="Theme"
          columns={2}
          value={prefs.theme}
          onChange={(v) => send({ theme: v === "night" ? "night" : "booth" })}
          options={[
            { value: "booth", name: "Booth", note: "Paper white, for tubes and daylight" },
            { value: "night", name: "Night", note: "Deep sea, for a dark garage" },
          ]}
        />
        <dl className="grid grid-cols-[auto_1fr] items-center gap-x-5 gap-y-2">
          {(Object.keys(UNIT_LABELS) as (keyof typeof UNIT_LABELS)[]).map((q) => (
            <div key={q} className="contents">
              <dt>{UNIT_LABELS[q]}</dt>
              <dd>
                <Toggle
                  label={UNIT_LABELS[q]}
                  value={prefs.units[q]}
                  onChange={(u) => setUnits({ ...prefs.units, [q]: u })}
                  options={Object.keys(QUANTITIES[q].units).map((u) => ({ value: u, name: u }))}
                />
              </dd>
            </div>
          ))}
        </dl>
        {who === null && (
          <Choices
            label="Who is at this screen"
            columns={3}
            value={prefs.by}
            onChange={(by) => send({ by })}
            options={["painter A", "painter B", "apprentice"].map((r) => ({ value: r, name: r }))}
          />
        )}
      </div>
    </section>
  );
}

/** One thing that the shop has learnt. */
function LearntRow({
  what,
  l,
  inUse,
}: {
  what: "film" | "runs" | "texture" | "removal";
  l: { factor: number; u_log: number; n: number; enough: boolean; words: string };
  inUse: { factor: number; u_log: number; n: number } | null;
}) {
  return (
    <li className="flex flex-wrap items-center justify-between gap-x-4 gap-y-1 border-b border-hair py-2">
      <span className="min-w-0 flex-1 basis-64">
        {LEARNT[what].name}, against the model
        <span className="block text-ink2">
          {l.enough && (
            <b className="font-semibold text-ink">
              × {l.factor.toFixed(2)} ± {(COVERAGE * l.factor * l.u_log).toFixed(2)}{" "}
            </b>
          )}
          {l.words}
          {l.enough && `, ${l.n} panels`}
        </span>
        {inUse && (
          <span className="block">
            In use: × {inUse.factor.toFixed(2)}, from {inUse.n} panels.
          </span>
        )}
      </span>
      <Form method="post">
        <input type="hidden" name="what" value={what} />
        {inUse ? (
          <button className="press" name="intent" value="forget">
            Back to the model<span className="sr-only">: {LEARNT[what].name}</span>
          </button>
        ) : (
          <button className="press" name="intent" value="learn" disabled={!l.enough}>
            Use it<span className="sr-only">: {LEARNT[what].name}</span>
          </button>
        )}
      </Form>
    </li>
  );
}

/** How the shop's data are kept, and the way to what can be brought back. */
function Backup({ last, fault }: { last: string | null; fault: string | null }) {
  return (
    <section>
      <h2 className="mb-2 text-xl font-semibold">Backups</h2>
      {fault && <p className="mb-2 font-medium text-stop-ink">{fault}</p>}
      <p className="mb-3 max-w-[60ch] text-ink2">
        {last ? `The last one: ${last}. ` : "None yet. "}One is made by itself each hour in which something was entered.
      </p>
      <Link to="/house/backups" className="press">
        Look at them, bring one back
      </Link>
    </section>
  );
}

/** The simulated devices, on or off. */
function Devices({ shop }: { shop: Pick<ShopSettings, "standIns"> }) {
  return (
    <section>
      <h2 className="mb-2 text-xl font-semibold">Simulated devices</h2>
      <p className="mb-3 max-w-[60ch] text-ink2">
        Stand-ins for gauge, scale, meter, probe and camera, for learning and for showing. What they fill in is marked simulated wherever it
        is shown. {shop.standIns ? "They are on." : "They are off: nothing simulated can come to a panel."}
      </p>
      <p className="mb-3">
        <Link to="/house/devices" className="press">
          Real ones on a serial port
        </Link>
      </p>
      <Form method="post">
        <button className="press" name="intent" value={shop.standIns ? "noStandIns" : "standIns"}>
          {shop.standIns ? "Switch them off" : "Switch them on"}
        </button>
      </Form>
    </section>
  );
}
