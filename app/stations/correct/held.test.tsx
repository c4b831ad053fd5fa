/** @jest-environment ./scripts/jest-jsdom.mjs */
import { fireEvent, screen, waitFor } from "@testing-library/react";
import { flowPlanOf } from "#core/judge/flow-question";
import { planBody, planFor } from "#core/judge/plan-for";
import { DEFAULT_RATES } from "#core/judge/option-figures";
import { holdOf } from "#core/models/defects/holds";
import { DEFECT_IDS, DEFECT_KINDS, type DefectKind } from "#core/models/defects/kinds";
import { FilmMapDesk } from "~/stations/inspect/film-map.desk";
import { renderPanel, testView } from "~/kit/testing/render-panel";
import { FlowDesk } from "./flow.desk";
import { OptionsDesk } from "./options.desk";
import { PlanDesk } from "./plan.desk";
import { PlanWork } from "./work-list.desk";
import { WorkDesk } from "./work.desk";

const CHOICE = { schoolId: "short", runSchool: null, texture: { peakToValley_m: 3e-6, u_m: 0.4e-6 }, tape_m: 0.02, floor_m: 35e-6 };
const HOLDING = DEFECT_IDS.filter((kind) => holdOf(kind)?.holds.includes("paper"));

/** A door with clear to spare, and a plan on it that was safe before something was marked. */
const marked = (kind: DefectKind, planned = false) =>
  testView({
    clear_um: 95,
    add: (ledger) => {
      const plain = testView({ clear_um: 95 });
      const { plan } = planFor(plain.panel, plain.state, CHOICE);
      if (planned) ledger.add("plan", planBody(CHOICE, plan, { verdict: "safe", cutChance: 0.001, thinChance: 0.01, inferred: false }));
      ledger.add("defect", {
        kind,
        at: { x_m: 0.5, y_m: 0.4 },
        length_m: null,
        width_m: null,
        height_m: null,
        measured: false,
        count: 1,
      });
    },
  });

describe("what a mark says no to, every page of the panel says no to", () => {
  test.each(HOLDING)("%s", async (kind) => {
    const says = (text: string | null | undefined) => expect(text).toContain(DEFECT_KINDS[kind].name);
    const level = holdOf(kind)!.level;
    const view = marked(kind);
    const plan = renderPanel(<PlanDesk onStored={() => undefined} />, view);
    fireEvent.click(screen.getByRole("radio", { name: /Short sanding/ }));
    await waitFor(() => expect(screen.getByTestId("verdict").getAttribute("data-verdict")).toBe(level));
    says(screen.getByTestId("held").textContent);
    if (level === "stop") says(screen.getByTestId("verdict").textContent);
    plan.unmount();

    const map = renderPanel(<FilmMapDesk />, view);
    await waitFor(() => expect(screen.getByTestId("map-verdict").getAttribute("data-verdict")).toBe(level));
    says(screen.getByTestId("held").textContent);
    expect(screen.queryByText("may come off safely")).toBeNull();
    map.unmount();

    const flow = renderPanel(
      <FlowDesk plan={flowPlanOf(view)} cured={1} left_s={0} phase="cured" rates={DEFAULT_RATES} said={null} />,
      view,
    );
    says(screen.getByTestId("held").textContent);
    expect(screen.getByRole<HTMLButtonElement>("button", { name: /Plan it/ }).disabled).toBe(level === "stop");
    flow.unmount();

    const options = renderPanel(<OptionsDesk cured={1} left_s={0} phase="cured" rates={DEFAULT_RATES} />, view);
    await waitFor(() => expect(screen.getByTestId("option-full")).toBeTruthy());
    const closed = ["full", "flow"].map((way) => screen.getByTestId(`option-${way}`).textContent.includes("comes first"));
    expect(closed).toEqual([level === "stop", level === "stop"]);
    options.unmount();

    // Marked after the plan was made: the steps to come are held all the same.
    const under = marked(kind, true);
    const list = renderPanel(<PlanWork onReplan={() => undefined} finished={false} />, under);
    says((await screen.findByTestId("held")).textContent);
    expect(screen.getByRole("heading", { level: 2 }).textContent.startsWith("Stop.")).toBe(level === "stop");
    list.unmount();
    renderPanel(<WorkDesk view={under} />, under);
    says((await screen.findByTestId("held")).textContent);
    expect(screen.getByTestId("work-now").textContent.startsWith("Stop.")).toBe(level === "stop");
  });
});
