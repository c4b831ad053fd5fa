import { type PanelState, accountPanel } from "#core/judge/account";
import type { FilmMoment } from "#core/judge/film-history";
import type { ShopRates } from "#core/judge/option-figures";
import { MODEL_FILM, type ShopFilm } from "#core/panel/shop-film";
import { workedOut } from "#core/panel/in-the-way";
import { type LedgerEntry, ownEntries } from "#core/record/entry";
import { type Standing, standingOf } from "#core/course/standing";
import { sameList } from "#core/kernel/same-list";
import { suggestSpots } from "#core/kernel/geometry/shapes";
import { type Point, boundingBox } from "#core/kernel/geometry/geometry";
import type { ShopRemoval } from "#core/models/correction/clearing";
import type { ShopFactors } from "#core/models/flow/simulate-coats";
import { othersEntries } from "../access/others-entries";
import type { ServerContext } from "../context";
import { type Job, getJob } from "../repos/job-repo";
import { type JobLedgers, entriesServing, jobLedgers } from "../repos/ledger-repo";
import { type Panel, listPanels } from "../repos/panel-repo";
import { type Product, getProductRevision } from "../repos/product-repo";
import { courseAsked } from "../summary/panel-summary";
import { type Region, type ShopSettings, getShop, shopFactors, shopRegion, shopRemoval } from "../repos/shop-repo";

const FIRST_SPOTS = 8;
const SMALL_PART_SPOTS = 5;
const SMALL_PART_M = 0.6;

export interface PanelView {
  job: Job;
  panel: Panel;
  panels: { id: string; name: string }[];
  product: Product;
  state: PanelState;
  /** Where it stands and what the hand does next. */
  standing: Standing;
  /** Where to measure, in walking order: the suggested places and any other that was read. */
  spotPlan: { name: string; at: Point }[];
  floor_m: number;
  /** What this shop lays against the model. */
  shopFilm: ShopFilm;
  /** The shop's factors on the flow model, 1 where nothing has been taken over. */
  shopFactors: ShopFactors;
  /** What it takes off, as taken over. */
  shopRemoval: ShopRemoval;
  /** What an hour and its materials cost here. */
  /** Null: whoever looks does not see what work costs here. */
  rates: ShopRates | null;
  readingsPerSpot: number;
  /** Whose words for parts the shop uses. */
  region: Region;
  /** How many of the places are the suggested ones. */
  spotCount: number;
  formKey: string;
  /** Entries of it that whoever looks may neither put right nor take out. */
  othersEntries: readonly string[];
  /** The newest entry of the ledger that all of this stands on; null for an empty one. */
  expectedVersion: string | null;
}

/** Everything a panel's pages show; null when job or panel is not there. */
export async function loadPanelView(ctx: ServerContext, jobId: string, panelId: string): Promise<PanelView | null> {
  const common = await loadCommon(ctx, jobId);
  const panel = common?.panels.find((p) => p.id === panelId);
  return common && panel ? panelView(ctx, common, panel) : null;
}

/** The same of every panel of a job, in its order; none when the job is not there. */
export async function loadJobViews(ctx: ServerContext, jobId: string): Promise<PanelView[]> {
  const common = await loadCommon(ctx, jobId);
  if (!common) return [];
  const views = await Promise.all(common.panels.map((p) => panelView(ctx, common, p)));
  return views.filter((v) => v !== null);
}

interface Common {
  job: Job;
  panels: Panel[];
  shop: ShopSettings;
  ledgers: JobLedgers;
  /** Panels of a job mostly have the same: each is read once. */
  productOf: (revisionId: string) => Promise<Product | null>;
}

async function loadCommon(ctx: ServerContext, jobId: string): Promise<Common | null> {
  const [job, panels, shop, ledgers] = await Promise.all([
    getJob(ctx.db, jobId),
    listPanels(ctx.db, jobId),
    getShop(ctx.db),
    jobLedgers(ctx.db, jobId),
  ]);
  const products = new Map<string, Promise<Product | null>>();
  const productOf = (revisionId: string) => {
    const asked = products.get(revisionId) ?? getProductRevision(ctx.db, revisionId);
    products.set(revisionId, asked);
    return asked;
  };
  return job && { job, panels, shop, ledgers, productOf };
}

