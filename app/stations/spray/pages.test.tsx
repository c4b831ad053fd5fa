/** @jest-environment ./scripts/jest-jsdom.mjs */
import { fireEvent, screen, waitFor, within } from "@testing-library/react";
import { coatsAsked } from "#core/coat/asked";
import { coatsAhead } from "#core/coat/coats-ahead";
import { windowAhead } from "#core/coat/window-ahead";
import { showFilm, showWithUncertainty } from "#core/kernel/units/format";
import { METRIC } from "#core/kernel/units/quantities";
import { LAYERS } from "#core/models/prep/layers";
import { houseWay } from "#core/models/ways/house-ways";
import { TEST_SHEET } from "#core/panel/testing/test-ledger";
import { renderPanel, testView } from "~/kit/testing/render-panel";
import { BelowDesk } from "./below.desk";
import { CoatPlanPageDesk } from "./coat-plan.desk";
import { wayPlan } from "./coat-plan-at";
import { CureDesk } from "./cure.desk";
import { belowAt } from "./layers-at";
import { ReadyDesk } from "./ready.desk";
import { SprayDesk } from "./spray.desk";
import { FlowDesk } from "./window.desk";

type View = ReturnType<typeof testView>;
const base = { ...LAYERS.base.sheet, name: "Base T", ratio: "1:1" };
const shelf = [{ id: "b", sheet: base }];
const bare = (o: Parameters<typeof testView>[0] = {}) => testView({ read: false, coats: 0, ...o });

