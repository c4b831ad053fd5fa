import { memo } from "react";
import { regionOfPlan } from "#core/panel/builds";
import type { ZonePlan } from "#core/judge/zone-plan";
import type { PlanZone } from "#core/judge/zone-setting";
import type { PlanStep } from "#core/record/bodies";
import { show, showWithUncertainty } from "#core/kernel/units/format";
import { useUnits } from "~/kit/root/use-root";
import { defectMarks } from "~/kit/panel/defect-marks";
import { PanelDrawing } from "~/kit/panel/panel-drawing";
import { usePanel } from "~/kit/panel/use-panel";
import { WorkingButton } from "~/kit/ui/figure";
import { ScrollRegion } from "~/kit/ui/scroll-region";
import { chainText, lookForWords, stepFacts, zoneChance, zoneName, zoneWay, zoneWorking } from "~/kit/words/zone-words";
import { ZoneLayer } from "./zone-layer";
import { InUnits } from "~/kit/ui/in-units";
import { areaText } from "~/kit/words/area-text";

/** The plan on the panel: zones to scale, what each needs and leaves, the order of work, and what it uses up. */
export const ZoneView = memo(function ZoneView({
  plan,
  chances,
  rim_m,
}: {
  plan: ZonePlan;
  /** Chance of cutting through of each zone; null while the judge is asked, or knows nothing. */
  chances: readonly (number | null)[] | null;
  rim_m: number;
}) {
  const { view } = usePanel();
  const units = useUnits();
  const { panel, state } = view;
  return (
    <section className="mt-8 space-y-6" aria-labelledby="zones-title">
      <h3 id="zones-title" className="text-lg font-semibold">
        Zones
      </h3>
      <div className="grid gap-x-8 gap-y-5 xl:grid-cols-[1fr_1.5fr]">
        <PanelDrawing
          shape={panel.shape}
          defects={defectMarks(state.defects, units)}
          label={`${panel.name}, zones of the plan: ${plan.zones.map((z) => `${zoneName(z)} ${zoneWay(z)}`).join(", ")}`}
          underlay={<ZoneLayer shape={panel.shape} zones={plan.zones} rim_m={rim_m} region={regionOfPlan(plan)} />}
        />
        <div className="min-w-0">
          <ScrollRegion label="Zones of the plan" narrow>
            <table className="w-full text-left">
              <thead className="small-label border-b border-hair">
                <tr>
                  <th className="py-2">Zone</th>
                  <th>Comes off, {units.film}</th>
                  <th>Left, {units.film}</th>
                  <th>Cut through</th>
                  <th>min</th>
                </tr>
              </thead>
              <tbody>
                {plan.zones.map((z, i) => (
                  <ZoneRow key={`${z.kind}${z.elsewhere ? " elsewhere" : ""}`} zone={z} chance={chances?.[i] ?? null} />
                ))}
              </tbody>
            </table>
          </ScrollRegion>
          {plan.unproved.length > 0 && (
            <p role="alert" className="mt-2 font-semibold text-stop-ink">
              One step finds deeper marks than it clears in three passes: a grit belongs between. Take more sanding steps.
            </p>
          )}
          <p className="mt-2 text-[13px] text-ink2">
            In every zone each step goes on until the marks of the one before are gone. Minutes and amounts are defaults of this program.
          </p>
        </div>
      </div>
      <div className="grid gap-x-10 gap-y-6 md:grid-cols-[1.5fr_1fr]">
        <div>
          <h3 className="text-lg font-semibold">Order of work, about {showMinutes(plan.minutes)}</h3>
          <OrderOfWork steps={plan.steps} />
        </div>
        <div className="space-y-5">
          <div>
            <h3 className="text-lg font-semibold">To have at hand</h3>
            <ul className="mt-2 border-t border-hair">
              {plan.consumables.map((c) => (
                <li key={c.what} className="flex justify-between gap-4 border-b border-hair py-1.5">
                  <span>
                    <InUnits>{c.what}</InUnits>
                  </span>
                  <b className="font-semibold whitespace-nowrap">{amountText(c, units)}</b>
                </li>
              ))}
            </ul>
          </div>
          <ul className="list-disc space-y-1 pl-5 text-[14px]">
            {plan.cautions.map((c) => (
              <li key={c}>{c}</li>
            ))}
          </ul>
        </div>
      </div>
    </section>
  );
});

function ZoneRow({ zone: z, chance }: { zone: PlanZone; chance: number | null }) {
  const units = useUnits();
  const off = showWithUncertainty("film", z.removal.removal_m, z.removal.u_m, units);
  return (
    <tr className="border-b border-hair align-top" data-testid={`zone-${z.kind}${z.elsewhere ? "-elsewhere" : ""}`}>
      <td className="py-1.5 pr-3">
        <WorkingButton working={zoneWorking(z, units)} label={`${zoneName(z)}: show the working`}>
          <b className="font-semibold">{zoneName(z)}</b>
          <span className="block text-[13px] text-ink2">
            {zoneWay(z)}, {areaText(z.area_m2, units)}
          </span>
          {z.chain.length > 0 && <span className="block text-[13px] text-ink2">{chainText(z)}</span>}
        </WorkingButton>
      </td>
      <td className="py-1.5 pr-3 whitespace-nowrap">{z.way === "left" ? "nothing" : off.text}</td>
      <td className="py-1.5 whitespace-nowrap">
        {z.left ? showWithUncertainty("film", z.left.clear_m, z.left.u_m, units).text : "not read"}
      </td>
      <td className="py-1.5 pr-2">{zoneChance(z, chance)}</td>
      <td className="py-1.5">{z.minutes > 0 ? Math.round(z.minutes) : "–"}</td>
    </tr>
  );
}

/** The steps in their order, each with its tool, what to do and what to look for. */
export function OrderOfWork({ steps }: { steps: readonly PlanStep[] }) {
  const units = useUnits();
  return (
    <ol className="mt-2 border-t border-hair">
      {steps.map((s, i) => (
        <li key={i} className="grid grid-cols-[28px_1fr] gap-2 border-b border-hair py-2">
          <span className="font-semibold text-ink2">{i + 1}</span>
          <StepText step={s} facts={stepFacts(s, units)} />
        </li>
      ))}
    </ol>
  );
}

export function StepText({ step: s, facts, brief = false }: { step: PlanStep; facts: string; brief?: boolean }) {
  return (
    <div>
      <p>
        <b className="font-semibold">{s.name}</b>
        <span className="text-ink2">{facts && `, ${facts}`}</span>
      </p>
      {!brief && s.doThis && (
        <p className="text-ink2">
          <InUnits>{s.doThis}</InUnits>.
        </p>
      )}
      {!brief && s.lookFor && <p className="text-[13px] text-ink2">{lookForWords(s)}</p>}
    </div>
  );
}

const showMinutes = (minutes: number) => (minutes < 90 ? `${Math.round(minutes / 5) * 5} min` : `${(minutes / 60).toFixed(1)} h`);

function amountText(c: ZonePlan["consumables"][number], units: Parameters<typeof show>[2]): string {
  if (c.unit === "pieces") return `${c.amount} ×`;
  const shown = c.unit === "m" ? show("distance", c.amount, units) : show("volume", c.amount, units, units.volume === "ml" ? 0 : 1);
  return `${shown.text} ${shown.unit}`;
}
