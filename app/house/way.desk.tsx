import { More } from "~/kit/ui/more";
import type { RunCalibration } from "#core/models/flow/run-calibration";
import { Suspense, lazy, useMemo } from "react";
import type { HouseWay, HouseWayBody } from "#core/models/ways/way";
import { DraftForm } from "~/kit/draft/draft-form";
import { useDraft } from "~/kit/draft/use-draft";
import type { FormAnswer } from "~/kit/form/answer";
import { useUnits } from "~/kit/root/use-root";
import { Field, FieldErrors, SelectField } from "~/kit/ui/field";
import { WayCoats } from "./way-coats";
import type { SheetChoice } from "./use-way-setting";
import { WAY_CHOICES, WAY_QUANTITIES, coatField, readWay, wayTyped } from "./way.form";
import type { ReadTyped } from "~/kit/form/read-typed";

/** What is typed is reckoned beside the page: that comes after the form. */
const Effect = lazy(() => import("./way-effect").then((m) => ({ default: m.Effect })));

const options = (of: Record<string, string>) =>
  Object.entries(of).map(([value, name]) => (
    <option key={value} value={value}>
      {name}
    </option>
  ));

type WayField = (name: Exclude<keyof ReturnType<typeof wayTyped>, "coats">, label: string, unit?: string) => React.JSX.Element;
type WaySelect = (name: keyof typeof WAY_CHOICES, label: string) => React.JSX.Element;

interface WayDeskProps {
  way: HouseWay;
  version: number | null;
  products: readonly SheetChoice[];
  calibration: RunCalibration | null;
  formKey: string;
  said: FormAnswer | undefined;
}

export function WayDesk({ way, version, products, calibration, formKey, said }: WayDeskProps) {
  const units = useUnits();
  const draft = useDraft(`way ${way.id}`, wayTyped(way, units), WAY_QUANTITIES, version === null ? undefined : String(version));
  const { typed, set } = draft;
  const read = useMemo(() => {
    const { coats, ...rest } = typed;
    const lists = Object.fromEntries(
      (Object.keys(coats[0] ?? {}) as (keyof (typeof coats)[number])[]).map((f) => [coatField(f), coats.map((c) => c[f])]),
    );
    return readWay({ ...rest, ...lists }, units);
  }, [typed, units]);
  const asTyped = useMemo((): HouseWay | null => (read.success ? { ...read.data, id: way.id, source: way.source } : null), [read, way]);
  const errors = { ...(read.success ? {} : read.errors), ...(said?.ok === false ? said.errors : {}) };
  const field = (name: Exclude<keyof typeof typed, "coats">, label: string, unit?: string) => (
    <Field label={label} {...(unit ? { unit } : {})} {...draft.field(name)} errors={errors[name]} />
  );
  const select = (name: keyof typeof WAY_CHOICES, label: string) => (
    <SelectField label={label} {...draft.field(name)} errors={errors[name]}>
      {options(WAY_CHOICES[name])}
    </SelectField>
  );
  return (
    <div className="grid items-start gap-x-10 gap-y-8 lg:grid-cols-[1fr_340px]">
      <DraftForm draft={draft} className="space-y-8">
        <input type="hidden" name="formKey" value={formKey} />
        <section className="grid gap-4 sm:grid-cols-2">
          {field("name", "Name")}
          {select("finish", "Finish")}
          {field("goodFor", "Good for")}
          {field("price", "Its price")}
        </section>
        <section aria-labelledby="coats-title">
          <h2 id="coats-title" className="mb-1 text-xl font-semibold">
            Coats
          </h2>
          <p className="mb-3 max-w-[70ch] text-ink2">
            Against the gun in the hand: 100 % is as usual, a faster hand lays less. A flash is never shorter than the sheet&rsquo;s least.
          </p>
          <WayCoats coats={typed.coats} onChange={(coats) => set("coats", coats)} errors={errors} />
        </section>
        <GunFields {...{ field, select }} />
        <Rest {...{ field, select }} />
        <Bench {...{ select }} />
        <FieldErrors errors={said?.ok === false && said.message ? [said.message] : undefined} />
        <Presses {...{ version, read }} />
        <p className="max-w-[70ch] text-[13px] text-ink2">
          Jobs that were started keep the way as it was then; change it there if they shall follow.
        </p>
      </DraftForm>
      <Suspense fallback={<aside className="min-h-[420px]" />}>
        <Effect {...{ products, way, asTyped, calibration }} />
      </Suspense>
    </div>
  );
}

