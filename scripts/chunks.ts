/** What of a module says where it belongs. */
export interface Module {
  isEntry: boolean;
  imports: readonly string[];
  loadsLater: readonly string[];
  bytes: number;
  /** It only hands on what others export: who imports it needs what it names, not all that it hands on. */
  isBarrel: boolean;
}
export type GetModule = (id: string) => Module | null;
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

/** So many plans are drawn up: in each next one the pages that bring most, and those that ask most often, are dearer. */
const ROUNDS = 28;
/** What of the spread between the lightest and the heaviest page still counts as heavy. */
const NEAR_MOST = 0.12;
const DEARER = { byte: 1.32, request: 1.4 };
/** So many files a page may ask for, with what it loads later; one more weighs as much as so many bytes of the heaviest page. */
const MOST_FILES = 45;
const FILE_TOO_MANY_BYTES = 5000;
/** What a file brings beside its modules: the names that it takes from others and gives to them. */
const FILE_BYTES = 350;

/**
 * Of several plans the one whose heaviest page brings least, none asking for too many files: so no page hops over its limit because of a change to another.
 * @param units who needs a module
 */
function lightest(
  start: readonly Piece[],
  units: ReadonlyMap<string, ReadonlySet<number>>,
  costs: Costs & { byte: number[]; request: number[] },
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
  const comesTo = (pieces: readonly Piece[]) => {
    const shared = new Set(pieces.flatMap((p) => p.members));
    const alone = pages.map((page) => weightOf([...units].flatMap(([id, of]) => (of.has(page) && !shared.has(id) ? [id] : []))));
    const brings = pages.map((page) =>
      pieces.reduce((sum, p) => sum + (p.units.has(page) ? weightOf(p.members) + FILE_BYTES : 0), alone[page]!),
    );
    const files = pages.map(
      (page) => laterOf[page]!.length + pieces.filter((p) => [page, ...laterOf[page]!].some((unit) => p.units.has(unit))).length,
    );
    const most = Math.max(...brings);
    const tooMany = Math.max(0, Math.max(...files) - MOST_FILES);
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
    const { brings, files, least, most } = comesTo(drawn);
    pages.forEach((page) => {
      if (brings[page]! > most - NEAR_MOST * (most - least)) costs.byte[page]! *= DEARER.byte;
      if (files[page]! > MOST_FILES) for (const unit of [page, ...laterOf[page]!]) costs.request[unit]! *= DEARER.request;
    });
  }
  return neededFirst(best.pieces, needsOf(best.pieces, getModule));
}

/**
 * What the heaviest page has no need of taken out of the files that it asks for, as long as that makes it lighter and no page asks for too many. What a
 * page needs of a file needs nothing of the rest of it: no circle comes of it.
 */
function takenApart(
  start: readonly Piece[],
  units: ReadonlyMap<string, ReadonlySet<number>>,
  comesTo: (pieces: readonly Piece[]) => { brings: number[]; most: number; tooMany: number },
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

interface Info {
  isEntry: boolean;
  importedIds: readonly string[];
  dynamicallyImportedIds: readonly string[];
  code: string | null;
}
const HANDED_ON =
  /(export|import)\s*(\*(\s*as\s+\w+)?|\{[^}]*\})\s*from\s*["'][^"']+["'];?|export\s*\{[^}]*\}\s*;?|\/\*[\s\S]*?\*\/|\/\/.*/g;
/** Under which names a module hands on what others export: the module of each, as it is written there. */
export function handedOnBy(code: string): Map<string, string> {
  const of = new Map<string, string>();
  for (const [, names, source] of code.matchAll(/export\s*\{([^}]*)\}\s*from\s*["']([^"']+)["']/g))
    for (const name of names!.split(","))
      of.set(
        name
          .trim()
          .split(/\s+as\s+/)
          .at(-1)!,
        source!,
      );
  return of;
}

/** What a module asks of another by name. */
export const namesAsked = (code: string, source: string): string[] =>
  [...code.matchAll(/import\s*\{([^}]*)\}\s*from\s*["']([^"']+)["']/g)].flatMap(([, names, from]) =>
    from === source ? names!.split(",").flatMap((name) => name.trim().split(/\s+as\s+/)[0] || []) : [],
  );

/** Libraries of which pages use a few functions each. Of all others what one file hands on is needed by who imports it. */
const PARTLY_USED = /node_modules\/(d3-|lucide-react|date-fns)/;
const isTakenWhole = (id: string) => id.includes("node_modules/") && !PARTLY_USED.test(id);
/** What a bundler knows of a module. @param left script of it that pages use, minified */
export function moduleOf(info: Info | null, id = "", left = info?.code ?? ""): Module | null {
  if (!info) return null;
  const code = info.code ?? "";
  const rest = code.replace(HANDED_ON, "");
  return {
    isEntry: info.isEntry,
    imports: info.importedIds,
    loadsLater: info.dynamicallyImportedIds,
    bytes: left.length,
    isBarrel: code !== "" && rest.trim() === "" && !isTakenWhole(id),
  };
}

/** Pieces put together until no two of them gain by it. */
function together(start: readonly Piece[], costs: Costs, getModule: GetModule): Piece[] {
  const pieces: (Piece | null)[] = [...start];
  const needs = needsOf(start, getModule);
  /** What a piece needs, directly or by way of others. */
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

interface Route {
  file: string;
  children?: Route[] | undefined;
}
/** Every page: the files of the routes that its address names, from the outermost in. */
export const routePages = (routes: readonly Route[], above: readonly string[] = []): string[][] =>
  routes.flatMap((r) => (r.children ? routePages(r.children, [...above, r.file]) : [[...above, r.file]]));

/**
 * Modules that a page is made of: what starts every page, and all that stands for a file of its routes (the file, and what the router makes of it).
 * The same whatever order the modules were read in.
 * @param ids of all modules
 * @param folder that the files are in, ending in a stroke
 */
export function pageModules(pages: readonly (readonly string[])[], ids: readonly string[], folder: string): string[][] {
  const of = new Map<string, string[]>();
  for (const id of [...ids].sort()) {
    const file = id.replace(/\?.*/, "");
    of.set(file, [...(of.get(file) ?? []), id]);
  }
  return pages.map((files) => ["entry.client.tsx", "root.tsx", ...files].flatMap((file) => of.get(folder + file) ?? []));
}
