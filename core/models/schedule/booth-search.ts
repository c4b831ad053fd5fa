import type { Block, BoothProblem, Op } from "./booth-problem";

/** Coats in the order they are begun, with their start, painter and pot. */
export interface PlacedOp {
  op: Op;
  start_s: number;
  painter: number;
  pot: number;
}
export interface Found {
  placed: PlacedOp[];
  pots: { product: string; mixed: boolean; painter: number; from_s: number; until_s: number }[];
  end_s: number;
}

interface Node {
  op: Op;
  index: number;
  /** Which coat of its block. */
  nth: number;
  /** After it, at best: rest of its own block, from its end to the block's last end. */
  tail_s: number;
}
interface OpenPot {
  product: string;
  /** Node whose start opens it; null: it was mixed before the plan. */
  first: number | null;
  until_s: number;
  life_s: number;
}

const CLOSE_S = 1e-6;
/** A pot more is worth this little against a shorter day: it only decides between plans that end together. */
const POT_WORTH_S = 0.01;
const SLIPS_MOST = 5;

/**
 * Branch and bound over the order in which coats are begun. Every order is timed exactly: starts solve a system of differences (least and
 * most waits, painters, pots, places), so that an early coat is held back where a later one would miss its window.
 * The search is exhaustive unless it runs out of `nodesMost`.
 */
export class BoothSearch {
  readonly nodes: Node[] = [];
  visited = 0;
  exhausted = true;
  best: Found | null = null;
  private bestCost = Infinity;
  /** A plan at this cost cannot be bettered. */
  private readonly least: number;
  private readonly est: Float64Array;
  private readonly ub: Float64Array;
  private readonly out: { to: number; w: number }[][] = [];
  private readonly trail: { node: number; was: number }[] = [];
  private readonly relaxed: Int32Array;
  private readonly blockNodes: number[][] = [];
  private readonly next: number[];
  private readonly order: number[] = [];
  private readonly painterOf: number[] = [];
  private readonly potOf: number[] = [];
  private readonly lastOf: (number | null)[];
  private readonly pots: OpenPot[];
  private readonly byTail: number[];
  /** Free places by the block that left each; null: free from the start. */
  private readonly placesFree: (number | null)[] = [];
  private readonly twins: number[];
  private readonly feasibleStatic: boolean;

  constructor(
    private readonly problem: BoothProblem,
    private readonly blocks: readonly Block[],
    private readonly nodesMost: number,
  ) {
    for (const b of blocks) {
      const list: number[] = [];
      b.ops.forEach((op, nth) => {
        list.push(this.nodes.length);
        this.nodes.push({ op, index: this.nodes.length, nth, tail_s: 0 });
      });
      this.blockNodes.push(list);
    }
    const n = this.nodes.length;
    this.est = new Float64Array(n).fill(-1);
    this.ub = Float64Array.from(this.nodes, (v) => v.op.until_s);
    this.relaxed = new Int32Array(n);
    this.out = this.nodes.map(() => []);
    this.next = blocks.map(() => 0);
    this.lastOf = Array.from({ length: problem.rules.painters }, () => null);
    this.pots = problem.openPots.map((p) => ({ product: p.product, first: null, until_s: p.until_s, life_s: Infinity }));
    for (const list of this.blockNodes)
      for (let k = list.length - 1; k >= 0; k--) {
        const node = this.nodes[list[k]!]!;
        const { next } = node.op;
        if (!next) continue;
        const after = this.nodes[list[k + 1]!]!;
        node.tail_s = next.least_s - node.op.length_s + after.op.length_s + after.tail_s;
        this.out[node.index]!.push({ to: after.index, w: next.least_s });
        if (next.most_s < Infinity) this.out[after.index]!.push({ to: node.index, w: -next.most_s });
      }
    this.byTail = this.nodes.map((v) => v.index).sort((a, b) => this.nodes[b]!.tail_s - this.nodes[a]!.tail_s);
    this.twins = blocks.map((b, i) => twinBefore(blocks, i, b));
    const inside = blocks.reduce((a, b) => a + (b.inside ? b.places : 0), 0);
    for (let k = 0; k < problem.rules.places - inside; k++) this.placesFree.push(null);
    this.feasibleStatic =
      this.raise(this.nodes.map((v) => [v.index, Math.max(0, v.op.from_s)] as const)) &&
      !this.nodes.some((v) => v.op.length_s > v.op.potLife_s);
    this.least = this.bound() + POT_WORTH_S * this.mixesAtLeast();
  }

