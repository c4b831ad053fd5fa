import { useState, useSyncExternalStore } from "react";
import { Form, useSubmit } from "react-router";
import {
  BAUD_RATES,
  LINE_VALUES,
  type LineKind,
  type LineReading,
  type LineValue,
  numbersIn,
  proposedValues,
  readLine,
  valuesOf,
} from "#core/models/devices/line";
import type { LineProfile } from "#core/models/devices/line-profile";
import { show } from "#core/kernel/units/format";
import type { UnitPreferences } from "#core/kernel/units/quantities";
import { useDraft } from "~/kit/draft/use-draft";
import type { FormAnswer } from "~/kit/form/answer";
import { useUnits } from "~/kit/root/use-root";
import { Field, FieldErrors, SelectField } from "~/kit/ui/field";
import { ScrollRegion } from "~/kit/ui/scroll-region";
import { SurePress } from "~/kit/ui/sure-press";
import { Toggle } from "~/kit/ui/toggle";
import { type Trial, useSerialStates, useTrial } from "./use-serial";

const KINDS: Record<LineKind, string> = { gauge: "Film gauge", scale: "Scale", climate: "Climate probe" };
const USUAL_BAUD = 9600;
const never = () => () => {};

/** Instruments that print lines on this machine's serial ports: how they stand, and how a new one is taught. */
export function DevicesDesk({ profiles, answer }: { profiles: readonly LineProfile[]; answer: FormAnswer | undefined }) {
  const can = useSyncExternalStore(
    never,
    () => "serial" in navigator,
    () => true,
  );
  return (
    <>
      <h2 className="text-[25px] leading-[1.12] font-semibold tracking-tight sm:text-[31px]">
        {profiles.length === 0
          ? "No instrument is known yet."
          : profiles.length === 1
            ? "One instrument is known."
            : `${profiles.length} instruments are known.`}
      </h2>
      {can ? (
        <NewDevice answer={answer} />
      ) : (
        <p className="max-w-[60ch]">
          This browser reads no serial ports. A desktop Chromium does, on the shop&rsquo;s machine or over the safe address. Elsewhere a
          gauge that types like a keyboard, or a bridge, does the same.
        </p>
      )}
      <Known profiles={profiles} />
    </>
  );
}

const shownOf = (what: LineValue, si: number, units: UnitPreferences): string => {
  switch (what) {
    case "film":
      return `${show("film", si, units).text} ${units.film}`;
    case "mass":
      return `${(si * 1000).toFixed(1)} g`;
    case "humidity":
      return `${(si * 100).toFixed(0)} % humidity`;
    default:
      return `${show("temperature", si, units).text} ${units.temperature}${what === "part" ? " at the part" : ""}`;
  }
};
const readWords = (reading: LineReading, line: string | null, units: UnitPreferences): string | null => {
  const read = line === null ? null : readLine(reading, line);
  return (
    read &&
    valuesOf(reading.kind)
      .flatMap((what) => (read[what] === undefined ? [] : [shownOf(what, read[what], units)]))
      .join(", ")
  );
};

function Known({ profiles }: { profiles: readonly LineProfile[] }) {
  const states = useSerialStates();
  const units = useUnits();
  if (profiles.length === 0) return null;
  const stands = (p: LineProfile): string => {
    const s = states.get(p.name);
    if (!s || s.is === "away") return "not plugged in here";
    if (s.fault) return s.fault;
    return readWords(p, s.line, units) ?? "open, nothing read yet";
  };
  return (
    <ul className="border-t border-hair" aria-label="Known instruments">
      {profiles.map((p) => (
        <li key={p.name} className="flex flex-wrap items-center gap-x-4 border-b border-hair py-1">
          <span className="min-w-0 flex-1 basis-52">
            <b className="font-semibold">{p.name}</b>, {KINDS[p.kind].toLowerCase()}
            <span className="block text-[13px] text-ink2">{stands(p)}</span>
          </span>
          <Form method="post">
            <input type="hidden" name="name" value={p.name} />
            <SurePress name="intent" value="forget" ask="Forget it" sure="It has to be taught again" of={p.name} />
          </Form>
        </li>
      ))}
    </ul>
  );
}

