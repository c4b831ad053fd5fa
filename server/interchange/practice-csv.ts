import { formatISO } from "date-fns";
import { ALL_SKILLS, SKILLS } from "#core/practice/mended";
import type { KeptSession } from "../repos/practice-repo";
import { writeCsv } from "./csv";

const FIELDS = ["at", "exercise", "level", "passed", "run_share", "thin_share", "uneven", "least_um", "material_ml", "spraying_s"] as const;
const fixed = (x: number, digits: number) => Number(x.toFixed(digits));

/** Sessions at the practice bench as CSV, oldest first: one row a session, shares of the part, and what each skill cost (docs/formats.md). */
export const writeSessions = (sessions: readonly KeptSession[]): string =>
  writeCsv(
    [...FIELDS, ...ALL_SKILLS.map((skill) => `cost_${skill}`)],
    sessions.map(({ at_ms, exercise, level, passed, body }) => [
      formatISO(at_ms),
      exercise,
      level,
      passed ? "yes" : "no",
      fixed(body.runShare, 4),
      fixed(body.thinShare, 4),
      fixed(body.uneven, 4),
      fixed(body.least_m * 1e6, 1),
      fixed(body.volume_m3 * 1e6, 1),
      fixed(body.time_s, 1),
      ...SKILLS.map((skill) => fixed(body.costs[skill] ?? 0, 4)),
      body.costs.judgement === undefined ? "" : fixed(body.costs.judgement, 4),
    ]),
  );
