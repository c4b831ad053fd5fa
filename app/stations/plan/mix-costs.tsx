import type { MixPlan } from "#core/models/mix/mix-plan";
import { show } from "#core/kernel/units/format";
import { useUnits } from "~/kit/root/use-root";
import { ScrollRegion } from "~/kit/ui/scroll-region";

/** What each school of reducing costs at the same wet film. */
export function ReductionCosts({ plan }: { plan: MixPlan }) {
  const units = useUnits();
  return (
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
  );
}
