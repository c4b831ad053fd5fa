/** @jest-environment ./scripts/jest-jsdom.mjs */
import { fireEvent, screen, waitFor, within } from "@testing-library/react";
import { planBody, planFor } from "#core/judge/plan-for";
import type { ZoneChoice } from "#core/judge/zone-setting";
import { UNMEASURED_REMOVAL } from "#core/models/correction/clearing";
import type { BodyInputOf } from "#core/record/bodies";
import type { PanelView } from "#server/views/panel-view";
import { PlanDesk } from "./plan.desk";
import { PlanWork } from "./work-list.desk";
import { WorkDesk } from "./work.desk";
import { ZoneView } from "./zone-view";
import { type testLedger, threeFilms } from "#core/panel/testing/test-ledger";
import { NIBS, RUN, renderPanel, testView } from "~/kit/testing/render-panel";

const CHOICE = {
  schoolId: "short",
  runSchool: "block" as const,
  texture: { peakToValley_m: 3e-6, u_m: 0.4e-6 },
  tape_m: 0.02,
  floor_m: 35e-6,
};

function planOf(view: PanelView, choice: ZoneChoice = CHOICE): BodyInputOf<"plan"> {
  const { plan } = planFor(view.panel, view.state, choice);
  return planBody(choice, plan, { verdict: "safe", cutChance: 0.001, thinChance: 0.01, inferred: false });
}

/** A panel with its plan stored and so many steps done. */
function atWork(done: number, more: (ledger: ReturnType<typeof testLedger>, planId: string) => unknown = () => undefined) {
  const plan = planOf(testView());
  return testView({
    add: (ledger) => {
      const planId = ledger.add("plan", plan);
      for (let index = 0; index < done; index++) {
        const { name, removal_m, u_m, zone } = plan.steps[index]!;
        ledger.add("step", { planId, index, name, removal_m, u_m, zone, note: "", duration_s: 300 });
      }
      more(ledger, planId);
    },
  });
}

describe("zones of a plan", () => {
  test("each zone says its way, what comes off and stays, and opens its working with the marks of every step", async () => {
    const view = testView({ add: (l) => (l.add("defect", RUN), l.add("defect", NIBS)) });
    const { plan } = planFor(view.panel, view.state, CHOICE);
    renderPanel(<ZoneView plan={plan} chances={plan.zones.map((z) => (z.kind === "flat" ? 0.04 : null))} rim_m={0.02} />, view);
    expect(screen.getByTestId("zone-flat").textContent).toContain("1 in 25");
    expect(screen.getByTestId("zone-line").textContent).toContain("with the flat");
    for (const kind of ["run", "spot", "flat", "line", "edge"]) expect(screen.getByTestId(`zone-${kind}`)).toBeTruthy();
    expect(within(screen.getByTestId("zone-edge")).getByText(/left under tape/)).toBeTruthy();
    expect(within(screen.getByTestId("zone-edge")).getByText("nothing")).toBeTruthy();
    expect(screen.getByTestId("zone-flat").textContent).toContain("11 ± 4");
    fireEvent.click(within(screen.getByTestId("zone-flat")).getByRole("button"));
    expect(await screen.findByText("P3000 soft: finds, clears")).toBeTruthy();
    expect(screen.getByRole("img").getAttribute("aria-label")).toContain("Rim left under tape");
    expect(screen.getByText("cutting compound").parentElement!.textContent).toContain("ml");
  });

  test("a zone that nobody read says so and claims no risk", () => {
    const view = testView({ read: false, add: (l) => l.add("defect", RUN) });
    const { plan } = planFor(view.panel, view.state, CHOICE);
    renderPanel(<ZoneView plan={plan} chances={null} rim_m={0.02} />, view);
    expect(screen.getByTestId("zone-run").textContent).toContain("not read");
    expect(screen.getByTestId("zone-run").textContent).toContain("–");
  });

  test("a ladder that skips too far for this shop is told", () => {
    const view = testView({ shopRemoval: { whole: null, steps: { "P3000 soft machine": { removal_m: 0.5e-6, u_m: 0.1e-6 } } } });
    const { plan } = planFor(view.panel, view.state, { ...CHOICE, shop: view.shopRemoval });
    renderPanel(<ZoneView plan={plan} chances={null} rim_m={0.02} />, view);
    expect(screen.getByRole("alert").textContent).toContain("a grit belongs between");
  });
});