  /** Length of the plan and pots to mix at the very least, before anything is placed. */
  atLeast(): { end_s: number; mixes: number } {
    return { end_s: this.bound(), mixes: this.mixesAtLeast() };
  }

  run(): Found | null {
    if (!this.feasibleStatic) return null;
    if (this.nodes.length === 0) return (this.best = { placed: [], pots: [], end_s: 0 });
    for (let g = 1; g <= this.blocks.length; g++) this.rounds(g);
    this.improve(this.nodesMost * 0.35);
    for (let slips = 0; slips <= SLIPS_MOST && !this.done(); slips++) this.descend(slips, this.nodesMost * 0.6);
    this.improve(this.nodesMost * 0.8);
    this.exhausted = true;
    if (!this.done()) this.descend(Infinity, this.nodesMost);
    return this.best;
  }

  /** A first plan: blocks in rounds of `g`, coat after coat. */
  private rounds(g: number): void {
    const sequence: number[] = [];
    for (let from = 0; from < this.blocks.length; from += g) {
      const group = this.blockNodes.slice(from, from + g);
      const most = Math.max(...group.map((list) => list.length));
      for (let k = 0; k < most; k++) group.forEach((list, i) => k < list.length && sequence.push(from + i));
    }
    this.follow(sequence);
  }

  /** Times one whole order of blocks, a new pot only where the last does not live long enough; keeps it where it is the best so far. */
  private follow(sequence: readonly number[]): boolean {
    const undo: (() => void)[] = [];
    const costBefore = this.bestCost;
    let ok = true;
    for (const b of sequence) {
      this.visited++;
      const done = this.place(b, "same") ?? this.place(b, "new");
      if (!done) {
        ok = false;
        break;
      }
      undo.push(done);
    }
    if (ok) this.keep();
    for (const u of undo.reverse()) u();
    return this.bestCost < costBefore;
  }

  /** Takes one coat out of the best order and puts it elsewhere, as long as that makes the plan shorter. */
  private improve(nodesMost: number): void {
    for (let better = true; better && !this.done();) {
      better = false;
      const best = this.best?.placed.map((p) => p.op.block) ?? [];
      for (let from = 0; !better && from < best.length; from++)
        for (let to = 0; !better && to < best.length; to++) {
          if (this.visited >= nodesMost) return;
          const rest = best.filter((_, i) => i !== from);
          if (to !== from) better = this.follow([...rest.slice(0, to), best[from]!, ...rest.slice(to)]);
        }
    }
  }

  /**
   * Goes on from the coats placed so far, the most promising next coat first.
   * @param slips how often in all a less promising coat may be taken: a mistake made early is found sooner than by going through everything
   */
  private descend(slips: number, nodesMost: number): void {
    if (this.order.length === this.nodes.length) {
      this.keep();
      return;
    }
    const children: { block: number; pot: "same" | "new"; start: number; bound: number; tail: number }[] = [];
    for (let b = 0; b < this.blocks.length; b++) {
      const k = this.next[b]!;
      if (k >= this.blockNodes[b]!.length) continue;
      const twin = this.twins[b]!;
      if (twin >= 0 && this.next[twin]! <= k) continue;
      for (const pot of ["same", "new"] as const) {
        this.visited++;
        const undo = this.place(b, pot);
        if (!undo) continue;
        const bound = this.bound();
        const node = this.blockNodes[b]![k]!;
        if (bound + POT_WORTH_S * this.mixedPots() < this.bestCost - CLOSE_S)
          children.push({ block: b, pot, start: this.est[node]!, bound, tail: this.nodes[node]!.tail_s });
        undo();
      }
    }
    children.sort((a, b) => a.bound - b.bound || a.start - b.start || b.tail - a.tail);
    for (const [rank, c] of children.entries()) {
      if (rank > slips) break;
      if (c.bound + POT_WORTH_S * this.mixedPots() >= this.bestCost - CLOSE_S) continue;
      const undo = this.place(c.block, c.pot);
      if (!undo) continue;
      this.descend(slips - rank, nodesMost);
      undo();
      if (this.done()) return;
      if (this.visited >= nodesMost) {
        this.exhausted = false;
        return;
      }
    }
  }

  private done(): boolean {
    return this.bestCost <= this.least + CLOSE_S;
  }

