import { ONE_COLOUR } from "#core/models/colour/job-colours";
import { houseWay } from "#core/models/ways/house-ways";
import { NO_BRIEF } from "#core/panel/job-brief";
import { render } from "@testing-library/react";
import { Outlet, createRoutesStub } from "react-router";
import { DEFAULT_REMOVAL, type ShopRemoval } from "#core/models/correction/clearing";
import type { BodyInputOf } from "#core/record/bodies";
import { MODEL_FILM } from "#core/panel/shop-film";
import { standingOf } from "#core/course/standing";
import { accountPanel } from "#core/judge/account";
import { panelShape, suggestSpots } from "#core/kernel/geometry/shapes";
import { TEST_SHEET, testLedger } from "#core/panel/testing/test-ledger";
import { METRIC } from "#core/kernel/units/quantities";
import type { ProductSheet } from "#core/models/product/sheet";
import type { HouseWay } from "#core/models/ways/way";
import type { Finish } from "#core/models/ways/terms";
import type { PanelView } from "#server/views/panel-view";
import type { Outbox } from "~/kit/outbox/outbox";
import { OutboxContext } from "~/kit/outbox/use-outbox";
import { type Call, answer } from "#workers/ops";

const shape = panelShape("door", { width_m: 1.1, height_m: 0.9 });
const places = suggestSpots(shape.outline, 6);
const BEFORE_UM = [92, 90, 94, 91, 93, 90];

export interface ViewOptions {
  clear_um?: number;
  read?: boolean;
  finish?: Finish;
  shopRemoval?: ShopRemoval;
  /** Its clear, the way it is sprayed, and how many coats of it are on before anything else is added. */
  sheet?: ProductSheet;
  way?: HouseWay;
  coats?: number;
  add?: (ledger: ReturnType<typeof testLedger>) => unknown;
}
/** A panel's view as the server would send it: a door read before and after two coats, then whatever the test adds to its ledger. */
export function testView({
  clear_um = 60,
  read = true,
  finish = "flat",
  shopRemoval = DEFAULT_REMOVAL,
  sheet = TEST_SHEET,
  way = houseWay("two-full"),
  coats = 2,
  add = () => undefined,
}: ViewOptions = {}): PanelView {
  const ledger = testLedger({ places });
  if (read) ledger.read("before", BEFORE_UM);
  for (let number = 1; number <= coats; number++) ledger.coat(number);
  if (read)
    ledger.read(
      "after",
      BEFORE_UM.map((b) => b + clear_um),
    );
  add(ledger);
  const brief = { shape, substrate: "refinish" as const, tilt_rad: Math.PI / 2, coatsPlanned: 2 };
  const state = accountPanel(brief, sheet, ledger.entries);
  return {
    job: {
      id: "job",
      vehicle: "Test van",
      colourName: "grey",
      colourCss: "#808080",
      colours: ONE_COLOUR,
      finish,
      way,
      brief: NO_BRIEF,
      createdAt_ms: 0,
      archivedAt_ms: null,
    },
    panel: { id: "panel", jobId: "job", name: "Door", productRevisionId: "r", position: 1, ...brief },
    panels: [{ id: "panel", name: "Door" }],
    product: { id: "p", revisionId: "r", revision: 1, sheet },
    state,
    standing: standingOf({ brief, facts: state, sheet, way, finish, now_ms: 0 }),
    spotPlan: places.map((at, i) => ({ name: String(i + 1), at })),
    floor_m: 35e-6,
    shopFilm: MODEL_FILM,
    shopFactors: { film: 1, levelling: 1, noise: 1 },
    shopRemoval,
    readingsPerSpot: 3,
    spotCount: 6,
    formKey: "key",
    expectedVersion: ledger.entries.at(-1)?.id ?? null,
  } as unknown as PanelView;
}

/** A run of 60 µm and five nibs, for panels that want work. */
export const RUN: BodyInputOf<"defect"> = {
  kind: "run",
  at: { x_m: 0.5, y_m: 0.5 },
  length_m: 0.06,
  width_m: 0.01,
  height_m: 60e-6,
  measured: true,
};
export const NIBS: BodyInputOf<"defect"> = {
  kind: "nib",
  at: { x_m: 0.6, y_m: 0.3 },
  length_m: null,
  width_m: null,
  height_m: null,
  measured: false,
  count: 5,
};

/** Works a worker's calls out in this thread, so that a page shows its answers in a test. */
class WorkerHere extends EventTarget {
  postMessage(call: Call): void {
    const say = (data: unknown) => this.dispatchEvent(Object.assign(new Event("message"), { data }));
    say(answer(call, say));
  }
  terminate(): void {}
}

const NOTHING_WAITS = { waiting: [], refused: [], held: null };
/** An outbox that nothing is put into. */
const EMPTY_OUTBOX = {
  ...{ subscribe: () => () => undefined, get: () => NOTHING_WAITS },
  ...{ add: () => undefined, resume: () => Promise.resolve(), stop: () => undefined, settle: () => undefined },
} as unknown as Outbox;

/** Renders a part of a panel's page in its layout's context, at an address of its own where one is given; `sent` collects the forms it posts. */
export function renderPanel(element: React.ReactElement, view: PanelView, search = "") {
  (globalThis as { Worker?: unknown }).Worker = WorkerHere;
  const sent: Record<string, string>[] = [];
  const take = async ({ request }: { request: Request }) => {
    // jsdom's form goes out as its text: Node's Request does not know the class.
    sent.push(Object.fromEntries(new URLSearchParams(await request.text())));
    return { ok: true, intent: "", message: null, errors: {}, done: String(sent.length) };
  };
  localStorage.clear();
  sessionStorage.clear(); // a tab of its own, without what another test left half-typed
  const root = {
    prefs: { theme: "booth", units: METRIC, sound: false, by: "painter A" },
    shop: { name: "Test shop", learntSteps: {}, airChanges_1_h: null, standIns: true },
    region: "british",
    clocks: [],
    jobs: [],
    now_ms: 0,
  };
  const Stub = createRoutesStub([
    {
      id: "root",
      path: "/",
      loader: () => root, // asked again after every form
      Component: () => (
        <OutboxContext value={EMPTY_OUTBOX}>
          <Outlet context={{ view, base: "/jobs/job/panels/panel", setPreview: () => undefined }} />
        </OutboxContext>
      ),
      children: [
        { index: true, Component: () => element, action: take },
        { path: "*", Component: () => element, action: take },
      ],
    },
  ]);
  return { sent, ...render(<Stub initialEntries={[`/${search}`]} hydrationData={{ loaderData: { root } }} />) };
}
