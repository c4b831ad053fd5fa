import type { GetModule } from "./chunk-modules";

/** Bytes that a file of these modules brings, as it is sent. */
export type Weigh = (members: readonly string[]) => number;

/** Modules that the same pages need, and how much they are, bytes before compression. */
interface Piece {
  units: Set<number>;
  bytes: number;
  members: string[];
}

/** One file more costs a page as much as this many bytes that it does not need. */
const REQUEST_BYTES = 4000;

/** What is loaded later than the page itself, for each page that loads it: a request is waited for there too, a byte hardly. */
const LATER = { request: 2, byte: 0.003 } as const;

/** Price of a byte on the page that brings least anyway, and on the one that brings most. */
const LIGHT = 0.2;
const HEAVY = 9;

/** What a request costs each page, and what a byte does that it does not need. */
interface Costs {
  request: readonly number[];
  byte: readonly number[];
  /** Who loads it later: what all of them have is there before it comes. Null for a page. */
  hosts: readonly (readonly number[] | null)[];
}

/**
 * Which modules go into one file: those that the same pages need are together; after that two files become one as long as the pages save more by
 * asking for one file less than they lose by what they would not need. Files never need each other in a circle.
 * @param entries of every page: what its document names, by module
 * @param weigh what a plan is judged by: the page that brings most decides
 * @returns the file of each module that several pages, or several later loads, share: none needs a later one
 */
export function chunkPlan(entries: readonly (readonly string[])[], getModule: GetModule, weigh: Weigh): Map<string, number> {
  const units = new Map<string, Set<number>>();
  const later = new Map<string, Set<number>>();
  const reach = (unit: number, from: readonly string[], known: ReadonlySet<string> = new Set()) => {
    const ahead = [...from];
    for (let id = ahead.pop(); id !== undefined; id = ahead.pop()) {
      const module = getModule(id);
      const of = units.get(id) ?? units.set(id, new Set()).get(id)!;
      if (!module || of.has(unit) || known.has(id)) continue;
      of.add(unit);
      for (const next of module.loadsLater) (later.get(next) ?? later.set(next, new Set()).get(next)!).add(unit);
      if (!module.isBarrel || from.includes(id)) ahead.push(...module.imports);
    }
  };
  entries.forEach((page, unit) => reach(unit, page));
  // What is loaded later is a unit of its own; what all pages that load it have already costs it nothing.
  const costs = { request: entries.map(() => 1), byte: entries.map(() => 1), hosts: entries.map((): readonly number[] | null => null) };
  const seen = new Set<string>();
  for (let more = [...later.keys()]; more.length > 0; more = [...later.keys()].filter((id) => !seen.has(id)))
    for (const id of more) {
      seen.add(id);
      const hosts = [...later.get(id)!];
      const known = new Set([...units].filter(([, of]) => hosts.every((h) => of.has(h))).map(([m]) => m));
      reach(costs.byte.length, [id], known);
      costs.request.push(LATER.request * hosts.length);
      costs.byte.push(LATER.byte * hosts.length);
      costs.hosts.push(hosts);
    }
  const roots = new Set([...entries.flat(), ...seen]);
  const pieces = new Map<string, Piece>();
  for (const [id, of] of units) {
    const module = getModule(id);
    if (!module || roots.has(id) || module.isEntry || of.size < 2) continue;
    const key = [...of].sort((a, b) => a - b).join();
    const piece = pieces.get(key) ?? pieces.set(key, { units: of, bytes: 0, members: [] }).get(key)!;
    piece.bytes += module.bytes;
    piece.members.push(id);
  }
  dearer(costs.byte, entries.length, (unit) => [...units].reduce((a, [id, of]) => a + (of.has(unit) ? (getModule(id)?.bytes ?? 0) : 0), 0));
  const merged = lightest([...pieces.values()], units, costs, getModule, weigh);
  return new Map(merged.flatMap((piece, n) => piece.members.map((id): [string, number] => [id, n])));
}

/** A byte costs a page the more, the more the page has to bring anyway. @param needs bytes of a page */
function dearer(byte: number[], pages: number, needs: (page: number) => number): void {
  const all = Array.from({ length: pages }, (_, page) => needs(page));
  const [least, most] = [Math.min(...all), Math.max(...all)];
  if (most > least) all.forEach((bytes, page) => (byte[page] = LIGHT + (HEAVY - LIGHT) * ((bytes - least) / (most - least)) ** 2));
}