  private mixedPots(): number {
    return this.pots.length - this.problem.openPots.length;
  }

  /** Appends the block's next coat; gives the way back, or null where a rule forbids it. */
  private place(b: number, how: "same" | "new"): (() => void) | null {
    const list = this.blockNodes[b]!;
    const k = this.next[b]!;
    const v = list[k]!;
    const { op } = this.nodes[v]!;
    const { rules } = this.problem;
    const potIndex = this.pots.findLastIndex((p) => p.product === op.product);
    if (how === "same" && potIndex < 0) return null;
    if (how === "new" && rules.potsMost !== null) {
      const mixed = this.pots.filter((p) => p.product === op.product && p.first !== null).length;
      if (mixed >= rules.potsMost) return null;
    }
    let entering: (number | null)[] = [];
    if (k === 0 && !this.blocks[b]!.inside) {
      const { places } = this.blocks[b]!;
      if (this.placesFree.length < places) return null;
      this.placesFree.sort((x, y) => this.leftAt(x) - this.leftAt(y));
      entering = this.placesFree.splice(0, places);
    }
    const painter = this.freePainter();
    const mix_s = how === "new" ? rules.mix_s : 0;
    const edges: { from: number; to: number; w: number }[] = [];
    const before = this.lastOf[painter] ?? null;
    const raise: [number, number][] = [[v, mix_s]];
    if (before !== null) edges.push({ from: before, to: v, w: this.nodes[before]!.op.length_s + mix_s });
    for (const place of entering)
      if (place !== null) {
        const out = this.blockNodes[place]!.at(-1)!;
        edges.push({ from: out, to: v, w: this.nodes[out]!.op.length_s + rules.carryOut_s });
      }
    let wasUb: number | null = null;
    if (how === "same") {
      const pot = this.pots[potIndex]!;
      if (pot.first === null) {
        wasUb = this.ub[v]!;
        this.ub[v] = Math.min(wasUb, pot.until_s - op.length_s);
      } else {
        edges.push({ from: pot.first, to: v, w: 0 });
        edges.push({ from: v, to: pot.first, w: -(op.potLife_s - op.length_s) });
      }
    } else this.pots.push({ product: op.product, first: v, until_s: Infinity, life_s: op.potLife_s });
    const mark = this.trail.length;
    for (const e of edges) this.out[e.from]!.push({ to: e.to, w: e.w });
    const ok =
      this.raise([...raise, ...edges.map((e) => [e.to, this.est[e.from]! + e.w] as const)]) && this.est[v]! <= this.ub[v]! + CLOSE_S;
    this.lastOf[painter] = v;
    this.next[b] = k + 1;
    this.order.push(v);
    this.painterOf[v] = painter;
    this.potOf[v] = how === "same" ? potIndex : this.pots.length - 1;
    const leaving = k + 1 === list.length ? this.blocks[b]!.places : 0;
    for (let i = 0; i < leaving; i++) this.placesFree.push(b);
    const undo = () => {
      if (leaving) for (let i = this.placesFree.length - 1; i >= 0; i--) if (this.placesFree[i] === b) this.placesFree.splice(i, 1);
      this.placesFree.push(...entering);
      this.order.pop();
      this.next[b] = k;
      this.lastOf[painter] = before;
      for (const e of edges) this.out[e.from]!.pop();
      if (how === "new") this.pots.pop();
      if (wasUb !== null) this.ub[v] = wasUb;
      while (this.trail.length > mark) {
        const t = this.trail.pop()!;
        this.est[t.node] = t.was;
      }
    };
    if (ok) return undo;
    undo();
    return null;
  }

  /** When the block that stood there leaves. */
  private leftAt(block: number | null): number {
    const last = block === null ? undefined : this.blockNodes[block]!.at(-1);
    return last === undefined ? -Infinity : this.est[last]! + this.nodes[last]!.op.length_s;
  }

  private freePainter(): number {
    let best = 0;
    let at = Infinity;
    this.lastOf.forEach((v, i) => {
      const free = v === null ? -Infinity : this.est[v]! + this.nodes[v]!.op.length_s;
      if (free < at) {
        at = free;
        best = i;
      }
    });
    return best;
  }

