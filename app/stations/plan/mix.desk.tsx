import { useDraft } from "~/kit/draft/use-draft";
import { Suspense, lazy, useEffect, useMemo } from "react";
import { REDUCER_MEANINGS, type ReducerMeaning } from "#core/models/product/ratio";
import type { MixInput, MixPlan } from "#core/models/mix/mix-plan";
import { secondPartOf } from "#core/models/product/roles";
import { boundTo } from "#core/models/product/bound-to";
import type { HardenerToday } from "#core/models/flow/hardener-today";
import type { AnySheet, PartSheet, ProductSheet } from "#core/models/product/sheet";
import { show, showWait, showWithUncertainty, type Shown } from "#core/kernel/units/format";
import type { MixTyped } from "./mix.form";
import { startTyped } from "./mix-start";
import { useLater } from "~/kit/root/later";
import { useUnits } from "~/kit/root/use-root";
import { Toggle } from "~/kit/ui/toggle";
import { Field, SelectField } from "~/kit/ui/field";
import { hardenerWords } from "~/kit/words/hardener-words";
import type { PouredMix } from "./pour-guide";
import { workingWords, workingsOf } from "./mix-asked";
import { PourSection } from "./mix-pour";
import { type CanChoice, MixResult } from "./mix-result";
import { MixRatio } from "./mix-ratio";
import { MixTags } from "./mix-tags";
import { useMixPlan, type MixWorked } from "./use-mix-plan";

/** Drawn with the page, below the amounts: it is read, not touched. */
const ReductionCosts = lazy(() => import("./mix-costs").then((m) => ({ default: m.ReductionCosts })));

export interface PartItem {
  id: string;
  sheet: PartSheet;
}
export interface MixDone {
  plan: MixPlan;
  input: MixInput;
  poured: PouredMix | null;
  /** The can that each part comes out of. */
  cans: { name: string; canId: string; batch: string }[];
}

const NONE_JUDGED: readonly HardenerToday[] = [];

type MixDraft = ReturnType<typeof useMixDraft>["draft"];

interface MixDeskProps {
  sheet: ProductSheet;
  parts: readonly PartItem[];
  areas: MixInput["areas"];
  areasEditor: React.ReactNode;
  coats: number;
  /** So many are on already. */
  on?: number;
  /** Dry film of a coat as its owner forecasts it, and the reducer as it stands; the sheet's where no panel is asked. */
  film_m?: number | undefined;
  reducer?: number | undefined;
  /** Material by the gun's strokes, and how long it takes, coat by coat. */
  strokes?: (coats: number) => number[];
  times?: (coats: number) => number[];
  air_K: number;
  /** What a matte clear is blended with, and the share that was chosen for its gloss. */
  partner?: AnySheet | null;
  matting?: number | null;
  /** What the flow model says of each hardener today. */
  judged?: readonly HardenerToday[];
  /** Cans of a part in the order in which to use them up. */
  cansOf?: (name: string) => readonly CanChoice[];
  /** Wet film of a coat as it lands with the gun in the hand, at a reducer; null: the model does not reach. */
  wetOf?: (number: number, reducer: number) => number | null;
  /** What a coat has over the reducer of the mix. */
  moreOf?: (number: number) => number;
  onPlan?: (plan: MixPlan | null) => void;
  onDone?: (done: MixDone) => void;
  doneLabel?: string;
  busy?: boolean;
}