async function panelView(ctx: ServerContext, { job, panels, shop, ledgers, productOf }: Common, panel: Panel): Promise<PanelView | null> {
  const [product, entries, held] = await Promise.all([
    productOf(panel.productRevisionId),
    entriesServing(ctx.db, panel, ledgers),
    othersEntries(ctx.actor, ctx.db, panel.id),
  ]);
  if (!product) return null;
  const asked = (facts: PanelState) => ({ ...courseAsked(panel, product, job, facts, shopFactors(shop)), now_ms: ctx.now_ms() });
  const state = accountOf(ctx, {
    panel,
    product,
    entries,
    shop: shop.learntFilm ?? MODEL_FILM,
    standing: (facts) => standingOf(asked(facts)),
  });
  const count = spotCount(panel, state);
  return {
    job,
    panel,
    panels: panels.map(({ id, name }) => ({ id, name })),
    product,
    state,
    standing: standingOf(asked(state)),
    spotPlan: spotPlan(ctx, panel, state, count),
    spotCount: count,
    floor_m: product.sheet.floor_m ?? shop.floor_m,
    shopFilm: shop.learntFilm ?? MODEL_FILM,
    shopFactors: shopFactors(shop),
    shopRemoval: { ...shopRemoval(shop), told: state.told },
    rates: shop.rates,
    readingsPerSpot: shop.readingsPerSpot,
    region: shopRegion(shop),
    formKey: ctx.newId(),
    othersEntries: held,
    expectedVersion: ownEntries(entries).at(-1)?.id ?? null,
  };
}

/** Film of a panel after everything that was done to it. */
export async function loadFilmHistory(ctx: ServerContext, view: PanelView): Promise<FilmMoment[]> {
  const leftOut = new Set(view.state.inTheWay.map((i) => i.entry.id));
  const entries = await entriesServing(ctx.db, view.panel);
  const key = accountKey(view.panel, view.product, entries, view.shopFilm);
  const known = ctx.historyMemo.get(key);
  if (known) return known;
  const told = ctx.inThread("filmHistory", {
    brief: view.panel,
    sheet: view.product.sheet,
    entries: entries.filter((e) => !leftOut.has(e.id)),
    shop: view.shopFilm,
  });
  ctx.historyMemo.set(key, told);
  told.catch(() => ctx.historyMemo.delete(key));
  return told;
}

/** Tells one state of a panel's ledger from any other, with what else its film is worked out from. */
const accountKey = (panel: Panel, product: Product, entries: readonly LedgerEntry[], shop: ShopFilm): string =>
  JSON.stringify([panel, product.revisionId, entries.at(-1)?.id, entries.length, shop]);

/**
 * A panel's account, worked out once for a state of its ledger and kept until the next: pages, commands and files that ask at the same moment get the same one. An entry that
 * it, or where the panel stands, cannot be worked out with is left out and named in it.
 */
function accountOf(
  ctx: ServerContext,
  {
    panel,
    product,
    entries,
    shop,
    standing,
  }: { panel: Panel; product: Product; entries: readonly LedgerEntry[]; shop: ShopFilm; standing: (state: PanelState) => unknown },
): PanelState {
  // A ledger as it is kept, and a shape as it was read, are the same object as long as they say the same.
  const of = [...(Object.values(panel) as unknown[]), product.revisionId, JSON.stringify(shop), entries];
  const known = ctx.accountMemo.get(panel.id);
  if (known && sameList(known.of, of)) return known.state;
  const { value, inTheWay } = workedOut(entries, (ledger) => {
    const account = accountPanel(panel, product.sheet, ledger, shop);
    standing(account);
    return account;
  });
  const state = { ...value, inTheWay };
  ctx.accountMemo.set(panel.id, { of, state });
  return state;
}

/** Suggested places by number, replaced by what was read there; then the added ones, and any other read place under its own name. */
function spotPlan(ctx: ServerContext, panel: Panel, state: PanelState, count: number): { name: string; at: Point }[] {
  const { outline, bodyLines } = panel.shape;
  const key = `${panel.id} ${count}`;
  const places = ctx.spotMemo.get(key) ?? suggestSpots(outline, count, { bodyLines });
  ctx.spotMemo.set(key, places);
  const added = state.spotPlan?.body.added.map((s) => ({ name: s.name, at: [s.at.x_m, s.at.y_m] as Point })) ?? [];
  const planned = [...places.map((at, i) => ({ name: String(i + 1), at })), ...added];
  const read = new Map(state.spots.map((s) => [s.name, s.at]));
  const extra = state.spots.filter((s) => !planned.some((p) => p.name === s.name)).map(({ name, at }) => ({ name, at }));
  return [...planned.map((p) => ({ ...p, at: read.get(p.name) ?? p.at })), ...extra];
}

/** Suggested places: as chosen for the panel, else by its size. */
function spotCount({ shape }: Panel, state: PanelState): number {
  const { x0, x1 } = boundingBox(shape.outline);
  return state.spotPlan?.body.count ?? (x1 - x0 < SMALL_PART_M ? SMALL_PART_SPOTS : FIRST_SPOTS);
}
