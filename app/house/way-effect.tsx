import { useMemo } from "react";
import type { RunCalibration } from "#core/models/flow/run-calibration";
import type { HouseWay } from "#core/models/ways/way";
import { useUnits } from "~/kit/root/use-root";
import { WorkingButton } from "~/kit/ui/figure";
import { type SheetChoice, useWayEffects, useWaySetting } from "./use-way-setting";
import { WayCompared } from "./way-compared";
import { effectRows, effectWorking } from "./way.words";

interface EffectProps {
  products: readonly SheetChoice[];
  way: HouseWay;
  /** The way as its fields have it now; null while one of them is not understood. */
  asTyped: HouseWay | null;
  calibration: RunCalibration | null;
}

/** What the way comes to, and came to. */
function useEffects({ products, way, asTyped, calibration }: EffectProps) {
  const units = useUnits();
  const asked = useWaySetting(products, way.finish);
  const both = useMemo(() => (asTyped ? [way, asTyped] : null), [way, asTyped]);
  const { effects, fault } = useWayEffects(both, asked.setting);
  const [before, after] = [effects?.[0] ?? null, effects?.[1] ?? null];
  const was = before && effectRows(before, units, calibration);
  const will = after && effectRows(after, units, calibration);
  const changed = was !== null && will !== null && was.some((r, i) => r.shown !== will[i]!.shown);
  return { asked, fault, changed, will, was, after, effects };
}

/** What the way does to a door. */
export function Effect(props: EffectProps) {
  const units = useUnits();
  const { products, asTyped, calibration } = props;
  const { asked, fault, changed, will, was, after, effects } = useEffects(props);
  return (
    <aside aria-labelledby="effect-title" className="space-y-4 lg:sticky lg:top-4">
      <h2 id="effect-title" className="text-xl font-semibold">
        What it comes to
      </h2>
      <WayCompared products={products} asked={asked} />
      {fault && <p className="font-medium text-stop-ink">{fault}</p>}
      <table className="w-full text-left [&_td]:py-1.5 [&_td]:pr-2" data-testid="way-effect" aria-live="polite">
        <thead className="small-label border-b border-hair">
          <tr>
            <th>
              <span className="sr-only">Figure</span>
            </th>
            {changed && <th>as it was</th>}
            <th>{changed ? "as typed" : "as it is"}</th>
          </tr>
        </thead>
        <tbody>
          {(will ?? was ?? []).map((row, i) => (
            <tr key={row.name} className="border-b border-hair">
              <td className="text-ink2">{row.name}</td>
              {changed && <td className="text-ink2">{was![i]!.shown}</td>}
              <td className={changed && was![i]!.shown !== row.shown ? "font-bold" : "font-semibold"}>{row.shown}</td>
            </tr>
          ))}
        </tbody>
      </table>
      {after && (
        <WorkingButton
          working={effectWorking(after, `${asked.sheet?.name ?? "no clear"}, a door ${asked.hangs}`, units, calibration)}
          label="Show the working of what this way comes to"
        >
          <span className="font-semibold">How this was worked out</span>
        </WorkingButton>
      )}
      {asTyped === null && <p className="text-ink2">A figure is missing or wrong; it says where.</p>}
      {effects && after === null && asTyped !== null && <p className="font-medium text-amber-ink">The model does not reach so far.</p>}
    </aside>
  );
}
