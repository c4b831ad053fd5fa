import type { PlanOfWay } from "#core/judge/option-plan";

/** A plan that is not to take its runs down. */
export const NO_RUN_SCHOOL = "none";

/** What the address of Correct asks for, so that it opens with this very plan. */
export const planAddress = ({ schoolId, runSchool, part, fill }: PlanOfWay): string =>
  new URLSearchParams({
    school: schoolId,
    run: runSchool ?? NO_RUN_SCHOOL,
    ...(part ? { part } : {}),
    ...(fill ? { fill: "yes" } : {}),
  }).toString();
