import { requireInteger, requireNumber, requireNumbers } from "../kernel/guard";

/** A part of a vehicle as one coat goes over it. */
export interface WalkPart {
  /** How long its rows take, and what goes through the gun. */
  spray_s: number;
  volume_m3: number;
  /** How long its borders stay open. */
  open_s: number;
}

/** Where two parts meet: `beside`, rows of both run towards it; `above`, `a` lies above `b` and rows go from above down. */
export interface WalkBorder {
  a: number;
  b: number;
  lies: "beside" | "above";
  /** What a dry edge there costs over others: on a surface that goes on 1, at a gap or a trim less. */
  weight: number;
}

export interface WalkAsked {
  parts: readonly WalkPart[];
  borders: readonly WalkBorder[];
  /** What must be on before something else is: a shut before the part that closes over it. */
  before?: readonly { first: number; later: number }[] | undefined;
  /** From one part to the next: hose, step, a look. */
  between_s: number;
  /** And on top of it the way from each part to each other with the hose; none where nobody knows where they lie. */
  way_s?: readonly (readonly number[])[] | undefined;
  /** What the cup holds, and how long it takes to fill; at a border, never on a part that it would last for. */
  cup_m3: number;
  refill_s: number;
}

export interface BorderMet {
  border: number;
  /** The part that was sprayed first, how old the border is when the other's rows reach it, and that over how long it stays open. */
  first: number;
  age_s: number;
  ratio: number;
}

/** A walk round the vehicle: who comes when, and how old each border is when the gun returns to it. */
export interface Walk {
  order: readonly number[];
  starts_s: readonly number[];
  ends_s: readonly number[];
  /** Before these parts the cup is filled; more than once within a part that takes more than it holds. */
  refills: readonly { before: number; times: number }[];
  total_s: number;
  borders: readonly BorderMet[];
  /** So many parts come before what must be on first. */
  late: number;
  /** Weight of the borders that are dry by then, the worst of all ratios by weight, and the sum of what is too old. */
  dry: number;
  worst: number;
}

export const MOST_PARTS = 14;

function checked({ parts, borders, before = [], between_s, way_s, cup_m3, refill_s }: WalkAsked): void {
  requireInteger("parts", parts.length, { min: 1, max: 60 });
  for (const p of parts) {
    requireNumber("spray_s", p.spray_s, { above: 0, max: 36_000 });
    requireNumber("volume_m3", p.volume_m3, { min: 0, max: 0.1 });
    requireNumber("open_s", p.open_s, { min: 0, max: 86_400 });
  }
  for (const { a, b, weight } of borders) {
    requireInteger("border", a, { min: 0, max: parts.length - 1 });
    requireInteger("border", b, { min: 0, max: parts.length - 1 });
    if (a === b) throw new RangeError(`a border must lie between two parts, got ${a} twice`);
    requireNumber("weight", weight, { min: 0, max: 100 });
  }
  for (const { first, later } of before) {
    requireInteger("first", first, { min: 0, max: parts.length - 1 });
    requireInteger("later", later, { min: 0, max: parts.length - 1 });
  }
  requireNumber("between_s", between_s, { min: 0, max: 3600 });
  for (const from of way_s ?? []) requireNumbers("way_s", from, parts.length, { min: 0, max: 3600 });
  requireNumber("cup_m3", cup_m3, { above: 0, max: 0.05 });
  requireNumber("refill_s", refill_s, { min: 0, max: 3600 });
}

interface Placed {
  start_s: number;
  end_s: number;
}

type Met = "beside" | "above-first" | "below-first";

/** Age of a border when the later part's rows reach it: beside, row meets row; above, the last row of the upper meets the first of the lower. */
export function borderAge(lies: Met, first: Placed, later: Placed): number {
  switch (lies) {
    case "beside":
      return Math.max(later.start_s - first.start_s, later.end_s - first.end_s);
    case "above-first":
      return later.start_s - first.end_s;
    case "below-first":
      return later.end_s - first.start_s;
  }
}
const liesFor = ({ a, lies }: WalkBorder, first: number): Met =>
  lies === "beside" ? "beside" : first === a ? "above-first" : "below-first";

