import type { MixPlan } from "#core/models/mix/mix-plan";
import { InUnits } from "~/kit/ui/in-units";
import { Tag } from "~/kit/ui/tag";

/** What speaks against the mix, or is to be known of it. @param unblended a matte clear whose share is not known; null: it is, or needs none */
export function MixTags({ plan, unblended, potCapacity_m3 }: { plan: MixPlan; unblended: string | null; potCapacity_m3: number }) {
  return (
    <div className="mt-2 mb-4 flex min-h-8 flex-wrap gap-2">
      {unblended && <Tag kind="caution">No matting share: this would be {unblended} alone</Tag>}
      {plan.reduction.beyondSheet && <Tag kind="caution">More reducer than the sheet allows</Tag>}
      {plan.outsideWindow && <Tag kind="stop">{plan.outsideWindow}</Tag>}
      {plan.potFault && <Tag kind="stop">{plan.potFault}</Tag>}
      {plan.potLife.how === "only point" && (
        <Tag kind="open">
          <InUnits>The sheet gives one pot life, at 20 °C</InUnits>
        </Tag>
      )}
      {plan.potLife.how === "outside" && <Tag kind="caution">Temperature is far outside the sheet</Tag>}
      {plan.amount.ready_m3 > potCapacity_m3 && <Tag kind="stop">The pot is too small for all of it</Tag>}
    </div>
  );
}
