import { useDraft } from "~/kit/draft/use-draft";
import { Link } from "react-router";
import { Suspense, lazy, useEffect, useMemo, useState } from "react";
import { FLOW_CUPS, FLOW_CUP_IDS, cupFromViscosity, viscosityFromCup } from "#core/models/product/flow-cup";
import { REDUCER_MEANINGS, type ReducerMeaning } from "#core/models/product/ratio";
import type { MixInput, MixPlan } from "#core/models/mix/mix-plan";
import { secondPartOf } from "#core/models/product/roles";
import { boundTo } from "#core/models/product/bound-to";
import type { HardenerToday } from "#core/models/flow/hardener-today";
import type { AnySheet, PartSheet, ProductSheet } from "#core/models/product/sheet";
import { show, showFilm, showWait, showWithUncertainty } from "#core/kernel/units/format";
import type { UnitPreferences } from "#core/kernel/units/quantities";
import type { MixTyped } from "./mix.form";
import { startTyped } from "./mix-start";
import { later, useLater } from "~/kit/root/later";
import { useUnits } from "~/kit/root/use-root";
import { Toggle } from "~/kit/ui/toggle";
import { Field, SelectField } from "~/kit/ui/field";
import { Figure } from "~/kit/ui/figure";
import { ScrollRegion } from "~/kit/ui/scroll-region";
import { Tag } from "~/kit/ui/tag";
import { hardenerWords } from "~/kit/words/hardener-words";
import type { PouredMix } from "./pour-guide";
import { useMixPlan } from "./use-mix-plan";
import { InUnits } from "~/kit/ui/in-units";
import { areaText } from "~/kit/words/area-text";

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
export interface CanChoice {
  id: string;
  batch: string;
  words: string;
}

/** Here once something is poured. */
const PourGuide = lazy(() => import("./pour-guide").then((m) => ({ default: m.PourGuide })));
const NONE_JUDGED: readonly HardenerToday[] = [];