/** What is left in the cup is not wasted: it is filled before the part that it would not last for. A part that takes more than a cup is refilled within it. */
function refillsFor(asked: WalkAsked, part: number, left_m3: number): { times: number; left_m3: number } {
  const { cup_m3 } = asked;
  const { volume_m3 } = asked.parts[part]!;
  if (volume_m3 <= left_m3) return { times: 0, left_m3: left_m3 - volume_m3 };
  if (volume_m3 <= cup_m3) return { times: 1, left_m3: cup_m3 - volume_m3 };
  const times = Math.ceil((volume_m3 - left_m3) / cup_m3);
  return { times, left_m3: left_m3 + times * cup_m3 - volume_m3 };
}

interface Step extends Placed {
  part: number;
  /** The cup is filled so often for it, and so much is left in it afterwards. */
  fills: number;
  left_m3: number;
}

/** The next part of a walk, after the last one (null: it is the first). What is filled for a part is filled before it, but within one that takes more than a cup. */
function stepTo(asked: WalkAsked, part: number, last: Step | null): Step {
  const { spray_s, volume_m3 } = asked.parts[part]!;
  const { times: fills, left_m3 } = refillsFor(asked, part, last?.left_m3 ?? asked.cup_m3);
  const fills_s = fills * asked.refill_s;
  const within = volume_m3 > asked.cup_m3;
  const there_s = last === null ? 0 : last.end_s + asked.between_s + (asked.way_s?.[last.part]?.[part] ?? 0);
  const start_s = there_s + (within ? 0 : fills_s);
  return { part, start_s, end_s: start_s + spray_s + (within ? fills_s : 0), fills, left_m3 };
}

/** How a walk in this order comes out. @throws RangeError unless the order names each part once */
export function walkIn(asked: WalkAsked, order: readonly number[]): Walk {
  return walkOf(asked, [order]);
}

/** The same of several hands that begin at once, each going round parts of its own. @throws RangeError unless their orders together name each part once */
export function walkOf(asked: WalkAsked, hands: readonly (readonly number[])[]): Walk {
  checked(asked);
  const order = hands.flat();
  if (order.length !== asked.parts.length || new Set(order).size !== order.length || order.some((p) => !asked.parts[p]))
    throw new RangeError(`order must name each of ${asked.parts.length} parts once, got ${order.join(" ")}`);
  const placed: Placed[] = [];
  const refills: Walk["refills"][number][] = [];
  for (const hand of hands) {
    let last: Step | null = null;
    for (const part of hand) {
      last = stepTo(asked, part, last);
      if (last.fills > 0) refills.push({ before: part, times: last.fills });
      placed[part] = last;
    }
  }
  const borders = asked.borders.map((border, n): BorderMet => {
    const first = placed[border.a]!.start_s <= placed[border.b]!.start_s ? border.a : border.b;
    const later = first === border.a ? border.b : border.a;
    const age_s = borderAge(liesFor(border, first), placed[first]!, placed[later]!);
    return { border: n, first, age_s, ratio: ratioOf(age_s, asked.parts[first]!.open_s) };
  });
  return {
    order,
    starts_s: placed.map((p) => p.start_s),
    ends_s: placed.map((p) => p.end_s),
    refills,
    total_s: placed.reduce((most, p) => Math.max(most, p.end_s), 0),
    borders,
    late: (asked.before ?? []).filter(({ first, later }) => placed[later]!.start_s < placed[first]!.end_s).length,
    dry: borders.reduce((sum, b) => sum + (b.ratio > 1 ? asked.borders[b.border]!.weight : 0), 0),
    worst: borders.reduce((most, b) => Math.max(most, b.ratio * asked.borders[b.border]!.weight), 0),
  };
}
/** What is never open is past it at once. */
const ratioOf = (age_s: number, open_s: number): number => (open_s > 0 ? age_s / open_s : age_s > 0 ? 1e6 : 0);

const EPS = 1e-9;
type Ranked = Pick<Walk, "late" | "dry" | "worst" | "total_s">;
/** What must be on first comes first; then fewer dry borders, the least old worst one, the shorter walk. */
export const isBetter = (a: Ranked, b: Ranked): boolean =>
  a.late !== b.late
    ? a.late < b.late
    : Math.abs(a.dry - b.dry) > EPS
      ? a.dry < b.dry
      : Math.abs(a.worst - b.worst) > EPS
        ? a.worst < b.worst
        : a.total_s < b.total_s - EPS;

/**
 * The best walk round a vehicle: every order is thought of, and left as soon as what it has come to cannot be better than the best so far.
 * Jackson, J. R. (1955), "Scheduling a production line to minimize maximum tardiness", as cited from memory.
 * @param starts part to begin with, where that is wanted
 * @throws RangeError for more than 14 parts
 */