/** Plug it in, let it print, tap the number that counts, keep it. */
function NewDevice({ answer }: { answer: FormAnswer | undefined }) {
  const draft = useDraft("device", { kind: "gauge", baud: String(USUAL_BAUD) });
  const kind = draft.typed.kind as LineKind;
  const baudRate = Number(draft.typed.baud);
  const { trial, connect, end } = useTrial();
  return (
    <section aria-labelledby="new-device" className="space-y-4">
      <h3 id="new-device" className="text-xl font-semibold">
        A new one
      </h3>
      <div className="flex flex-wrap items-end gap-4">
        <Toggle
          label="What it is"
          value={kind}
          onChange={(k) => draft.set("kind", k)}
          options={(Object.keys(KINDS) as LineKind[]).map((k) => ({ value: k, name: KINDS[k] }))}
        />
        <SelectField label="Speed, baud" {...draft.field("baud")}>
          {BAUD_RATES.map((b) => (
            <option key={b}>{b}</option>
          ))}
        </SelectField>
        <button type="button" className="press" data-kind="main" onClick={() => void connect(baudRate)}>
          Choose its port
        </button>
      </div>
      {trial && (
        <Teach
          key={kind}
          {...{ kind, baudRate, trial, answer }}
          onKept={() => {
            draft.clear();
            end();
          }}
        />
      )}
    </section>
  );
}

/** The last lines as they came, and which number of them is what. */
function Teach({
  kind,
  baudRate,
  trial: { lines, fault, usb },
  answer,
  onKept,
}: {
  kind: LineKind;
  baudRate: number;
  trial: Trial;
  answer: FormAnswer | undefined;
  onKept: () => void;
}) {
  const units = useUnits();
  const submit = useSubmit();
  const [name, setName] = useState(KINDS[kind]);
  const [holds, setHolds] = useState("");
  const [given, setGiven] = useState<LineReading["values"]>({});
  const line = lines.findLast((l) => l.includes(holds)) ?? null;
  const values = { ...(line === null ? {} : proposedValues(kind, line)), ...given };
  const reading: LineReading = { kind, holds, values };
  const profile: LineProfile = { name, baudRate, usb, ...reading };
  const read = readWords(reading, line, units);
  if (fault) return <FieldErrors errors={[`This port cannot be read: ${fault}`]} />;
  if (lines.length === 0) return <p role="status">Open. Nothing has come yet: take a reading with it, or try another speed.</p>;
  const set = (what: LineValue, change: Partial<{ nth: number; unit: string }>) =>
    setGiven({ ...given, [what]: { nth: 1, unit: Object.keys(LINE_VALUES[what].units)[0]!, ...values[what], ...change } });
  return (
    <div className="space-y-4 border-y border-hair py-4">
      <ScrollRegion label="The last lines" className="bg-tint px-3 py-2 text-[14px]">
        <pre>{lines.join("\n")}</pre>
      </ScrollRegion>
      {line !== null &&
        valuesOf(kind).map((what) => (
          <div key={what} className="flex flex-wrap items-end gap-4">
            <div>
              <p className="small-label mb-1">The {LINE_VALUES[what].name} is</p>
              <Toggle
                label={`The ${LINE_VALUES[what].name} is`}
                value={String(values[what]?.nth ?? "")}
                onChange={(nth) => set(what, { nth: Number(nth) })}
                options={numbersIn(line).map((n, i) => ({ value: String(i + 1), name: n.text }))}
              />
            </div>
            <SelectField label="Unit" value={values[what]?.unit ?? ""} onChange={(e) => set(what, { unit: e.target.value })}>
              {Object.keys(LINE_VALUES[what].units).map((u) => (
                <option key={u}>{u}</option>
              ))}
            </SelectField>
          </div>
        ))}
      <div className="grid max-w-[34rem] gap-4 sm:grid-cols-2">
        <Field
          label="What it is called"
          value={name}
          onChange={(e) => setName(e.target.value)}
          maxLength={40}
          errors={answer?.errors["profile.name"]}
        />
        <Field label="Only lines with" value={holds} onChange={(e) => setHolds(e.target.value)} maxLength={40} hint="empty: all lines" />
      </div>
      <p className="text-[19px] font-semibold" role="status" data-testid="reads">
        {read ? `It reads ${read}.` : "Nothing is read of these lines yet."}
      </p>
      <FieldErrors errors={answer && !answer.ok ? [answer.message ?? Object.values(answer.errors).flat().join(". ")] : undefined} />
      <button
        type="button"
        className="press"
        data-kind="main"
        disabled={!read}
        onClick={() => {
          void submit({ intent: "keep", profile: JSON.stringify(profile) }, { method: "post" });
          onKept();
        }}
      >
        Read it from now on
      </button>
    </div>
  );
}