/** The gun that the way starts with. */
function GunFields({ field, select }: { field: WayField; select: WaySelect }) {
  const units = useUnits();
  return (
    <section aria-labelledby="gun-title">
      <h2 id="gun-title" className="mb-3 text-xl font-semibold">
        Gun, where nobody has set one
      </h2>
      <div className="grid grid-cols-2 items-start gap-3 sm:grid-cols-3">
        {field("distance", "Distance", units.length)}
        {field("pressure", "Pressure at the gun", units.pressure)}
        {field("turns", "Needle, upright", "turns out")}
        {field("lyingTurns", "Needle, lying", "turns out")}
        {field("fan", "Fan", units.length)}
        {select("trigger", "Trigger between strokes")}
      </div>
      <More label="How these are meant">
        <p className="text-[13px] text-ink2">
          Pressure with the trigger pulled; at the hose it reads two or three times as much. Empty: as usual. The hand takes the speed that
          lays a usual film upright; a lying part gets what its needle gives more.
        </p>
      </More>
    </section>
  );
}

/** Papers, air, heat and waits. */
function Rest({ field, select }: { field: WayField; select: WaySelect }) {
  const units = useUnits();
  return (
    <section aria-labelledby="rest-title">
      <h2 id="rest-title" className="mb-3 text-xl font-semibold">
        Below, between, after
      </h2>
      <div className="grid grid-cols-2 items-start gap-3 sm:grid-cols-4">
        {field("lastPaper", "Last paper below the base, P")}
        {field("flatGrit", "Sanded flat with, P")}
        {select("flatBy", "by")}
        {field("flatOff", "takes off", units.film)}
        {field("flatU", "give or take", units.film)}
        {field("airBeforeHeat", "Air before heat", "min")}
        {field("correctAfter", "Left before it is corrected", "h")}
      </div>
      <p className="mt-1 text-[13px] text-ink2">
        Air before heat empty: by the finish. Zero hours before correcting: when the sheet has it hard.
      </p>
    </section>
  );
}

/** How it is corrected in this way. */
function Bench({ select }: { select: WaySelect }) {
  return (
    <section aria-labelledby="bench-title">
      <h2 id="bench-title" className="mb-3 text-xl font-semibold">
        Correcting
      </h2>
      <div className="grid grid-cols-2 items-start gap-3 sm:grid-cols-4">
        {select("correction", "Papers")}
        {select("discs", "Machine discs")}
        {select("polishing", "Polishing")}
        {select("polisher", "Polished with")}
        {select("runSchool", "Runs by")}
        {select("guardCut", "Guard filler cut")}
        {select("nibTool", "Nibs by")}
      </div>
    </section>
  );
}

/** Kept, or put away. */
function Presses({ version, read }: { version: number | null; read: ReadTyped<HouseWayBody> }) {
  return (
    <div className="flex flex-wrap gap-2">
      {version !== null && (
        <button className="press" data-kind="main" name="intent" value="keep" disabled={!read.success}>
          Keep the changes
        </button>
      )}
      <button className="press" {...(version === null ? { "data-kind": "main" } : {})} name="intent" value="copy" disabled={!read.success}>
        Keep as a way of our own
      </button>
      {version !== null && (
        <button className="press" data-kind="quiet" name="intent" value="away">
          Put away
        </button>
      )}
    </div>
  );
}