/** How much to mix, of what, by volume and by weight, how long it lives, what it gives off, and a guide while it is poured. */
export function MixDesk({
  sheet,
  parts,
  areas,
  areasEditor,
  coats,
  on = 0,
  film_m,
  reducer,
  strokes,
  times,
  air_K,
  partner = null,
  matting = null,
  judged = NONE_JUDGED,
  cansOf,
  wetOf,
  moreOf,
  onPlan,
  onDone,
  doneLabel,
  busy = false,
}: MixDeskProps) {
  const units = useUnits();
  const { plan, draft, typed, errors, input, worked, hardened, hardenerId, hardeners, thinnerId, thinners } = useMixDraft({
    sheet,
    parts,
    judged,
    coats,
    film_m,
    reducer,
    air_K,
    matting,
    partner,
    areas,
    strokes,
    times,
  });
  useEffect(() => {
    onPlan?.(plan);
  }, [plan, onPlan]);
  const set = (name: keyof MixTyped) => draft.field(name).onChange;
  const field = (name: keyof MixTyped, label: string, unit?: string, hint?: string) => (
    <Field
      label={label}
      {...(unit ? { unit } : {})}
      name={name}
      value={typed[name]}
      onChange={set(name)}
      errors={errors[name]}
      {...(hint ? { hint } : {})}
    />
  );
  const canOf = (name: string) => draft.typed.cans.find((c) => c.name === name)?.canId ?? cansOf?.(name)[0]?.id ?? "";
  const chosenCans = (p: MixPlan) =>
    p.parts.flatMap(({ name }) => {
      const can = cansOf?.(name).find((c) => c.id === canOf(name));
      return can ? [{ name, canId: can.id, batch: can.batch }] : [];
    });
  const ml = (m3: number) => show("volume", m3, units);
  useLater(workingWords, false);
  const workings = useMemo(() => plan && input && workingsOf(plan, input, units), [plan, input, units]);
  const ready = plan && showWithUncertainty("volume", plan.amount.ready_m3, plan.amount.u_ready_m3, units);
  return (
    <>
      <Heading {...{ plan, ready, ml, worked }} />
      {plan && <MixTags plan={plan} unblended={partner && !input?.blend ? sheet.name : null} potCapacity_m3={worked.potCapacity_m3} />}
      {plan?.targets && input && (
        <PourSection
          plan={plan}
          capacity_m3={worked.potCapacity_m3}
          {...{ doneLabel, busy }}
          {...(onDone ? { onDone: (poured: PouredMix | null) => onDone({ plan, input, poured, cans: chosenCans(plan) }) } : {})}
        />
      )}
      <div className="grid gap-x-8 gap-y-8 xl:grid-cols-[0.9fr_1fr]">
        <WhatToMix
          {...{ areasEditor, field, typed, draft, hardened, hardenerId, hardeners, thinnerId, thinners, partner, judged, errors }}
        />
        {plan && input && workings && (
          <MixResult
            {...{ plan, input, sheet, on, cansOf, canOf, workings, wetOf, moreOf }}
            byStrokes={strokes !== undefined}
            onCan={(name, canId) => draft.set("cans", (now) => [...now.filter((c) => c.name !== name), { name, canId }])}
            limit={field("limit", "Your place's VOC limit", "g/l")}
            vocLimit_kg_m3={worked.vocLimit_kg_m3}
          />
        )}
      </div>
      {plan && (
        <Suspense>
          <ReductionCosts plan={plan} />
        </Suspense>
      )}
      <p className="mt-8 max-w-[75ch] text-[13px] text-ink2">
        Stir, do not shake: shaking makes micro-foam. Strain into the cup.{" "}
        {hardened
          ? "No wooden stick in a hardened mix. Hardeners contain isocyanates: gloves, eye protection and the breathing protection the safety data sheet asks for, also while mixing."
          : "No hardener goes in by this sheet. Solvent all the same: gloves, eye protection and the breathing protection the safety data sheet asks for, nothing near that can ignite."}
      </p>
    </>
  );
}

/** The mix in a sentence. */
function Heading({ plan, ready, ml, worked }: { plan: MixPlan | null; ready: Shown | null; ml: (m3: number) => Shown; worked: MixWorked }) {
  const units = useUnits();
  return (
    <h2 className="max-w-[26em] text-[25px] leading-[1.12] sm:text-[31px] font-semibold tracking-tight" data-testid="mix-sentence">
      {plan && ready ? (
        <>
          Mix{" "}
          <em className="text-glow-ink not-italic">
            {ml(plan.amount.ready_m3).text}&nbsp;{units.volume}
          </em>{" "}
          {plan.pots && plan.pots.length > 1
            ? `in ${plan.pots.length} pots; each lives ${showWait(plan.potLife.time_s)}.`
            : `in one pot; it lives ${showWait(plan.potLife.time_s)}.`}
        </>
      ) : (
        (worked.fault ?? "A figure is missing or wrong; it says where.")
      )}
    </h2>
  );
}

interface WhatToMixProps {
  areasEditor: React.ReactNode;
  field: (name: keyof MixTyped, label: string, unit?: string, hint?: string) => React.JSX.Element;
  typed: MixDraft["typed"];
  draft: MixDraft;
  hardened: boolean;
  hardenerId: string;
  hardeners: readonly PartItem[];
  thinnerId: string;
  thinners: readonly PartItem[];
  partner: AnySheet | null;
  judged: readonly HardenerToday[];
  errors: Partial<Record<keyof MixTyped, string[]>>;
}