/** How its figures came about: fetched with the tap that asks, or when idle: the server may be away by then. */
const workingWords = later(() => import("~/kit/words/mix-workings"));
function workingsOf(plan: MixPlan, input: MixInput, units: UnitPreferences) {
  const make = (which: "mixWorking" | "potWorking" | "vocWorking") => () =>
    workingWords.get().then((words) => words[which](plan, input, units));
  return { mix: make("mixWorking"), pot: make("potWorking"), voc: make("vocWorking") };
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
  onPlan,
  onDone,
  doneLabel,
  busy = false,
}: {
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
  onPlan?: (plan: MixPlan | null) => void;
  onDone?: (done: MixDone) => void;
  doneLabel?: string;
  busy?: boolean;
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
  const [pouring, setPouring] = useState(false);
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
  useEffect(() => onPlan?.(plan), [plan, onPlan]);
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
      <h2 className="max-w-[26em] text-[31px] leading-[1.12] font-semibold tracking-tight" data-testid="mix-sentence">
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
      {plan && (
        <div className="mt-2 mb-4 flex min-h-8 flex-wrap gap-2">
          {partner && !input?.blend && <Tag kind="caution">No matting share: this would be {sheet.name} alone</Tag>}
          {plan.reduction.beyondSheet && <Tag kind="caution">More reducer than the sheet allows</Tag>}
          {plan.outsideWindow && <Tag kind="stop">{plan.outsideWindow}</Tag>}
          {plan.potFault && <Tag kind="stop">{plan.potFault}</Tag>}
          {plan.potLife.how === "only point" && (
            <Tag kind="open">
              <InUnits>The sheet gives one pot life, at 20 °C</InUnits>
            </Tag>
          )}
          {plan.potLife.how === "outside" && <Tag kind="caution">Temperature is far outside the sheet</Tag>}
          {plan.amount.ready_m3 > worked.potCapacity_m3 && <Tag kind="stop">The pot is too small for all of it</Tag>}
        </div>
      )}
      <div className="grid gap-x-8 gap-y-8 xl:grid-cols-[0.9fr_1fr]">
        <section aria-label="What to mix" className="space-y-5">
          {areasEditor}
          <div className="grid grid-cols-2 items-start gap-3 sm:grid-cols-3">
            {field("ratio", "Ratio by volume")}
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
        {plan && input && ready && workings && (
          <section aria-label="The mix" className="min-w-0 space-y-5">
            <Figure
              label="ready to spray"
              shown={ready}
              note={`for ${areaText(plan.amount.area_m2, units)}, ${showFilm(plan.amount.dryTotal_m, units).text} ${units.film} dry in all${strokes ? `; by area alone ${ml(plan.byArea_m3).text}` : ""}`}
              working={workings.mix}
            />
            <ScrollRegion label="Parts of the mix" narrow>
              <table className="w-full text-left [&_td]:py-2" data-testid="mix-parts">
                <thead className="small-label border-b border-hair">
                  <tr>
                    <th className="py-2">In this order</th>
                    <th>{units.volume}</th>
                    <th>g</th>
                    <th>on the scale, g</th>
                    <th>cup</th>
                  </tr>
                </thead>
                <tbody>
                  {plan.parts.map((p, i) => (
                    <tr key={p.role} className="border-b border-hair">
                      <td>
                        <span className="font-semibold">{p.name}</span>
                        <OutOfCan
                          cans={cansOf?.(p.name) ?? []}
                          value={canOf(p.name)}
                          onChange={(canId) =>
                            draft.set("cans", (now) => [...now.filter((c) => c.name !== p.name), { name: p.name, canId }])
                          }
                        />
                      </td>
                      <td>{ml(p.volume_m3).text}</td>
                      <td>{show("mass", plan.targets?.[i]?.mass_kg, units).text}</td>
                      <td>{show("mass", plan.targets?.[i]?.upTo_kg, units).text}</td>
                      <td>{show("share", p.mark, units, 0).text} %</td>
                    </tr>
                  ))}
                </tbody>
              </table>
            </ScrollRegion>
            {plan.missingDensity.length > 0 && (
              <p className="text-amber-ink">
                By weight is not possible yet: no density for {plan.missingDensity.join(" and ")}.{" "}
                <Link to="/shelf" className="underline">
                  Type it from the sheet
                </Link>
                .
              </p>
            )}
            <ul className="border-t border-hair" aria-label="Coats and pots">
              {plan.coats.map((c) => {
                const pot = plan.pots?.findIndex((p) => p.coats.includes(c.number)) ?? -1;
                const first = pot >= 0 && plan.pots![pot]!.coats[0] === c.number;
                return (
                  <li key={c.number} className="flex flex-wrap justify-between gap-x-4 border-b border-hair py-2">
                    <span>
                      <b className="font-semibold">Coat {on + c.number}</b>{" "}
                      {showFilm(wetOf?.(c.number, plan.reducerOnActivated) ?? c.wet_m, units).text} wet, {showFilm(c.dry_m, units).text}{" "}
                      {units.film} dry
                    </span>
                    <span className="text-ink2">
                      {ml(c.volume_m3).text} {units.volume}
                      {plan.pots &&
                        plan.pots.length > 1 &&
                        `, pot ${pot + 1}${first && pot > 0 ? `: mix it ${showWait(plan.pots[pot]!.mixAt_s)} after coat ${on + 1} starts` : ""}`}
                    </span>
                  </li>
                );
              })}
            </ul>
            <div className="flex flex-wrap gap-x-10 gap-y-4">
              <Figure
                size="middle"
                label={`pot life at ${show("temperature", input.temperature_K, units, 0).text} ${units.temperature}`}
                shown={show("duration", plan.potLife.time_s, units)}
                working={workings.pot}
              />
              {plan.voc && (
                <Figure
                  size="middle"
                  label="VOC, regulatory form"
                  shown={show("concentration", plan.voc.regulatory_kg_m3, units)}
                  note={`actual ${show("concentration", plan.voc.actual_kg_m3, units).text} g/l`}
                  working={workings.voc}
                  {...(worked.vocLimit_kg_m3 !== null && plan.voc.regulatory_kg_m3 > worked.vocLimit_kg_m3
                    ? { tone: "stop" as const }
                    : {})}
                />
              )}
            </div>
            {sheet.viscosity && <CupTimes sheet={sheet} />}
            <div className="flex flex-wrap items-end gap-3">
              <div className="w-44">{field("limit", "Your place's VOC limit", "g/l")}</div>
              {worked.vocLimit_kg_m3 !== null && plan.voc && (
                <Tag kind={plan.voc.regulatory_kg_m3 > worked.vocLimit_kg_m3 ? "stop" : "good"}>
                  {plan.voc.regulatory_kg_m3 > worked.vocLimit_kg_m3 ? "Over the limit you typed" : "Under the limit you typed"}
                </Tag>
              )}
            </div>
            <p className="text-[13px] text-ink2">
              No law is built in: the limit stands in your place’s emission rules and on the technical data sheet.
              {plan.voc === null && " The VOC figure needs density and VOC of every part on the shelf."}
            </p>
          </section>
        )}
      </div>
      {plan && input && (
        <section className="mt-8" aria-labelledby="reduce-title">
          <h3 id="reduce-title" className="text-lg font-semibold">
            What reducing costs, at the same wet film
          </h3>
          <ScrollRegion label="Schools of reducing" className="mt-2">
            <table className="w-full text-left [&_td]:py-2">
              <thead className="small-label border-b border-hair">
                <tr>
                  <th className="py-2">School</th>
                  <th>Reducer on top</th>
                  <th>Dry a coat, {units.film}</th>
                  <th>Coats for the film</th>
                  <th>Film lost</th>
                </tr>
              </thead>
              <tbody>
                {[
                  { id: "now", name: "As typed", how: "your figures", reducer: plan.reducerOnActivated, cost: plan.reduction },
                  ...plan.schools,
                ].map((s) => (
                  <tr key={s.id} className="border-b border-hair">
                    <td>
                      <b className="font-semibold">{s.name}</b> <span className="text-[13px] text-ink2">{s.how}</span>
                    </td>
                    <td>{show("share", s.reducer, units, 0).text} %</td>
                    <td>{show("film", s.cost.dryPerCoat_m, units).text}</td>
                    <td>{s.cost.coats.toFixed(1)}</td>
                    <td>{s.cost.lossAgainstSheet > 0 ? `${show("share", s.cost.lossAgainstSheet, units, 0).text} %` : "none"}</td>
                  </tr>
                ))}
              </tbody>
            </table>
          </ScrollRegion>
        </section>
      )}
      {plan?.targets && input && (
        <section className="mt-8" aria-labelledby="pour-title">
          <div className="flex flex-wrap items-center gap-3">
            <h3 id="pour-title" className="mr-auto text-lg font-semibold">
              Pour it on the scale
            </h3>
            <button type="button" className="press" aria-expanded={pouring} onClick={() => setPouring((p) => !p)}>
              {pouring ? "Close the pour guide" : "Open the pour guide"}
            </button>
            {onDone && !pouring && (
              <button
                type="button"
                className="press"
                data-kind="main"
                disabled={busy}
                onClick={() => onDone({ plan, input, poured: null, cans: chosenCans(plan) })}
              >
                {busy ? "Storing…" : doneLabel}
              </button>
            )}
          </div>
          {pouring && (
            <Suspense>
              <PourGuide
                key={plan.targets.map((t) => t.role).join()}
                parts={plan.parts.map((p) => ({ role: p.name, share: p.share, density_kg_m3: p.density_kg_m3! }))}
                volume_m3={plan.amount.ready_m3}
                capacity_m3={worked.potCapacity_m3}
                busy={busy}
                {...(onDone && doneLabel
                  ? { doneLabel, onDone: (poured: PouredMix) => onDone({ plan, input, poured, cans: chosenCans(plan) }) }
                  : {})}
              />
            </Suspense>
          )}
        </section>
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

/** Which can a part comes out of: the one to use first, unless another is chosen. */
function OutOfCan({ cans, value, onChange }: { cans: readonly CanChoice[]; value: string; onChange: (canId: string) => void }) {
  if (cans.length === 0) return null;
  return (
    <select
      className="field mt-1 block max-w-60 text-[13px]"
      aria-label="Out of can"
      value={value}
      onChange={(e) => onChange(e.target.value)}
    >
      {cans.map((c) => (
        <option key={c.id} value={c.id}>
          can {c.batch || "without batch"}: {c.words}
        </option>
      ))}
      <option value="none">another can</option>
    </select>
  );
}

/** The sheet's cup time in the cups a shop may have. */
function CupTimes({ sheet }: { sheet: ProductSheet }) {
  const units = useUnits();
  if (!sheet.viscosity) return null;
  const nu = viscosityFromCup(sheet.viscosity.cup, sheet.viscosity.efflux_s);
  const times = FLOW_CUP_IDS.flatMap((cup) => {
    try {
      return [`${FLOW_CUPS[cup].name} ${show("seconds", cupFromViscosity(cup, nu), units).text} s`];
    } catch (error) {
      if (!(error instanceof RangeError)) throw error;
      return []; // this cup is not meant for so thin or thick a liquid
    }
  });
  return (
    <p className="text-[14px] text-ink2">
      By the sheet it runs at {show("viscosity", nu, units).text} mm²/s, at{" "}
      {show("temperature", sheet.viscosity.temperature_K, units, 0).text} {units.temperature}: {times.join(", ")}.
    </p>
  );
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