export function bestWalk(asked: WalkAsked, { starts }: { starts?: number | undefined } = {}): Walk {
  checked(asked);
  const n = requireInteger("parts", asked.parts.length, { min: 1, max: MOST_PARTS });
  if (starts !== undefined) requireInteger("starts", starts, { min: 0, max: n - 1 });
  const bordersOf = asked.parts.map((_, part) => asked.borders.filter((b) => b.a === part || b.b === part));
  // Whoever wants to begin with a part begins with it, whatever should be on before.
  const before = (asked.before ?? []).filter((pair) => pair.later !== starts);
  const mayCome = (part: number, on: (other: number) => boolean) => before.every((pair) => pair.later !== part || on(pair.first));
  let best = nearestFirst(asked, bordersOf, { starts, mayCome });
  const placed: (Placed | null)[] = asked.parts.map(() => null);
  const order: number[] = [];
  /** What the borders of a part come to once it stands in its place; and what those that wait for a neighbour will have come to at the least. */
  const seen = { dry: 0, worst: 0 };
  const place = (part: number, last: Step | null): void => {
    const here = stepTo(asked, part, last);
    const before = { ...seen };
    placed[part] = here;
    order.push(part);
    for (const border of bordersOf[part]!) {
      const other = border.a === part ? border.b : border.a;
      const first = placed[other];
      if (!first) continue;
      const ratio = ratioOf(borderAge(liesFor(border, other), first, here), asked.parts[other]!.open_s);
      if (ratio > 1) seen.dry += border.weight;
      seen.worst = Math.max(seen.worst, ratio * border.weight);
    }
    if (order.length === n) {
      const walk = walkIn(asked, [...order]);
      if (isBetter(walk, best)) best = walk;
    } else if (mayBeBetter(here.end_s)) {
      for (const next of nextParts()) place(next, here);
    }
    Object.assign(seen, before);
    placed[part] = null;
    order.pop();
  };
  /** Borders of which one part is on and the other still to come. */
  const waiting = () =>
    asked.borders.flatMap((border) => {
      const [a, b] = [placed[border.a]!, placed[border.b]!];
      if ((a === null) === (b === null)) return [];
      const [first, later] = a ? [border.a, border.b] : [border.b, border.a];
      return [{ border, first, later, lies: liesFor(border, first), on: a ?? b }];
    });
  /** They are at least as old as they are now when their other part begins. */
  const atLeast = (now_s: number): { dry: number; worst: number } => {
    let { dry, worst } = seen;
    const start_s = now_s + asked.between_s;
    for (const { border, first, later, lies, on } of waiting()) {
      const soonest = { start_s, end_s: start_s + asked.parts[later]!.spray_s };
      const ratio = ratioOf(borderAge(lies, on, soonest), asked.parts[first]!.open_s);
      if (ratio > 1) dry += border.weight;
      worst = Math.max(worst, ratio * border.weight);
    }
    return { dry, worst };
  };
  /**
   * Parts that a border waits for must each begin by a time of their own, for the walk to be better than the best so far; one hand can keep those times
   * only if it keeps them in their order (Jackson's rule: earliest due first).
   */
  const inTime = (now_s: number): boolean => {
    const due = new Map<number, number>();
    for (const { border, first, later, lies, on } of waiting()) {
      const { start_s, end_s } = on;
      const most = border.weight > 0 ? Math.min(1, best.worst / border.weight) : 1;
      const old_s = most * asked.parts[first]!.open_s + 1e-6;
      const { spray_s } = asked.parts[later]!;
      const by_s =
        lies === "beside"
          ? Math.min(start_s + old_s, end_s + old_s - spray_s)
          : lies === "above-first"
            ? end_s + old_s
            : start_s + old_s - spray_s;
      due.set(later, Math.min(due.get(later) ?? Infinity, by_s));
    }
    let from_s = now_s;
    for (const [part, by_s] of [...due].sort((x, y) => x[1] - y[1])) {
      from_s += asked.between_s;
      if (from_s > by_s) return false;
      from_s += asked.parts[part]!.spray_s;
    }
    return true;
  };
  const mayBeBetter = (now_s: number): boolean =>
    best.dry <= EPS
      ? seen.dry <= EPS && seen.worst <= best.worst + EPS && inTime(now_s)
      : !isBetter({ ...best, total_s: Infinity }, { ...atLeast(now_s), late: best.late, total_s: 0 });
  /** Neighbours of what was sprayed last come first: a good walk is found soon, and others are left the sooner. */
  const nextParts = (): number[] => {
    const last = order.at(-1)!;
    const free = asked.parts.flatMap((_, part) => (placed[part] || !mayCome(part, (other) => placed[other] !== null) ? [] : [part]));
    const near = (part: number) => (bordersOf[part]!.some((b) => b.a === last || b.b === last) ? 0 : 1);
    return free.sort((x, y) => near(x) - near(y) || x - y);
  };
  for (const first of starts === undefined ? asked.parts.map((_, part) => part) : [starts])
    if (mayCome(first, () => false)) place(first, null);
  return best;
}