  /** Pushes starts up until every difference holds. @returns false when some start would pass its latest or the waits contradict each other */
  private raise(changes: readonly (readonly [number, number])[]): boolean {
    const queue: number[] = [];
    const most = this.nodes.length + 1;
    const put = (v: number, t: number): boolean => {
      if (t <= this.est[v]! + CLOSE_S) return true;
      if (t > this.ub[v]! + CLOSE_S) return false;
      if (++this.relaxed[v]! > most) return false;
      this.trail.push({ node: v, was: this.est[v]! });
      this.est[v] = t;
      queue.push(v);
      return true;
    };
    let ok = changes.every(([v, t]) => put(v, t));
    for (let i = 0; ok && i < queue.length; i++) {
      const v = queue[i]!;
      for (const e of this.out[v]!)
        if (!put(e.to, this.est[v]! + e.w)) {
          ok = false;
          break;
        }
    }
    for (const v of queue) this.relaxed[v] = 0;
    for (const [v] of changes) this.relaxed[v] = 0;
    if (!ok) this.relaxed.fill(0);
    return ok;
  }

  /** The plan cannot end before this, whatever follows. */
  private bound(): number {
    const { painters, mix_s } = this.problem.rules;
    let lb = 0;
    for (const v of this.nodes) lb = Math.max(lb, this.est[v.index]! + v.op.length_s + v.tail_s);
    let free = Infinity;
    for (const v of this.lastOf) free = Math.min(free, v === null ? 0 : this.est[v]! + this.nodes[v]!.op.length_s);
    let head = Infinity;
    let work = 0;
    for (const i of this.byTail) {
      const v = this.nodes[i]!;
      if (v.nth < this.next[v.op.block]!) continue;
      head = Math.min(head, Math.max(free, this.est[i]!));
      work += v.op.length_s;
      lb = Math.max(lb, head + work / painters + v.tail_s);
    }
    if (work > 0 && head < Infinity) {
      const mixes = this.mixesAtLeast();
      if (mixes > 0) lb = Math.max(lb, Math.max(free, 0) + (work + mixes * mix_s) / painters);
    }
    return lb;
  }

  /** Pots that must still be mixed: one pot serves at most its life of every painter's spraying. */
  private mixesAtLeast(): number {
    const { painters } = this.problem.rules;
    const left = new Map<string, { work: number; life: number }>();
    for (const v of this.nodes) {
      if (v.nth < this.next[v.op.block]!) continue;
      const l = left.get(v.op.product) ?? { work: 0, life: 0 };
      left.set(v.op.product, { work: l.work + v.op.length_s, life: Math.max(l.life, v.op.potLife_s) });
    }
    let mixes = 0;
    for (const [product, { work, life }] of left) {
      const pot = this.pots.findLast((p) => p.product === product);
      const stillGood = !pot ? 0 : pot.first === null ? Math.max(0, pot.until_s) : pot.life_s;
      mixes += Math.max(0, Math.ceil((work - painters * stillGood) / (painters * life) - 1e-9));
    }
    return mixes;
  }

  private keep(): void {
    const end_s = this.nodes.reduce((a, v) => Math.max(a, this.est[v.index]! + v.op.length_s), 0);
    const cost = end_s + POT_WORTH_S * this.mixedPots();
    if (cost >= this.bestCost - CLOSE_S) return;
    this.bestCost = cost;
    const placed = this.order.map((v) => ({
      op: this.nodes[v]!.op,
      start_s: this.est[v]!,
      painter: this.painterOf[v]!,
      pot: this.potOf[v]!,
    }));
    this.best = {
      placed,
      pots: this.pots.map((p, i) => ({
        product: p.product,
        mixed: p.first !== null,
        painter: p.first === null ? 0 : this.painterOf[p.first]!,
        from_s: p.first === null ? 0 : this.est[p.first]!,
        until_s:
          p.first === null ? p.until_s : this.est[p.first]! + Math.min(...placed.filter((x) => x.pot === i).map((x) => x.op.potLife_s)),
      })),
      end_s,
    };
  }
}

/** The block just like this one that comes before it: of two equal parts the first is begun first, which halves the search. */
function twinBefore(blocks: readonly Block[], i: number, block: Block): number {
  const look = (b: Block) =>
    JSON.stringify([
      b.places,
      b.inside,
      b.ops.map((o) => [o.length_s, o.from_s, o.until_s, o.product, o.potLife_s, o.next, o.members.length]),
    ]);
  const me = look(block);
  for (let k = i - 1; k >= 0; k--) if (look(blocks[k]!) === me) return k;
  return -1;
}