/** So many plans are drawn up: in each next one the pages that bring most are dearer. */
const ROUNDS = 20;
/** What of the spread between the lightest and the heaviest page still counts as heavy. */
const NEAR_MOST = 0.12;
const DEARER = 1.32;
/**
 * So many files a page asks for, with all that it may load later, before one more counts: as much as so many bytes of the heaviest page. Counted over
 * all pages, so that one which loads little of what it may does not hide the others.
 */
const MOST_FILES = 35;
const FILE_TOO_MANY_BYTES = 120;
/** What a file brings beside its modules: the names that it takes from others and gives to them. */
const FILE_BYTES = 350;

/**
 * Of several plans the one whose heaviest page brings least, files that pages ask for beyond {@link MOST_FILES} counted against it: so no page hops over
 * its limit because of a change to another.
 * @param units who needs a module
 */
function lightest(
  start: readonly Piece[],
  units: ReadonlyMap<string, ReadonlySet<number>>,
  costs: Costs & { byte: number[] },
  getModule: GetModule,
  weigh: Weigh,
): Piece[] {
  const pages = costs.hosts.flatMap((hosts, unit) => (hosts ? [] : [unit]));
  // Pages are the first units, so that a unit of theirs is its place in these lists.
  const laterOf = pages.map((page) => costs.hosts.flatMap((hosts, unit) => (hosts?.includes(page) ? [unit] : [])));
  const weights = new Map<string, number>();
  const weightOf = (members: readonly string[]) => {
    const key = members.join();
    return weights.get(key) ?? weights.set(key, weigh(members)).get(key)!;
  };
  // What several need is the same in every plan, and so is what a page has for itself: only how it is put together differs.
  const shared = new Set(start.flatMap((p) => p.members));
  const alone = pages.map((page) => weigh([...units].flatMap(([id, of]) => (of.has(page) && !shared.has(id) ? [id] : []))));
  const asks = pages.map((page) => [page, ...laterOf[page]!]);
  const comesTo = (pieces: readonly Piece[]): ComesTo => {
    const brings = pages.map((page) =>
      pieces.reduce((sum, p) => sum + (p.units.has(page) ? weightOf(p.members) + FILE_BYTES : 0), alone[page]!),
    );
    const files = pages.map((page) => laterOf[page]!.length + pieces.filter((p) => asks[page]!.some((unit) => p.units.has(unit))).length);
    const tooMany = files.reduce((sum, n) => sum + Math.max(0, n - MOST_FILES), 0);
    const most = Math.max(...brings);
    return { brings, files, least: Math.min(...brings), most, tooMany, score: most + FILE_TOO_MANY_BYTES * tooMany };
  };
  let best: { pieces: Piece[]; score: number } = { pieces: [], score: Infinity };
  for (let round = 0; round < ROUNDS; round++) {
    const drawn = together(
      start.map((p) => ({ ...p, units: new Set(p.units), members: [...p.members] })),
      costs,
      getModule,
    );
    const pieces = takenApart(drawn, units, comesTo);
    const { score } = comesTo(pieces);
    if (score < best.score) best = { pieces, score };
    const { brings, least, most } = comesTo(drawn);
    pages.forEach((page) => {
      if (brings[page]! > most - NEAR_MOST * (most - least)) costs.byte[page]! *= DEARER;
    });
  }
  const few = putTogether(best.pieces, asks, getModule, comesTo);
  return neededFirst(few, needsOf(few, getModule));
}

/** What a plan comes to: bytes and files of each page, and what it is judged by. */
interface ComesTo {
  brings: number[];
  files: number[];
  least: number;
  most: number;
  /** Files beyond what a page may ask for, those of all pages together. */
  tooMany: number;
  score: number;
}

/**
 * Two files that a page asks for which asks for too many are made one, those two by which the plan gains most, until it gains no more: what the price
 * of a request did not bring about, for it is the same for all of a page's.
 * @param asks of each page: its own unit, and those that it loads later
 */