/** A walk from neighbour to neighbour, to begin with: whichever border is oldest is met next. */
function nearestFirst(
  asked: WalkAsked,
  bordersOf: readonly (readonly WalkBorder[])[],
  { starts, mayCome }: { starts: number | undefined; mayCome: (part: number, on: (other: number) => boolean) => boolean },
): Walk {
  const begins = asked.parts.flatMap((_, part) => (mayCome(part, () => false) ? [part] : []));
  if (begins.length === 0) throw new RangeError("before must leave a part to begin with");
  const tries = (starts === undefined ? begins : [starts]).map((first) => {
    const order = [first];
    while (order.length < asked.parts.length) {
      const free = asked.parts.flatMap((_, part) =>
        order.includes(part) || !mayCome(part, (other) => order.includes(other)) ? [] : [part],
      );
      if (free.length === 0) throw new RangeError("before must not go round in a circle");
      const oldest = (part: number) => {
        const met = bordersOf[part]!.flatMap((b) => [b.a === part ? b.b : b.a]).filter((p) => order.includes(p));
        return met.length === 0 ? Infinity : Math.min(...met.map((p) => order.indexOf(p)));
      };
      order.push(free.reduce((a, b) => (oldest(b) < oldest(a) ? b : a), free[0]!));
    }
    return walkIn(asked, order);
  });
  return tries.reduce((a, b) => (isBetter(b, a) ? b : a));
}

/** A border that is back at less of its time than this is met well: beyond it a shorter way counts for more. Default of ours. */
const WELL_MET = 0.6;

/**
 * A shorter walk that leaves no more borders dry, and none older than is well met or than the oldest was: one part moved or a stretch gone the other way, as
 * long as that helps. No search of all. @param starts part that it begins with, where that is wanted
 */
export function shorterWalk(asked: WalkAsked, walk: Walk, starts?: number): Walk {
  const most = Math.max(WELL_MET, walk.worst);
  let best = walk;
  for (let better = true; better;) {
    better = false;
    for (const order of nearBy(best.order)) {
      if (starts !== undefined && order[0] !== starts) continue;
      const found = walkIn(asked, order);
      if (found.late > best.late || found.dry > best.dry + EPS || found.worst > most + EPS || found.total_s >= best.total_s - EPS) continue;
      best = found;
      better = true;
    }
  }
  return best;
}

/** Orders that differ by one part moved elsewhere, or by a stretch gone the other way. */
function* nearBy(order: readonly number[]): Generator<number[]> {
  for (let i = 0; i < order.length; i++)
    for (let k = 0; k < order.length; k++) {
      if (i === k) continue;
      const moved = [...order];
      moved.splice(k, 0, ...moved.splice(i, 1));
      yield moved;
      if (i < k) yield [...order.slice(0, i), ...order.slice(i, k + 1).reverse(), ...order.slice(k + 1)];
    }
}

/**
 * Two hands round a vehicle: a good walk of one is cut in two wherever it helps most, each half gone either way. No search of all: an upper bound of what
 * two come to. @param walk of one hand, the best known
 */
export function twoHands(asked: WalkAsked, walk: Walk): { walk: Walk; hands: readonly (readonly number[])[] } {
  const { order } = walk;
  let best: { walk: Walk; hands: readonly (readonly number[])[] } = { walk, hands: [order] };
  const ways = (part: readonly number[]) => [part, [...part].reverse()];
  for (let cut = 1; cut < order.length; cut++)
    for (const one of ways(order.slice(0, cut)))
      for (const two of ways(order.slice(cut))) {
        const found = walkOf(asked, [one, two]);
        if (isBetter(found, best.walk)) best = { walk: found, hands: [one, two] };
      }
  return best;
}
