import { later, useLater } from "~/kit/root/later";
import { Link } from "react-router";
import type { ReactNode } from "react";
import type { MixInput, MixPlan } from "#core/models/mix/mix-plan";
import { reserveOf } from "#core/models/mix/amount";
import { secondPots } from "#core/models/mix/second-pot";
import type { ProductSheet } from "#core/models/product/sheet";
import { show, showFilm, showWait, showWithUncertainty } from "#core/kernel/units/format";
import { useUnits } from "~/kit/root/use-root";
import { Figure } from "~/kit/ui/figure";
import { ScrollRegion } from "~/kit/ui/scroll-region";
import { Tag } from "~/kit/ui/tag";
import { areaText } from "~/kit/words/area-text";
import type { MixWorkings } from "./mix-asked";

/** Where the sheet has a cup time: fetched after the rest. */
const CUP_TIMES = later(() => import("./cup-times"));

/** A can that a part may come out of. */
export interface CanChoice {
  id: string;
  batch: string;
  words: string;
}

interface OutOf {
  /** Cans of a part in the order in which to use them up, and which is chosen. */
  cansOf?: ((name: string) => readonly CanChoice[]) | undefined;
  canOf: (name: string) => string;
  onCan: (name: string, canId: string) => void;
}
interface Landing {
  /** So many coats are on already. */
  on: number;
  /** What a coat of these has over the reducer of the mix. */
  moreOf?: ((number: number) => number) | undefined;
  /** Wet film of a coat as it lands, at a reducer; null: the model does not reach. */
  wetOf?: ((number: number, reducer: number) => number | null) | undefined;
}

type MixResultProps = OutOf &
  Landing & {
    plan: MixPlan;
    input: MixInput;
    sheet: ProductSheet;
    byStrokes: boolean;
    workings: MixWorkings;
    /** The field of the place's own limit, and what is typed there. */
    limit: ReactNode;
    vocLimit_kg_m3: number | null;
  };

/** The mix: how much, of what, coat by coat and pot by pot, how long it lives and what it gives off. */
export function MixResult({
  plan,
  input,
  sheet,
  on,
  byStrokes,
  cansOf,
  canOf,
  onCan,
  wetOf,
  moreOf,
  workings,
  limit,
  vocLimit_kg_m3,
}: MixResultProps) {
  const cups = useLater(CUP_TIMES, sheet.viscosity !== null);
  const units = useUnits();
  const ml = (m3: number) => show("volume", m3, units);
  const ready = showWithUncertainty("volume", plan.amount.ready_m3, plan.amount.u_ready_m3, units);
  return (
    <section aria-label="The mix" className="min-w-0 space-y-5">
      <Figure
        label="ready to spray"
        shown={ready}
        note={`for ${areaText(plan.amount.area_m2, units)}, ${showFilm(plan.amount.dryTotal_m, units).text} ${units.film} dry in all${byStrokes ? `; by area alone ${ml(plan.byArea_m3).text}` : ""}`}
        working={workings.mix}
      />
      <PartsTable {...{ plan, cansOf, canOf, onCan }} />
      {plan.missingDensity.length > 0 && (
        <p className="text-amber-ink">
          By weight is not possible yet: no density for {plan.missingDensity.join(" and ")}.{" "}
          <Link to="/shelf" className="underline">
            Type it from the sheet
          </Link>
          .
        </p>
      )}
      <CoatsAndPots {...{ plan, on, wetOf }} />
      <SecondPots {...{ plan, on, moreOf }} />
      <Reserve plan={plan} />
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
            {...(vocLimit_kg_m3 !== null && plan.voc.regulatory_kg_m3 > vocLimit_kg_m3 ? { tone: "stop" as const } : {})}
          />
        )}
      </div>
      {sheet.viscosity && cups && <cups.CupTimes sheet={sheet} />}
      <div className="flex flex-wrap items-end gap-3">
        <div className="w-44">{limit}</div>
        {vocLimit_kg_m3 !== null && plan.voc && (
          <Tag kind={plan.voc.regulatory_kg_m3 > vocLimit_kg_m3 ? "stop" : "good"}>
            {plan.voc.regulatory_kg_m3 > vocLimit_kg_m3 ? "Over the limit you typed" : "Under the limit you typed"}
          </Tag>
        )}
      </div>
      <p className="text-[13px] text-ink2">
        No law is built in: the limit stands in your place’s emission rules and on the technical data sheet.
        {plan.voc === null && " The VOC figure needs density and VOC of every part on the shelf."}
      </p>
    </section>
  );
}

/** The parts in their order: by volume, by weight, up to what the scale shows, and out of which can. */
function PartsTable({ plan, cansOf, canOf, onCan }: OutOf & { plan: MixPlan }) {
  const units = useUnits();
  const ml = (m3: number) => show("volume", m3, units);
  return (
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
                <OutOfCan cans={cansOf?.(p.name) ?? []} value={canOf(p.name)} onChange={(canId) => onCan(p.name, canId)} />
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
  );
}

/** What each coat takes, and out of which pot. */
function CoatsAndPots({ plan, on, wetOf }: Landing & { plan: MixPlan }) {
  const units = useUnits();
  const ml = (m3: number) => show("volume", m3, units);
  return (
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
  );
}

/** What is taken aside and thinned for coats that are sprayed wetter. */
function SecondPots({ plan, on, moreOf }: Pick<Landing, "on" | "moreOf"> & { plan: MixPlan }) {
  const units = useUnits();
  const pots = moreOf
    ? secondPots(
        plan.coats.map((c) => ({ ...c, more: moreOf(c.number) })),
        plan.reducerOnActivated,
      )
    : [];
  const ml = (m3: number) => `${show("volume", m3, units).text} ${units.volume}`;
  return pots.map((p) => (
    <p key={p.reducer} data-testid="second-pot">
      <b className="font-semibold">A second, wetter pot for {p.coats.map((n) => `coat ${on + n}`).join(" and ")}:</b> {ml(p.ofMix_m3)} of
      the mix with {ml(p.more_m3)} reducer more, {Math.round(1000 * p.reducer) / 10} % in all. Thin it when its coat is next.
    </p>
  ));
}

/** So that the last panel is not the one that runs dry. */
function Reserve({ plan }: { plan: MixPlan }) {
  const units = useUnits();
  const reserve_m3 = reserveOf(plan.amount);
  return (
    <p className="text-ink2" data-testid="mix-reserve">
      {show("volume", plan.amount.ready_m3 + reserve_m3, units).text} {units.volume} in all lasts 19 times of 20: have{" "}
      {show("volume", reserve_m3, units).text} more at hand.
    </p>
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