function putTogether(
  start: readonly Piece[],
  asks: readonly (readonly number[])[],
  getModule: GetModule,
  comesTo: (pieces: readonly Piece[]) => ComesTo,
): Piece[] {
  for (let pieces = [...start]; ;) {
    const now = comesTo(pieces);
    const beyond = asks.filter((_, page) => now.files[page]! > MOST_FILES);
    const askedBy = pieces.map((p) => beyond.map((of) => of.some((unit) => p.units.has(unit))));
    const graph = graphOf(needsOf(pieces, getModule));
    let best: { score: number; pieces: Piece[] } = { score: now.score, pieces };
    pieces.forEach((one, a) =>
      pieces.forEach((other, b) => {
        if (b <= a || !askedBy[a]!.some((asked, n) => asked && askedBy[b]![n]) || graph.circular(a, b)) return;
        const units = new Set([...one.units, ...other.units]);
        const needed = graph.allNeeds(a, graph.allNeeds(b));
        const both = { units, bytes: one.bytes + other.bytes, members: [...one.members, ...other.members] };
        const joined = pieces.flatMap((p, n) => {
          if (n === a || n === b) return n === a ? [both] : [];
          return needed.has(n) ? [{ ...p, units: new Set([...p.units, ...units]) }] : [p];
        });
        const { score } = comesTo(joined);
        if (score < best.score) best = { score, pieces: joined };
      }),
    );
    if (best.pieces === pieces) return pieces;
    pieces = best.pieces;
  }
}

/**
 * What the heaviest page has no need of taken out of the files that it asks for, as long as that makes it lighter and no page asks for too many. What a
 * page needs of a file needs nothing of the rest of it: no circle comes of it.
 */
function takenApart(
  start: readonly Piece[],
  units: ReadonlyMap<string, ReadonlySet<number>>,
  comesTo: (pieces: readonly Piece[]) => ComesTo,
): Piece[] {
  let pieces = [...start];
  const pieceOf = (members: string[], bytes: number): Piece => ({
    members,
    bytes,
    units: new Set(members.flatMap((id) => [...units.get(id)!])),
  });
  for (;;) {
    const now = comesTo(pieces);
    const page = now.brings.indexOf(now.most);
    const better = pieces.flatMap((piece, n) => {
      const wanted = piece.members.filter((id) => units.get(id)!.has(page));
      if (wanted.length === 0 || wanted.length === piece.members.length) return [];
      const rest = piece.members.filter((id) => !units.get(id)!.has(page));
      const apart = [...pieces.slice(0, n), pieceOf(wanted, piece.bytes), pieceOf(rest, piece.bytes), ...pieces.slice(n + 1)];
      const then = comesTo(apart);
      return then.most < now.most && then.tooMany <= now.tooMany ? [{ apart, most: then.most }] : [];
    });
    if (better.length === 0) return pieces;
    pieces = better.reduce((a, b) => (b.most < a.most ? b : a)).apart;
  }
}

/** Which of these each needs directly. */
function needsOf(pieces: readonly Piece[], getModule: GetModule): Set<number>[] {
  const at = new Map(pieces.flatMap((p, n) => p.members.map((id): [string, number] => [id, n])));
  return pieces.map(
    (p, n) => new Set(p.members.flatMap((id) => getModule(id)!.imports.flatMap((i) => at.get(i) ?? [])).filter((i) => i !== n)),
  );
}

/** Who needs whom. @param needs of each piece: those that it needs directly */
function graphOf(needs: readonly ReadonlySet<number>[]) {
  /** What a piece needs, directly or by way of others, with what is found already. */
  const allNeeds = (n: number, found = new Set<number>()): Set<number> => {
    for (const next of needs[n]!)
      if (!found.has(next)) {
        found.add(next);
        allNeeds(next, found);
      }
    return found;
  };
  /** Whether two pieces reach each other by way of a third: as one they would need it, and it them. */
  const circular = (a: number, b: number) =>
    [[a, b] as const, [b, a] as const].some(([x, y]) => [...needs[x]!].some((next) => next !== y && allNeeds(next).has(y)));
  return { allNeeds, circular };
}

/** What others need comes before them: a bundler that takes what a file needs into it finds that taken. */
function neededFirst(pieces: readonly (Piece | null)[], needs: readonly ReadonlySet<number>[]): Piece[] {
  const order: Piece[] = [];
  const done = new Set<number>();
  const take = (n: number) => {
    if (done.has(n)) return;
    done.add(n);
    needs[n]!.forEach(take);
    const piece = pieces[n];
    if (piece) order.push(piece);
  };
  pieces.forEach((_, n) => take(n));
  return order;
}

