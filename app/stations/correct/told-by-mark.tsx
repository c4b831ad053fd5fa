import type { Removal } from "#core/models/correction/removal-plan";
import { showWithUncertainty } from "#core/kernel/units/format";
import { useUnits } from "~/kit/root/use-root";

/** What marks read on this panel have changed of the work to come; nothing where none was read. */
export function ToldByMark({ now, unmarked }: { now: Removal; unmarked: Removal | null }) {
  const units = useUnits();
  if (!unmarked) return null;
  const film = ({ removal_m, u_m }: Removal) => `${showWithUncertainty("film", removal_m, u_m, units).text} ${units.film}`;
  const [with_, without] = [film(now), film(unmarked)];
  return (
    <p className="max-w-[75ch] text-ink2" data-testid="told-by-mark">
      What was read at a mark on this panel is in it
      {with_ === without ? ` and changes little.` : `: ${with_} to come off, ${without} without it.`}
    </p>
  );
}
