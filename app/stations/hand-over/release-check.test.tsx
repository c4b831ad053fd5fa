/** @jest-environment ./scripts/jest-jsdom.mjs */
import { screen, within } from "@testing-library/react";
import { METRIC } from "#core/kernel/units/quantities";
import { renderPanel, testView } from "~/kit/testing/render-panel";
import { NeighbourDesk } from "../plan/neighbour.desk";
import { releaseCheckAt } from "./release-check-at";
import { ReleaseDesk } from "./release-check.desk";
import { releaseSentence, pointWords } from "./release-check.words";
import { eyeForm, outcomeForm } from "./hand-over.form";
import { reportLines } from "./report.words";

/** The desk as the server sends it, at the test's now. */
const renderOut = (view: ReturnType<typeof testView>, others_GU: readonly number[] = []) =>
  renderPanel(<ReleaseDesk reckoned={{ at_ms: 0, out: releaseCheckAt(view, others_GU, 0), others_GU }} />, view);
const point = (what: string) => screen.getByTestId("release-check").querySelector<HTMLElement>(`[data-point=${what}]`)!;

test("before anybody looked it says who did not look at what, with a way there", () => {
  renderOut(testView({ finish: "match" }));
  expect(screen.getByTestId("release-check").dataset.verdict).not.toBe("goes");
  expect(point("texture").dataset.state).toBe("missing");
  expect(
    within(point("faults"))
      .getByRole("link", { name: /Go there/ })
      .getAttribute("href"),
  ).toMatch(/inspect\/defects$/);
  expect(screen.getAllByRole("button", { name: /^(Right|Ran|Peeled)$/ })).toHaveLength(3);
});

test("what was told stands pressed, what was seen by eye is in the list", () => {
  renderOut(
    testView({
      finish: "match",
      add: (l) => {
        l.add("outcome", { result: "ran" });
        l.add("eye", { colour: "near", covered: true, light: "sun" });
      },
    }),
  );
  expect(screen.getByRole("button", { name: "Ran" }).getAttribute("aria-pressed")).toBe("true");
  expect(point("colour").textContent).toContain("near in sun");
  expect(point("colour").dataset.state).toBe("look");
});

test("matte that reads otherwise than another panel of the job gets a word", () => {
  renderOut(
    testView({
      finish: "matte",
      add: (l) => l.add("gloss", { role: "part", angle: 60, place: "", meter: "typed", readings: [{ gloss_GU: 26.3, entered: "26.3" }] }),
    }),
    [21.7],
  );
  expect(point("gloss").textContent).toContain("26.3 GU at 60°, another panel of the job 21.7: seen side by side");
});

test("sentences and words", () => {
  expect(releaseSentence({ verdict: "stays", points: [{ what: "colour", state: "against", colour: "off", light: "sun" }] })).toEqual({
    main: "Do not hand over:",
    rest: "colour open.",
  });
  expect(pointWords({ what: "cured", state: "look", soft: false, left_s: 7200 }, METRIC)).toContain("2 h 00");
  expect(pointWords({ what: "film", state: "missing", asSprayed: false, clear_m: null, u_m: null, floor_m: 35e-6 }, METRIC)).toContain(
    "nothing read over clear",
  );
  expect(pointWords({ what: "coverage", state: "against", covered: false, light: "lamp" }, METRIC)).toBe("not covered in strong lamp");
  expect(eyeForm.parse({ colour: "same", covered: "no", light: "daylight" }).covered).toBe(false);
  expect(eyeForm.safeParse({ colour: "same", covered: "no", light: "candle" }).success).toBe(false);
  expect(outcomeForm.safeParse({ result: "fine" }).success).toBe(false);
});

test("the neighbour's page shows what is known of it, and says what to do where nothing is", () => {
  const { unmount } = renderPanel(<NeighbourDesk />, testView({ finish: "match" }));
  expect(screen.getByTestId("neighbour-sentence").textContent).toContain("before the gun is filled");
  unmount();
  renderPanel(
    <NeighbourDesk />,
    testView({
      finish: "match",
      add: (l) =>
        l.add("neighbour", {
          name: "Rear door",
          readings: [{ thickness_m: 112e-6, entered: "112", unit: "µm" }],
          rating: 3.5,
          gloss60_GU: null,
        }),
    }),
  );
  const figures = screen.getByTestId("neighbour-figures").textContent;
  expect(figures).toContain("112 µm");
  expect(figures).toContain("3.5");
});

test("the part's gloss is one figure, in the report as in what decides: at 60°, the middle of its readings", () => {
  const read = (angle: 20 | 60 | 85, ...GU: number[]) => ({
    role: "part" as const,
    place: "",
    meter: "G",
    angle,
    readings: GU.map((gloss_GU) => ({ gloss_GU, entered: String(gloss_GU) })),
  });
  // Told as 78 in the report and as 87 where it was released.
  const view = testView({
    finish: "flat",
    add: (l) => {
      l.add("gloss", read(60, 87, 88, 60));
      l.add("gloss", read(20, 78));
    },
  });
  const told = reportLines(view, METRIC).find((l) => l.label === "Gloss")?.value;
  expect(told).toBe("87 GU at 60°");
  expect(releaseCheckAt(view, [], 0).points.find((p) => p.what === "gloss")).toMatchObject({ part_GU: 87 });
  const other = testView({ add: (l) => l.add("gloss", read(20, 78, 80)) });
  expect(reportLines(other, METRIC).find((l) => l.label === "Gloss")?.value).toBe("79 GU at 20°");
});