/** Pieces put together until no two of them gain by it. */
function together(start: readonly Piece[], costs: Costs, getModule: GetModule): Piece[] {
  const pieces: (Piece | null)[] = [...start];
  const needs = needsOf(start, getModule);
  const { allNeeds, circular } = graphOf(needs);
  const sumOf = (of: readonly number[], units: Iterable<number>, but: ReadonlySet<number>): number => {
    let sum = 0;
    for (const unit of units) if (!but.has(unit)) sum += of[unit]!;
    return sum;
  };
  const later = costs.hosts.flatMap((hosts, unit) => (hosts ? [{ unit, hosts }] : []));
  /** Units that a piece is there for: those that need it, and what is loaded later by pages that all have it. */
  const withLater = (units: ReadonlySet<number>): Set<number> => {
    const there = new Set(units);
    for (const { unit, hosts } of later) if (hosts.every((h) => there.has(h))) there.add(unit);
    return there;
  };
  const there = pieces.map((p) => withLater(p!.units));
  /** What it costs those units that have no need of a piece: it, and what it needs itself. */
  const burden = (n: number, needed: ReadonlySet<number>, units: ReadonlySet<number>) => {
    let sum = pieces[n]!.bytes * sumOf(costs.byte, units, there[n]!);
    for (const of of needed)
      sum += pieces[of]!.bytes * sumOf(costs.byte, units, there[of]!) + REQUEST_BYTES * sumOf(costs.request, units, there[of]!);
    return sum;
  };
  /** What the units that ask for both, or for one while the other is there, save by asking once. */
  const saved = (a: number, b: number): number => {
    const [p, q] = [pieces[a]!.units, pieces[b]!.units];
    let sum = 0;
    for (const unit of p) if (there[b]!.has(unit)) sum += costs.request[unit]!;
    for (const unit of q) if (!p.has(unit) && there[a]!.has(unit)) sum += costs.request[unit]!;
    return sum;
  };
  const gain = (a: number, b: number, needed = [a, b].map((n) => allNeeds(n))): number => {
    const both = saved(a, b);
    return both === 0 ? 0 : both * REQUEST_BYTES - burden(a, needed[0]!, pieces[b]!.units) - burden(b, needed[1]!, pieces[a]!.units);
  };
  /** What each two would gain as things stand. */
  const allGains = () => {
    const closures = pieces.map((_, n) => allNeeds(n));
    return pieces.map((p, a) => pieces.map((q, b) => (p && q && b > a && !circular(a, b) ? gain(a, b, [closures[a]!, closures[b]!]) : 0)));
  };
  let gains = allGains();
  for (let merged = false; ;) {
    let best = { gain: 0, a: -1, b: -1 };
    gains.forEach((row, a) => row.forEach((g, b) => void (g > best.gain && (best = { gain: g, a, b }))));
    const { a, b } = best;
    if (a < 0) {
      if (!merged) return neededFirst(pieces, needs);
      // What two gain may have grown since it was reckoned.
      gains = allGains();
      merged = false;
      continue;
    }
    const now = circular(a, b) ? 0 : gain(a, b); // others were put together since it was reckoned
    if (now < best.gain) {
      gains[a]![b] = now;
      continue;
    }
    merged = true;
    const [p, q] = [pieces[a]!, pieces[b]!];
    const units = new Set([...p.units, ...q.units]);
    pieces[a] = { units, bytes: p.bytes + q.bytes, members: [...p.members, ...q.members] };
    pieces[b] = null;
    for (const n of needs[b]!) needs[a]!.add(n);
    for (const of of needs) if (of.delete(b)) of.add(a);
    needs[a]!.delete(a);
    needs[b]!.clear();
    there[a] = withLater(units);
    for (const n of allNeeds(a)) {
      for (const unit of units) if (!there[n]!.has(unit)) pieces[n]!.units.add(unit);
      there[n] = withLater(pieces[n]!.units);
    }
    pieces.forEach((other, n) => {
      gains[Math.min(n, b)]![Math.max(n, b)] = 0;
      if (other && n !== a) gains[Math.min(n, a)]![Math.max(n, a)] = gain(a, n);
    });
  }
}