/** What is mixed, for how much, in which air. */
function WhatToMix({
  areasEditor,
  field,
  typed,
  draft,
  hardened,
  hardenerId,
  hardeners,
  thinnerId,
  thinners,
  partner,
  judged,
  errors,
}: WhatToMixProps) {
  const units = useUnits();
  return (
    <section aria-label="What to mix" className="space-y-5">
      {areasEditor}
      <div className="grid grid-cols-2 items-start gap-3 sm:grid-cols-3">
        <MixRatio draft={draft} errors={errors.ratio} />
        {field("reducer", "Reducer", "%")}
        <div>
          <span className="small-label mb-1 block">Meant</span>
          <Toggle
            label="What the reducer is a share of"
            value={typed.meaning}
            onChange={(v) => draft.set("meaning", v)}
            options={[
              { value: "activated", name: "on top" },
              { value: "finished", name: "of all" },
            ]}
          />
          <p className="mt-1 text-[13px] text-ink2">{REDUCER_MEANINGS[typed.meaning as ReducerMeaning]}</p>
        </div>
        {field("coats", "Coats")}
        {field("film", "Film a coat, dry", units.film)}
        {field("transfer", "Lands on the part", "%")}
        {field("waste", "Waste", "%")}
        {field("dead", "Stays in gun and cup", units.volume)}
        {field("temperature", "Air", units.temperature)}
        {hardened && (
          <SelectField label="Hardener" value={hardenerId} onChange={draft.field("hardenerId").onChange}>
            <PartOptions items={hardeners} />
          </SelectField>
        )}
        <SelectField label="Reducer" value={thinnerId} onChange={draft.field("thinnerId").onChange}>
          <PartOptions items={thinners} />
        </SelectField>
        {field("pot", "Pot holds", units.volume)}
        {partner && field("matting", "Matting component", "% by weight", `with ${partner.name}`)}
      </div>
      {judged.length > 0 && (
        <ul className="text-[14px] text-ink2" aria-label="Hardeners today">
          {judged.map((j) => (
            <li key={j.name} className={j.best ? "font-semibold text-ink" : ""}>
              {hardenerWords(j)}
            </li>
          ))}
        </ul>
      )}
    </section>
  );
}

/** The mix as it is typed, worked out. */
function useMixDraft({
  sheet,
  parts,
  judged,
  coats,
  film_m,
  reducer,
  air_K,
  matting,
  partner,
  areas,
  strokes,
  times,
}: {
  sheet: ProductSheet;
  parts: readonly PartItem[];
  judged: readonly HardenerToday[];
  coats: number;
  film_m: number | undefined;
  reducer: number | undefined;
  air_K: number;
  matting: number | null;
  partner: AnySheet | null;
  areas: readonly { area_m2: number; bothSides: boolean }[];
  strokes: ((coats: number) => number[]) | undefined;
  times: ((coats: number) => number[]) | undefined;
}) {
  const units = useUnits();
  const hardened = secondPartOf(sheet) === "hardener";
  const hardeners = useMemo(() => (hardened ? boundTo(sheet, parts, "hardener") : []), [hardened, sheet, parts]);
  const thinners = boundTo(sheet, parts, "reducer");
  const best = hardeners[judged.findIndex((j) => j.best)]?.id;
  const ofItsSpeed = (list: readonly PartItem[]) => list.find((h) => h.sheet.speed === sheet.speed)?.id ?? list[0]?.id ?? "";
  const draft = useDraft(
    `mix ${sheet.name}`,
    {
      ...startTyped(sheet, { coats, film_m, reducer, air_K, matting }, units),
      hardenerId: best ?? ofItsSpeed(hardeners),
      thinnerId: ofItsSpeed(thinners),
      cans: [] as readonly { name: string; canId: string }[],
    },
    { film: "film", dead: "volume", temperature: "temperature", pot: "volume" },
  );
  const { typed } = draft;
  const { hardenerId, thinnerId } = typed;
  const worked = useMixPlan(typed, units, {
    sheet,
    hardener: hardeners.find((h) => h.id === hardenerId)?.sheet ?? null,
    thinner: thinners.find((t) => t.id === thinnerId)?.sheet ?? null,
    partner,
    areas,
    strokes,
    times,
  });
  const { plan, input, errors } = worked;
  return { plan, draft, typed, errors, input, worked, hardened, hardenerId, hardeners, thinnerId, thinners };
}

function PartOptions({ items }: { items: readonly PartItem[] }) {
  return (
    <>
      {items.length === 0 && <option value="">none on the shelf</option>}
      {items.map((i) => (
        <option key={i.id} value={i.id}>
          {i.sheet.name}
        </option>
      ))}
    </>
  );
}
