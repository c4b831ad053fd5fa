import { RUN_SCHOOLS, type RunSchool } from "../models/correction/run-work";
import { keysOf } from "../kernel/keys";
import type { Point } from "../kernel/geometry/geometry";
import { near } from "../panel/worked-since";
import type { FilmJudge, Risk, Work } from "./film-judge";
import type { ZonePlan } from "./zone-plan";
import type { PlanZone } from "./zone-setting";

/** What the judge says of the parts of a plan: the one source of every chance on its page. */
export interface PlanChances {
  /** Chance of cutting through in each zone, in their order; the panel's own work is one question, told with the flat. Null: nothing comes off. */
  zones: (number | null)[];
  /** Each run school at the run that is worst with it. */
  schools: { school: RunSchool; cut: number; thin: number }[];
}

type At = Risk["local"][number];
const NOWHERE: At = { cut: 0, thin: 0 };

/** The worst of the places of a work that lie at these. */
function worstAt(risk: Pick<Risk, "local">, work: Pick<Work, "local">, places: readonly Point[]): At {
  const there = risk.local.filter((_, i) => places.some((p) => near(p, work.local[i]!.at)));
  return there.reduce((a, b) => ({ cut: Math.max(a.cut, b.cut), thin: Math.max(a.thin, b.thin) }), NOWHERE);
}

const RUN_SCHOOL_IDS = keysOf<RunSchool>(RUN_SCHOOLS);

/**
 * @param work of the plan as it stands @param withSchool the work with another run school @param risk what the judge said of the plan, where it is known
 * @throws RangeError
 */
export function planChances(
  judge: FilmJudge,
  { plan, work, withSchool }: { plan: Pick<ZonePlan, "zones" | "runs">; work: Work; withSchool: (school: RunSchool) => Work },
  risk: Pick<Risk, "local"> = judge.risk(work),
): PlanChances {
  const onPanel = work.panel && judge.risk({ ...work, local: [] }).cutChance;
  const chanceOf = ({ kind, at, removal }: PlanZone): number | null => {
    if (kind === "flat") return onPanel;
    if (removal.removal_m <= 0 || kind === "line" || kind === "edge") return null;
    return worstAt(risk, work, at).cut;
  };
  const runs = plan.zones.filter((z) => z.kind === "run").flatMap((z) => z.at);
  return {
    zones: plan.zones.map(chanceOf),
    schools: plan.runs
      ? RUN_SCHOOL_IDS.map((school) => {
          const other = withSchool(school);
          return { school, ...worstAt(judge.risk(other), other, runs.length > 0 ? runs : [plan.runs!.at]) };
        })
      : [],
  };
}