describe("making a plan", () => {
  test("the verdict, the chosen ways with rim and lines, and this shop's own removal are in what is stored", async () => {
    const steps = { "P1500 medium machine": { removal_m: 4.4e-6, u_m: 0.4e-6 } };
    const { sent } = renderPanel(
      <PlanDesk onStored={() => undefined} />,
      testView({ clear_um: 95, shopRemoval: { whole: { factor: 1.2, u_log: 0.05 }, steps } }),
    );
    fireEvent.click(screen.getByRole("radio", { name: /Short sanding/ }));
    await waitFor(() => expect(screen.getByTestId("own-removal").textContent).toContain("P1500 medium 7.4 instead of 6.2 µm"));
    expect(screen.getByTestId("own-removal").textContent).toContain("the other steps × 1.20");
    fireEvent.click(within(screen.getByRole("radiogroup", { name: "Rim" })).getByRole("radio", { name: "by hand" }));
    await waitFor(() => expect(screen.getByTestId("zone-edge").textContent).toContain("fingertips"));
    // The film would bear it; the clear is not hard yet, and what is held back is never called safe.
    await waitFor(() => expect(screen.getByTestId("verdict").getAttribute("data-verdict")).toBe("caution"));
    expect(screen.getByTestId("held").textContent).toContain("Not before it is hard");
    fireEvent.click(screen.getByRole("button", { name: /Use this plan/ }));
    await waitFor(() => expect(sent).toHaveLength(1));
    expect(sent[0]).toMatchObject({ intent: "plan", schoolId: "short", edges: "hand", lines: "hand", tape: "20" });
  });

  test("a figure that is no number leaves the plan unjudged and everything typed in place", () => {
    renderPanel(<PlanDesk onStored={() => undefined} />, testView());
    const peel = screen.getByLabelText<HTMLInputElement>(/Peel, peak to valley/);
    fireEvent.change(peel, { target: { value: "much" } });
    expect(peel.value).toBe("much");
    expect(screen.getByRole<HTMLButtonElement>("button", { name: /Use this plan/ }).disabled).toBe(true);
    expect(screen.queryByText("Zones")).toBeNull();
  });

  test("matte is told that any of it means refinishing", () => {
    renderPanel(<PlanDesk onStored={() => undefined} />, testView({ finish: "matte" }));
    expect(screen.getByText(/Matte cannot be sanded or polished/)).toBeTruthy();
  });
});

