import { requireInteger, requireNumber } from "../../kernel/guard";

/** So many parts at most stand in one plan. */
export const BOOTH_PARTS_MOST = 40;

/** Window of one wait; null: no latest. */
export interface BoothWait {
  least_s: number;
  most_s: number | null;
}

/** A part to be sprayed. Times in seconds from the plan's own start; negative ones lie before it. */
export interface BoothPart {
  id: string;
  /** Coats on each side. */
  coats: number;
  /** One coat's time at the gun. */
  spray_s: number;
  flashMin_s: number;
  /** Infinity: no latest. */
  flashMax_s: number;
  /** Wait after each coat, counted over both faces, where it is not the flash alone: a way's own, a run's, cure and sanding flat. */
  waits?: readonly BoothWait[] | undefined;
  sides: 1 | 2;
  /** From the last coat of one side until the part may be turned. */
  turn_s: number;
  /** Parts with the same word are sprayed one straight after the other (a wet edge between them); null: by itself. */
  group: string | null;
  /** Clear it is sprayed with; parts of one product share a pot. */
  product: string;
  potLife_s: number;
  /** Ready-to-spray volume of one coat. */
  volume_m3: number;
  /** Coats that are on already (counted over both sides) and when the last of them ended. */
  done: number;
  doneEnd_s: number | null;
  /** Its next coat starts no sooner: what lies below it flashes. Left away: any time. */
  from_s?: number | undefined;
}

export interface BoothRules {
  painters: number;
  /** Parts that find room in the booth at a time. */
  places: number;
  /** Mixing, straining and filling before a pot's first coat; the painter's own time. */
  mix_s: number;
  /** Pots of one product that may be mixed from now on; null: as many as it takes. */
  potsMost: number | null;
  /** From a part's last coat until it may be carried out. */
  carryOut_s: number;
  /** The last coat must be on by then; null: no end. */
  end_s: number | null;
}

/** A coat that has to start at a time of the painter's choice. `coat` counts from 1 over both sides. */
export interface FixedCoat {
  part: string;
  coat: number;
  start_s: number;
}

export interface BoothProblem {
  parts: readonly BoothPart[];
  rules: BoothRules;
  fixed: readonly FixedCoat[];
  /** Pots mixed already: may be sprayed until then. */
  openPots: readonly { product: string; until_s: number }[];
}

/** One member of a block's coat: when it starts and how long it takes, within the block's coat. */
export interface Member {
  part: string;
  coat: number;
  offset_s: number;
  spray_s: number;
}
/** What a painter sprays without a break: one coat of one part, or of parts with a wet edge between them. */
export interface Op {
  block: number;
  members: Member[];
  product: string;
  potLife_s: number;
  length_s: number;
  /** Earliest and latest start against the plan's start. */
  from_s: number;
  until_s: number;
  /** Start of the block's next coat against the start of this: least and most; null for its last. */
  next: { least_s: number; most_s: number } | null;
}
export interface Block {
  parts: string[];
  places: number;
  /** Already in the booth: its first coat is on. */
  inside: boolean;
  ops: Op[];
}

const NEVER = Infinity;

/** Parts as blocks of coats that are still to be sprayed. @throws RangeError */
export function blocksOf({ parts, rules, fixed }: BoothProblem): { blocks: Block[]; late: string[] } {
  checkRules(rules);
  parts.forEach(checkPart);
  if (new Set(parts.map((p) => p.id)).size !== parts.length) throw new RangeError("parts must have different ids");
  const groups = new Map<string, BoothPart[]>();
  for (const p of parts) {
    const key = p.group === null ? `one ${p.id}` : `group ${p.group} ${p.product}`;
    groups.set(key, [...(groups.get(key) ?? []), p]);
  }
  const late: string[] = [];
  const blocks = [...groups.values()].map((members, index) => blockOf(members, index, rules, fixed, late)).filter((b) => b.ops.length > 0);
  blocks.forEach((b, index) => b.ops.forEach((o) => (o.block = index)));
  return { blocks, late };
}

