import { levellingSchool } from "../models/correction/schools";
import type { RunSchool } from "../models/correction/run-work";
import type { RemedyId } from "../models/defects/remedies";
import type { ZoneChoice } from "./zone-setting";

/** What of a plan's choice makes it the plan of a way. */
export type PlanOfWay = Required<Pick<ZoneChoice, "schoolId" | "runSchool" | "part" | "fill">>;

/**
 * The plan that a way is, where it is one: what it is priced by is what it opens, runs and all. @param house the school that the whole panel is levelled by
 * @returns null for a way that is no plan of papers and polish
 */
export function planOfWay(kind: RemedyId, { runSchool, house }: { runSchool: RunSchool | null; house: string }): PlanOfWay | null {
  const of = (schoolId: string, own: Partial<PlanOfWay> = {}): PlanOfWay => ({ schoolId, runSchool, part: null, fill: false, ...own });
  switch (kind) {
    case "spot":
      return of("spot", { runSchool: null });
    case "run":
      return of("spot");
    case "dropFill":
      return of("spot", { runSchool: null, fill: true });
    case "polish":
      return of("polish", { runSchool: null });
    case "full":
      return of(levellingSchool(house));
    case "part":
      return of(levellingSchool(house), { part: "marked" });
    default:
      return null;
  }
}
