import { requireInteger } from "../../kernel/guard";
import { type BoothProblem, type BoothRules, blocksOf, waitOf } from "./booth-problem";
import { BoothSearch, type Found } from "./booth-search";

export interface PlannedSpray {
  part: string;
  /** Counted from 1 over both sides. */
  coat: number;
  start_s: number;
  end_s: number;
  painter: number;
  pot: number;
  /** Start of the part's own next coat may lie between these two; null for its last. */
  next: { least_s: number; most_s: number } | null;
}
export interface PlannedPot {
  product: string;
  /** Mixed by this plan; false: it stood there already. */
  mixed: boolean;
  /** Who mixes it. */
  painter: number;
  mixAt_s: number;
  from_s: number;
  until_s: number;
  volume_m3: number;
}
export interface BoothPlan {
  sprays: PlannedSpray[];
  pots: PlannedPot[];
  /** The last coat is on. */
  end_s: number;
  /** No plan can end before this. */
  bound_s: number;
  /** The search went through everything: the plan is the shortest there is. */
  exact: boolean;
  nodes: number;
  /** Parts whose flash window had closed before the plan began. */
  late: string[];
}

export type RuleName = "end" | "flash" | "pots" | "potLife" | "places" | "painters" | "fixed";
export interface Relaxation {
  rule: RuleName;
  /** What it would have to be: an end (s), a longest flash (s), pots, a pot life (s), places or painters; null for dropping the fixed times. */
  needed: number | null;
}
export type BoothAnswer =
  | { kind: "planned"; plan: BoothPlan }
  | {
      kind: "infeasible";
      /** Every order was tried. */
      proven: boolean;
      /** Rules of which giving way in one alone would do; none: only several together. */
      relax: Relaxation[];
    };

export const NODES_MOST = 20_000;
const RELAX_NODES = 2_000;
const LONGER = 8;

/**
 * The shortest plan that breaks no window: flash least and most, pot life, places in the booth, painters, wet edges, fixed times, the day's end.
 * Exhaustive for small cases; beyond `nodesMost` steps it gives the best plan found and how short any plan could be at most.
 * Where there is no plan it says in which single rule giving way would help.
 * @throws RangeError
 */
export function planBooth(problem: BoothProblem, { nodesMost = NODES_MOST }: { nodesMost?: number } = {}): BoothAnswer {
  requireInteger("nodesMost", nodesMost, { min: 1 });
  const tried = search(problem, nodesMost);
  if (tried.plan) return { kind: "planned", plan: tried.plan };
  return { kind: "infeasible", proven: tried.proven, relax: relaxations(problem) };
}

function search(problem: BoothProblem, nodesMost: number): { plan: BoothPlan | null; proven: boolean } {
  const { blocks, late } = blocksOf(problem);
  const run = new BoothSearch(problem, blocks, nodesMost);
  const least = run.atLeast();
  const { end_s, potsMost } = problem.rules;
  const found = run.run();
  if (!found) {
    const hopeless = (end_s !== null && least.end_s > end_s) || (potsMost !== null && least.mixes > potsMost);
    return { plan: null, proven: run.exhausted || hopeless };
  }
  const bound_s = run.exhausted ? found.end_s : Math.min(found.end_s, least.end_s);
  return { plan: { ...tidy(problem, found), bound_s, exact: found.end_s - bound_s < 1, nodes: run.visited, late }, proven: run.exhausted };
}

function tidy({ parts, rules }: BoothProblem, found: Found): Pick<BoothPlan, "sprays" | "pots" | "end_s"> {
  const sprays = found.placed
    .flatMap(({ op, start_s, painter, pot }) =>
      op.members.map((m): PlannedSpray => {
        const p = parts.find((x) => x.id === m.part)!;
        const start = start_s + m.offset_s;
        const end = start + m.spray_s;
        const w = waitOf(p, m.coat);
        const last = m.coat === p.coats * p.sides;
        return {
          part: m.part,
          coat: m.coat,
          start_s: start,
          end_s: end,
          painter,
          pot,
          next: last ? null : { least_s: end + w.least_s, most_s: end + w.most_s },
        };
      }),
    )
    .sort((a, b) => a.start_s - b.start_s || a.part.localeCompare(b.part));
  const volume = (i: number) => sprays.reduce((a, s) => a + (s.pot === i ? parts.find((p) => p.id === s.part)!.volume_m3 : 0), 0);
  const pots = found.pots.map((p, i): PlannedPot => ({
    product: p.product,
    mixed: p.mixed,
    painter: p.painter,
    mixAt_s: p.mixed ? p.from_s - rules.mix_s : p.from_s,
    from_s: p.from_s,
    until_s: p.until_s,
    volume_m3: volume(i),
  }));
  return { sprays, pots, end_s: found.end_s };
}

/** Which one rule would have to give way, and how far; each is tried alone. */
function relaxations(problem: BoothProblem): Relaxation[] {
  const { rules, parts } = problem;
  const solve = (change: Partial<BoothProblem>) => search({ ...problem, ...change }, RELAX_NODES).plan;
  const withRules = (change: Partial<BoothRules>) => solve({ rules: { ...rules, ...change } });
  const found: Relaxation[] = [];
  const add = (rule: RuleName, plan: BoothPlan | null, needed: (plan: BoothPlan) => number | null) => {
    if (plan) found.push({ rule, needed: needed(plan) });
  };
  if (rules.end_s !== null) add("end", withRules({ end_s: null }), (p) => p.end_s);
  add(
    "flash",
    solve({ parts: parts.map((p) => ({ ...p, flashMax_s: Infinity, waits: p.waits?.map((w) => ({ ...w, most_s: null })) })) }),
    (p) => longestWait(problem, p),
  );
  if (rules.potsMost !== null)
    add("pots", withRules({ potsMost: null }), (p) => Math.max(...countBy(p.pots.filter((x) => x.mixed).map((x) => x.product))));
  add("potLife", solve({ parts: parts.map((p) => ({ ...p, potLife_s: p.potLife_s * LONGER })), openPots: [] }), (p) => longestPot(p));
  const room = Math.max(rules.places, parts.length);
  if (rules.places < room) for (let n = rules.places + 1; n <= room; n++) if (tryOne("places", n, withRules({ places: n }))) break;
  for (let n = rules.painters + 1; n <= Math.min(8, rules.painters + 3); n++) if (tryOne("painters", n, withRules({ painters: n }))) break;
  if (problem.fixed.length > 0) add("fixed", solve({ fixed: [] }), () => null);
  return found;

  function tryOne(rule: RuleName, n: number, plan: BoothPlan | null): boolean {
    add(rule, plan, () => n);
    return plan !== null;
  }
}