function blockOf(parts: readonly BoothPart[], index: number, rules: BoothRules, fixed: readonly FixedCoat[], late: string[]): Block {
  const most = Math.max(...parts.map((p) => p.coats * p.sides));
  const ops: Op[] = [];
  for (let coat = 1; coat <= most; coat++) {
    const members: Member[] = [];
    let offset_s = 0;
    for (const p of parts) {
      if (coat > p.coats * p.sides || coat <= p.done) continue;
      members.push({ part: p.id, coat, offset_s, spray_s: p.spray_s });
      offset_s += p.spray_s;
    }
    if (members.length === 0) continue;
    const op: Op = {
      block: index,
      members,
      product: parts[0]!.product,
      potLife_s: Math.min(...parts.map((p) => p.potLife_s)),
      length_s: offset_s,
      from_s: 0,
      until_s: rules.end_s === null ? NEVER : rules.end_s - offset_s,
      next: null,
    };
    boundByDone(op, parts, late);
    for (const f of fixed) {
      const m = members.find((x) => x.part === f.part && x.coat === f.coat);
      if (!m) continue;
      op.from_s = Math.max(op.from_s, requireNumber("fixed.start_s", f.start_s) - m.offset_s);
      op.until_s = Math.min(op.until_s, f.start_s - m.offset_s);
    }
    ops.push(op);
  }
  for (let k = 0; k + 1 < ops.length; k++) ops[k]!.next = lag(ops[k]!, ops[k + 1]!, parts);
  return { parts: parts.map((p) => p.id), places: parts.length, inside: parts.some((p) => p.done > 0), ops };
}

/** Window of the wait between two coats of a part. */
export function waitOf(p: BoothPart, coat: number): { least_s: number; most_s: number } {
  const own = p.waits?.[coat - 1];
  if (own) return { least_s: own.least_s, most_s: own.most_s ?? NEVER };
  return p.sides === 2 && coat === p.coats ? { least_s: p.turn_s, most_s: NEVER } : { least_s: p.flashMin_s, most_s: p.flashMax_s };
}

/** A coat that is on already bounds the next one. A window that has closed cannot be met any more: it is said, not planned with. */
function boundByDone(op: Op, parts: readonly BoothPart[], late: string[]): void {
  for (const m of op.members) {
    const p = parts.find((x) => x.id === m.part)!;
    if (p.done !== m.coat - 1) continue;
    if (p.from_s !== undefined) op.from_s = Math.max(op.from_s, p.from_s - m.offset_s);
    if (p.done === 0 || p.doneEnd_s === null) continue;
    const w = waitOf(p, p.done);
    op.from_s = Math.max(op.from_s, p.doneEnd_s + w.least_s - m.offset_s);
    const closes_s = p.doneEnd_s + w.most_s - m.offset_s;
    if (closes_s < Math.max(0, op.from_s)) late.push(p.id);
    else op.until_s = Math.min(op.until_s, closes_s);
  }
}

function lag(a: Op, b: Op, parts: readonly BoothPart[]): { least_s: number; most_s: number } {
  let least_s = a.length_s;
  let most_s = NEVER;
  for (const m of a.members) {
    const n = b.members.find((x) => x.part === m.part && x.coat === m.coat + 1);
    if (!n) continue;
    const w = waitOf(
      parts.find((x) => x.id === m.part)!,
      m.coat,
    );
    const end_s = m.offset_s + m.spray_s - n.offset_s;
    least_s = Math.max(least_s, end_s + w.least_s);
    most_s = Math.min(most_s, end_s + w.most_s);
  }
  return { least_s, most_s };
}

function checkPart(p: BoothPart): void {
  requireInteger("coats", p.coats, { min: 1, max: 20 });
  requireInteger("sides", p.sides, { min: 1, max: 2 });
  requireInteger("done", p.done, { min: 0, max: p.coats * p.sides });
  requireNumber("spray_s", p.spray_s, { above: 0, max: 86_400 });
  requireNumber("flashMin_s", p.flashMin_s, { min: 0 });
  if (p.flashMax_s !== Infinity) requireNumber("flashMax_s", p.flashMax_s, { min: 0 });
  requireNumber("turn_s", p.turn_s, { min: 0 });
  requireNumber("potLife_s", p.potLife_s, { above: 0 });
  requireNumber("volume_m3", p.volume_m3, { min: 0 });
  if (p.doneEnd_s !== null) requireNumber("doneEnd_s", p.doneEnd_s);
  if (p.from_s !== undefined) requireNumber("from_s", p.from_s);
}

function checkRules(r: BoothRules): void {
  requireInteger("painters", r.painters, { min: 1, max: 8 });
  requireInteger("places", r.places, { min: 1, max: 60 });
  requireNumber("mix_s", r.mix_s, { min: 0, max: 86_400 });
  requireNumber("carryOut_s", r.carryOut_s, { min: 0, max: 7 * 86_400 });
  if (r.potsMost !== null) requireInteger("potsMost", r.potsMost, { min: 0, max: 99 });
  if (r.end_s !== null) requireNumber("end_s", r.end_s);
}
