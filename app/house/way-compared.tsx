import { InUnits } from "~/kit/ui/in-units";
import { Field, SelectField } from "~/kit/ui/field";
import { useUnits } from "~/kit/root/use-root";
import type { SheetChoice, useWaySetting } from "./use-way-setting";

/** The door, the clear and the day that ways are compared on. */
export function WayCompared({
  products,
  asked: { draft, errors },
}: {
  products: readonly SheetChoice[];
  asked: Pick<ReturnType<typeof useWaySetting>, "draft" | "errors">;
}) {
  const units = useUnits();
  return (
    <div data-view className="grid grid-cols-2 items-start gap-3 sm:grid-cols-3" role="group" aria-label="Compared on a door">
      <SelectField className="col-span-2 sm:col-span-1" label="Sprayed with" {...draft.field("product")}>
        {products.map((p) => (
          <option key={p.id} value={p.id}>
            {p.sheet.name}
          </option>
        ))}
      </SelectField>
      <Field label="Air" unit={units.temperature} {...draft.field("air")} errors={errors.air} />
      <SelectField label="The door hangs" {...draft.field("hangs")}>
        <option value="upright">upright</option>
        <option value="lying">lying flat</option>
      </SelectField>
      <p className="col-span-full text-[13px] text-ink2">
        <InUnits>By the model, for a usual hand; for a job its own gun, part and day count.</InUnits>
      </p>
    </div>
  );
}