const countBy = (names: readonly string[]) => [...new Set(names)].map((n) => names.filter((x) => x === n).length).concat(0);

/** Longest wait of a plan where the flash window was left open at the late end. */
function longestWait({ parts }: BoothProblem, plan: BoothPlan): number {
  let longest = 0;
  for (const s of plan.sprays) {
    const p = parts.find((x) => x.id === s.part)!;
    const next = plan.sprays.find((x) => x.part === s.part && x.coat === s.coat + 1);
    if (next && Number.isFinite(waitOf(p, s.coat).most_s)) longest = Math.max(longest, next.start_s - s.end_s);
  }
  return longest;
}
const longestPot = (plan: BoothPlan) =>
  Math.max(...plan.pots.map((p, i) => Math.max(...plan.sprays.filter((s) => s.pot === i).map((s) => s.end_s)) - p.from_s));

/** Every rule a plan breaks, in words for a test or a log; none for a good plan. Written apart from the search, so that it can check it. */
export function brokenRules({ parts, rules, fixed, openPots }: BoothProblem, plan: Pick<BoothPlan, "sprays" | "pots">): string[] {
  const broken: string[] = [];
  const near = 1e-3;
  const say = (wrong: boolean, words: string) => wrong && broken.push(words);
  for (const p of parts) {
    const own = plan.sprays.filter((s) => s.part === p.id).sort((a, b) => a.coat - b.coat);
    say(own.length !== p.coats * p.sides - p.done, `${p.id}: ${own.length} coats`);
    if (own[0] && p.from_s !== undefined)
      say(own[0].start_s < p.from_s - near, `${p.id}, coat ${own[0].coat}: before what lies below has flashed`);
    own.forEach((s, i) => {
      const before = i > 0 ? own[i - 1]!.end_s : p.done > 0 ? p.doneEnd_s : null;
      if (before === null) return;
      const told = p.waits?.[s.coat - 2];
      const turns = p.sides === 2 && s.coat - 1 === p.coats;
      const [least_s, most_s] = told
        ? [told.least_s, told.most_s ?? Infinity]
        : turns
          ? [p.turn_s, Infinity]
          : [p.flashMin_s, p.flashMax_s];
      say(s.start_s < before + least_s - near, `${p.id}, coat ${s.coat}: too soon`);
      say(i > 0 && s.start_s > before + most_s + near, `${p.id}, coat ${s.coat}: too late`);
    });
    for (const s of own) {
      const pot = plan.pots[s.pot]!;
      const until_s = pot.mixed ? pot.from_s + p.potLife_s : pot.until_s;
      say(s.end_s > until_s + near || s.start_s < pot.from_s - near, `${p.id}, coat ${s.coat}: outside its pot`);
      say(pot.product !== p.product, `${p.id}, coat ${s.coat}: wrong pot`);
      say(s.start_s < -near, `${p.id}, coat ${s.coat}: before now`);
      say(rules.end_s !== null && s.end_s > rules.end_s + near, `${p.id}, coat ${s.coat}: after the end`);
    }
  }
  const busy = [
    ...plan.sprays.map((s) => ({ painter: s.painter, from_s: s.start_s, to_s: s.end_s })),
    ...plan.pots.flatMap((pot) => (pot.mixed ? [{ painter: pot.painter, from_s: pot.mixAt_s, to_s: pot.from_s }] : [])),
  ];
  busy.forEach((a, i) =>
    busy.slice(i + 1).forEach((b) => {
      say(
        a.painter === b.painter && a.from_s < b.to_s - near && b.from_s < a.to_s - near,
        `painter ${a.painter} twice at ${Math.max(a.from_s, b.from_s)} s`,
      );
    }),
  );
  const stays = parts.map((p) => {
    const own = plan.sprays.filter((s) => s.part === p.id);
    return {
      from_s: p.done > 0 ? -Infinity : Math.min(...own.map((s) => s.start_s)),
      to_s: Math.max(...own.map((s) => s.end_s)) + rules.carryOut_s,
    };
  });
  for (const a of stays)
    say(
      stays.filter((b) => b.from_s <= a.from_s + near && b.to_s > a.from_s + near).length > rules.places,
      `booth too full at ${a.from_s} s`,
    );
  for (const f of fixed) {
    const s = plan.sprays.find((x) => x.part === f.part && x.coat === f.coat);
    say(s !== undefined && Math.abs(s.start_s - f.start_s) > near, `${f.part}, coat ${f.coat}: not at its fixed time`);
  }
  const mixed = plan.pots.filter((p) => p.mixed).map((p) => p.product);
  say(rules.potsMost !== null && countBy(mixed).some((n) => n > rules.potsMost!), "too many pots");
  say(plan.pots.filter((p) => !p.mixed).length > openPots.length, "a pot from nowhere");
  return broken;
}