describe("working a plan through", () => {
  test("the list shows what is done, in what time, and what is next; its forecast is of what is still to come", async () => {
    const { sent } = renderPanel(<PlanWork onReplan={() => undefined} finished={false} />, atWork(2));
    expect(screen.getByRole("heading", { level: 2 }).textContent).toContain("Step 3 of 5: P3000 soft");
    expect(screen.getAllByText("done in 5:00")).toHaveLength(2);
    await waitFor(() => expect(screen.getByTestId("from-here").textContent).toContain("5.0 µm still to come off"));
    fireEvent.click(screen.getByRole("button", { name: "Done" }));
    await waitFor(() => expect(sent[0]).toMatchObject({ intent: "step", index: "2" }));
  });

  test("what a mark says of the steps after it is said in the list and on the card alike; with no mark nothing is", async () => {
    /** Step one of a ladder, done and read at a mark where so many times its forecast came off. */
    const read = (times: number, schoolId = "long") =>
      atWork(0, (ledger) => {
        const plan = planOf(testView(), { ...CHOICE, schoolId, shop: UNMEASURED_REMOVAL });
        const planId = ledger.add("plan", plan);
        const { name, removal_m, u_m } = plan.steps[0]!;
        const measured = { before: threeFilms(150), after: threeFilms(150 - 1e6 * times * removal_m) };
        ledger.add("step", { planId, index: 0, name, removal_m, u_m, note: "", measured });
      });
    const said = async (view: PanelView) => {
      const texts: (string | null)[] = [];
      for (const page of [<PlanWork key="list" onReplan={() => undefined} finished={false} />, <WorkDesk key="card" view={view} />]) {
        const { unmount } = renderPanel(page, view);
        if (page.key === "card") await screen.findByRole("region", { name: "How it stands" }); // it comes after the card
        texts.push(screen.queryByTestId("told-by-mark")?.textContent ?? null);
        unmount();
      }
      expect(texts[0]).toBe(texts[1]);
      return texts[0]!;
    };
    const films = /: ([\d.]+) ± ([\d.]+) µm to come off, ([\d.]+) ± ([\d.]+) µm without it/;
    const [more, , before] = films
      .exec(await said(read(2)))!
      .slice(1)
      .map(Number);
    expect(more).toBeGreaterThan(before!);
    const [less, , same] = films
      .exec(await said(read(0.2)))!
      .slice(1)
      .map(Number);
    expect(less).toBeLessThan(same!);
    expect(same).toBe(before);
    expect(await said(read(2, "short"))).toContain("changes little"); // no paper after it is on the same backing
    expect(await said(atWork(1))).toBeNull();
  });

  test("colour on the cloth stops the list and the cards alike", () => {
    const view = atWork(2, (ledger) => ledger.add("throughClear", { note: "" }));
    const { unmount } = renderPanel(<PlanWork onReplan={() => undefined} finished={false} />, view);
    expect(screen.getByRole("alert").textContent).toContain("the clear is through");
    unmount();
    renderPanel(<WorkDesk view={view} />, view);
    expect(screen.getByTestId("work-now").textContent).toContain("The clear is through");
    expect(screen.queryByRole("button", { name: "Start" })).toBeNull();
  });
});

describe("a step's card", () => {
  test("starts, then is done with what was read at its mark; the card of a started step shows its clock", async () => {
    const { sent, unmount } = renderPanel(<WorkDesk view={atWork(0)} />, atWork(0));
    expect(screen.getByTestId("work-now").textContent).toBe("1 of 5: P1500 medium.");
    expect(screen.getByTestId("work-clock").textContent).toContain("–of about");
    fireEvent.click(screen.getByRole("button", { name: "Start" }));
    await waitFor(() => expect(sent[0]).toMatchObject({ intent: "start", index: "0" }));
    unmount();
    const started = atWork(0, (ledger, planId) => ledger.add("stepStart", { planId, index: 0 }));
    const card = renderPanel(<WorkDesk view={started} />, started);
    fireEvent.change(screen.getByLabelText(/Film at the mark before/), { target: { value: "150 151" } });
    fireEvent.change(screen.getByLabelText(/The same mark after/), { target: { value: "143 144" } });
    fireEvent.click(screen.getByRole("button", { name: "Done" }));
    await waitFor(() => expect(card.sent[0]).toMatchObject({ intent: "step", before: "150 151", after: "143 144" }));
  });

  test("without a plan it says how to make one; with all done it asks to measure again", () => {
    const none = testView();
    const { unmount } = renderPanel(<WorkDesk view={none} />, none);
    expect(screen.getByRole("link", { name: "Make a plan" })).toBeTruthy();
    unmount();
    renderPanel(<WorkDesk view={atWork(5)} />, atWork(5));
    expect(screen.getByTestId("work-now").textContent).toContain("Measure again");
  });
});
