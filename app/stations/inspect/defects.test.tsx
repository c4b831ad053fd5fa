/** @jest-environment ./scripts/jest-jsdom.mjs */
import { fireEvent, screen, waitFor, within } from "@testing-library/react";
import { DEFAULT_RATES } from "#core/judge/option-figures";
import { DefectsDesk } from "./defects.desk";
import { OptionsDesk } from "~/stations/correct/options.desk";
import { LookOver } from "./look-over";
import { FilmMapDesk } from "./film-map.desk";
import { NIBS, RUN, renderPanel, testView } from "~/kit/testing/render-panel";

const drawing = () => screen.getByRole("application");
const key = (name: string, times = 1) => {
  for (let i = 0; i < times; i++) fireEvent.keyDown(drawing(), { key: name });
};

test("looking over: what was tapped by mistake is taken back, and nothing found can be said again", () => {
  renderPanel(<LookOver clean={<button type="button">Nothing found</button>} onDone={() => {}} />, testView());
  const clean = () => screen.queryByRole("button", { name: "Nothing found" });
  const run = screen.getByRole("button", { name: "Run" });
  expect(clean()).toBeTruthy();
  fireEvent.click(run);
  expect(clean()).toBeNull();
  fireEvent.click(run); // the same again
  expect(run.getAttribute("aria-pressed")).toBe("false");
  expect(clean()).toBeTruthy();
  fireEvent.click(run);
  fireEvent.focus(drawing());
  key("Enter"); // a place too
  fireEvent.click(screen.getByRole("button", { name: /take it back/ }));
  expect(clean()).toBeTruthy();
  expect(screen.queryByRole("button", { name: "Tap the place" })).toBeNull();
});

describe("placing a defect", () => {
  test("one place by the keyboard fills its coordinates; the list takes what is there out again", () => {
    renderPanel(<DefectsDesk />, testView({ add: (l) => l.add("defect", RUN) }));
    fireEvent.focus(drawing());
    key("ArrowRight", 3);
    key("Enter");
    expect(screen.getByLabelText<HTMLInputElement>(/From the left/).value).toBe("580");
    expect(screen.getByLabelText<HTMLInputElement>(/From the top/).value).not.toBe("");
    expect(screen.getByRole("button", { name: "Take out the run" })).toBeTruthy();
    expect(screen.getByText(/60.0 µm, 60 mm/)).toBeTruthy();
  });

  test("a line gives its own length; its last place can be taken back; what was typed elsewhere stays", () => {
    renderPanel(<DefectsDesk />, testView());
    fireEvent.change(screen.getByLabelText(/^Height/), { target: { value: "70" } });
    fireEvent.click(screen.getByRole("radio", { name: "a line" }));
    key("Enter");
    key("ArrowDown", 8);
    key("Enter");
    expect(screen.getByText("80 mm long")).toBeTruthy();
    expect(screen.getByLabelText<HTMLInputElement>(/^Length/).value).toBe("80");
    key("ArrowDown", 2);
    key("Enter");
    expect(screen.getByText("100 mm long")).toBeTruthy();
    fireEvent.click(screen.getByRole("button", { name: "Take the last place back" }));
    expect(screen.getByText("80 mm long")).toBeTruthy();
    expect(screen.getByLabelText<HTMLInputElement>(/^Height/).value).toBe("70");
  });

  test("an area gives its reach and its size; several places count themselves", () => {
    const { container } = renderPanel(<DefectsDesk />, testView());
    fireEvent.change(screen.getByLabelText("Kind"), { target: { value: "peel" } });
    fireEvent.click(screen.getByRole("radio", { name: "an area" }));
    key("Enter");
    key("ArrowRight", 10);
    key("Enter");
    key("ArrowDown", 10);
    key("Enter");
    expect(screen.getByText("50 cm²")).toBeTruthy();
    const trace = container.querySelector<HTMLInputElement>('input[name="trace"]')!;
    expect((JSON.parse(trace.value) as { as: string; at: unknown[] }).at).toHaveLength(3);
    fireEvent.click(screen.getByRole("radio", { name: "several" }));
    expect(trace.value).toBe("");
    key("Enter");
    key("ArrowLeft", 4);
    key("Enter");
    expect(screen.getByText("2 places")).toBeTruthy();
    expect(screen.getByLabelText<HTMLInputElement>("How many").placeholder).toBe("2");
  });

  test("each kind says how to tell it; faults are counted with their numbers", () => {
    renderPanel(<DefectsDesk />, testView({ add: (l) => (l.add("defect", RUN), l.add("defect", NIBS)) }));
    expect(screen.getByRole("heading", { level: 2 }).textContent).toBe("6 faults on the panel.");
    fireEvent.change(screen.getByLabelText("Kind"), { target: { value: "crater" } });
    expect(screen.getByText("Crater.")).toBeTruthy();
    expect(screen.getByText(/If ignored/)).toBeTruthy();
  });
});

describe("options", () => {
  test("every way with its figures; closed ones with their reason; uncured clear waits, new clear waits for itself", async () => {
    renderPanel(
      <OptionsDesk cured={0.5} left_s={28_800} phase="curing" rates={DEFAULT_RATES} />,
      testView({ clear_um: 90, add: (l) => l.add("defect", NIBS) }),
    );
    await waitFor(() => expect(screen.getByTestId("option-sentence").textContent).toContain("Wait for the cure"));
    expect(within(screen.getByTestId("option-full")).getByText(/not cured yet/)).toBeTruthy();
    expect(within(screen.getByTestId("option-full")).getByText("8 h 00 before")).toBeTruthy();
    expect(within(screen.getByTestId("option-rebase")).getByText(/16 h for its own cure/)).toBeTruthy();
    expect(within(screen.getByTestId("option-leave")).getByText("–", { selector: "td.text-\\[14px\\]" })).toBeTruthy();
    fireEvent.click(within(screen.getByTestId("option-spot")).getByRole("button"));
    expect(await screen.findByText("loss when rejected")).toBeTruthy();
  });

  test("matte is offered the whole part, not a polish", async () => {
    renderPanel(
      <OptionsDesk cured={1} left_s={0} phase="cured" rates={DEFAULT_RATES} />,
      testView({ finish: "matte", add: (l) => l.add("defect", NIBS) }),
    );
    await waitFor(() => expect(screen.getByText("Refinish the whole part")).toBeTruthy());
    expect(within(screen.getByTestId("option-spot")).getByText(/matte cannot be polished/)).toBeTruthy();
  });
});

describe("the film map", () => {
  test("says how much clear, what the ladder would risk, and follows the slider", async () => {
    renderPanel(<FilmMapDesk />, testView({ clear_um: 70 }));
    await waitFor(() => expect(screen.getByTestId("map-verdict").getAttribute("data-verdict")).not.toBe("waiting"));
    expect(screen.getByTestId("map-verdict").textContent).toMatch(/\d+(\.\d)? ± \d+(\.\d)? µm of clear on average/);
    const thumb = screen.getByRole("slider", { name: /Take off/ });
    const before = thumb.getAttribute("aria-valuetext");
    fireEvent.change(thumb, { target: { value: (thumb as HTMLInputElement).max } });
    expect(thumb.getAttribute("aria-valuetext")).not.toBe(before);
    await waitFor(() => expect(["caution", "stop"]).toContain(screen.getByTestId("map-verdict").getAttribute("data-verdict")));
  });

  test("too few readings say so", async () => {
    renderPanel(<FilmMapDesk />, testView({ read: false }));
    await waitFor(() => expect(screen.getByTestId("map-verdict").textContent).toContain("at least 3 spots"));
  });
});