describe("below", () => {
  const renderBelow = (view: View) => renderPanel(<BelowDesk loaderData={belowAt(view, shelf, 0)} />, view);

  test("nothing planned: the layers may be planned each with a product of its kind, and the edge may be blended or butted", () => {
    const { sent } = renderBelow(bare());
    fireEvent.click(screen.getByRole("button", { name: "Plan what goes below" }));
    const form = screen.getByTestId("layer-plan");
    const baseCoat = within(form).getByLabelText("Base coat");
    expect([...baseCoat.querySelectorAll("option")].map((o) => o.textContent)).toContain("Base T, 3 by its sheet");
    expect(within(form).getByLabelText("Sealer").textContent).not.toContain("Base T");
    const edge = within(form).getByLabelText(/At the panel's edge/);
    expect([...edge.querySelectorAll("option")].map((o) => o.value)).toEqual(["", "blend", "butt"]);
    expect(sent).toEqual([]);
  });

  test("a single stage has no base below it, and says how many coats until it covers", () => {
    renderBelow(bare({ sheet: { ...TEST_SHEET, kind: "single stage", coats: 3 } }));
    expect(screen.queryByTestId("under-base")).toBeNull();
    expect(screen.getByTestId("under-seal")).toBeTruthy();
    expect(screen.getByTestId("hiding").textContent).toMatch(/About 3 coats of it until it covers/);
    fireEvent.click(screen.getByRole("button", { name: "Plan what goes below" }));
    const form = screen.getByTestId("layer-plan");
    expect(within(form).queryByLabelText("Base coat")).toBeNull();
    expect(within(form).queryByLabelText(/At the panel's edge/)).toBeNull();
    expect(within(form).getByLabelText("Ground coat")).toBeTruthy();
  });

  test("planned: the next coat stands with the figures of its owner, and its form says which it is", () => {
    const view = bare({ add: (l) => l.add("layerPlan", { layers: [{ layer: "base", coats: 3, sheet: base }] }) });
    const { next } = belowAt(view, shelf, 0).layers;
    renderBelow(view);
    const figures = screen.getByTestId("layer-figures").textContent;
    expect(figures).toContain(showWithUncertainty("film", next!.film!.dry_m, next!.film!.u_dry_m, METRIC).text);
    expect(screen.getByTestId("hiding").textContent).toMatch(/About 3 coats of base/);
    expect(screen.getByTestId("next-layer").textContent).toContain("By the sheet of Base T");
  });
});

describe("coats", () => {
  test("nothing sprayed: the film below comes first, then the form of coat 1", () => {
    renderPanel(<SprayDesk />, bare());
    expect(screen.getByRole("heading", { level: 2 }).textContent).toMatch(/^First the film below the clear/);
    expect(screen.getByRole("heading", { level: 3, name: /^Coat 1/ })).toBeTruthy();
    expect(screen.queryByLabelText("Last coat")).toBeNull();
  });

  test("two on: both stand in the list with their films, the last with its wet film", () => {
    const view = bare({ coats: 2 });
    renderPanel(<SprayDesk />, view);
    const { predicted } = view.state.coats[1]!;
    expect(screen.getByLabelText("Last coat").textContent).toContain(showFilm(predicted.wet_m, METRIC).text);
    expect(within(screen.getByLabelText("Coats sprayed")).getAllByRole("listitem")).toHaveLength(2);
  });
});

describe("coat plan and window", () => {
  const renderPlan = (view: View) =>
    renderPanel(
      <CoatPlanPageDesk
        loaderData={{ plan: wayPlan(view, view.job.way, 0), ways: [houseWay("tack-full")], calibration: null, version: "v1" }}
      />,
      view,
    );

  test("each coat to come stands with its film as the coats' owner has it", () => {
    const view = bare();
    const ahead = coatsAhead(coatsAsked(view, 0))!;
    renderPlan(view);
    const rows = within(screen.getByTestId("coat-plan")).getAllByRole("row").slice(1);
    expect(rows).toHaveLength(2);
    rows.forEach((row, i) =>
      expect(row.textContent).toContain(showWithUncertainty("film", ahead[i]!.dry_m, ahead[i]!.u_dry_m, METRIC).text),
    );
  });

  test("a wetter last coat is told with its reducer's effect, whether the pot is mixed or not", () => {
    const plain = houseWay("two-full");
    const way = { ...plain, coats: [plain.coats[0]!, { ...plain.coats[1]!, reducerShift: 0.1 }] };
    const last = (add: NonNullable<Parameters<typeof testView>[0]>["add"]) =>
      coatsAhead(coatsAsked(bare({ way, ...(add ? { add } : {}) }), 0))!.at(-1)!;
    const mixed = last((l) => l.add("mix", { volume_m3: 4e-4, reducer: 0, potLife_s: 5400 }));
    expect(mixed.reducer).toBeCloseTo(last(undefined).reducer, 12);
    expect(mixed.reducer).toBeCloseTo(0.1, 12);
  });

  test("the window opens as the coat would be sprayed; another hand changes its figures, nonsense is told at its field", async () => {
    const view = bare();
    const start = windowAhead(coatsAsked(view, 0));
    renderPanel(
      <FlowDesk
        sheet={view.product.sheet}
        start={start}
        coatNumber={start.number}
        textureLimit={3.6}
        part={{ outline: view.panel.shape.outline }}
        under_m={1e-4}
        shop={view.shopFactors}
      />,
      view,
    );
    const said = () => screen.getByTestId("flow-sentence").textContent;
    const before = said();
    expect(before).not.toBe("");
    fireEvent.change(screen.getByRole("textbox", { name: /^Hand speed/ }), { target: { value: "0.15" } });
    await waitFor(() => expect(screen.getByTestId("flow-sentence").dataset.class).toBe("runs"));
    expect(said()).not.toBe(before);
    fireEvent.change(screen.getByRole("textbox", { name: /^Distance/ }), { target: { value: "near" } });
    await waitFor(() => expect(said()).toBe("A figure is missing or wrong; it says where."));
    expect(screen.getByText('"near" is not a number')).toBeTruthy();
  });

  test("more reducer says what it does at the needle, and beyond the sheet what it costs", async () => {
    const view = bare();
    const start = windowAhead(coatsAsked(view, 0));
    renderPanel(
      <FlowDesk
        sheet={view.product.sheet}
        start={start}
        coatNumber={start.number}
        textureLimit={3.6}
        part={{ outline: view.panel.shape.outline }}
        under_m={1e-4}
      />,
      view,
    );
    expect(screen.queryByTestId("over-reduced")).toBeNull();
    fireEvent.change(screen.getByLabelText(/^Reducer on top/), { target: { value: "40" } });
    await waitFor(() => expect(screen.getByTestId("over-reduced").textContent).toMatch(/less film/));
  });
});

describe("cure and ready", () => {
  test("in the air and baked: the same stages, sooner with heat; nonsense is told at its field", async () => {
    const view = bare({ coats: 2, sheet: { ...TEST_SHEET, bake: { part_K: 333.15, time_s: 1800 } } });
    renderPanel(<CureDesk />, view);
    const stages = () => screen.getByTestId("cure-stages").textContent;
    const air = stages();
    expect(air).toContain("sand");
    fireEvent.click(screen.getByRole("radio", { name: /bake/i }));
    await waitFor(() => expect(stages()).not.toBe(air));
    fireEvent.change(screen.getAllByLabelText(/^Room/)[0]!, { target: { value: "warm" } });
    await waitFor(() => expect(screen.getByText('"warm" is not a number')).toBeTruthy());
  });

  test("before the gun: what is left to look at is counted, and a tick is sent with those before it", async () => {
    const view = bare();
    const { sent } = renderPanel(<ReadyDesk loaderData={{ fromJob: [], log: [] }} />, view);
    const list = within(screen.getByLabelText("To look at"));
    const boxes = list.getAllByRole("checkbox");
    expect(boxes.length).toBeGreaterThan(5);
    fireEvent.click(boxes[0]!);
    await waitFor(() => expect(sent).toHaveLength(1));
    expect(sent[0]).toMatchObject({ intent: "preflight" });
  });
});
