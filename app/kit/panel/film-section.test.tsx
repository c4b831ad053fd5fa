/** @jest-environment ./scripts/jest-jsdom.mjs */
import { screen } from "@testing-library/react";
import type { Layer } from "#core/judge/account";
import { FilmStrip } from "./film-strip";
import { FilmSection, type SectionPreview } from "./film-section";
import { renderPage } from "~/kit/testing/render-page";

const layer = (key: string, um: number, tone: Layer["tone"], how: Layer["how"] = "measured"): Layer => ({
  key,
  name: key,
  thickness_m: um * 1e-6,
  u_m: tone === "clear" ? 3e-6 : null,
  tone,
  how,
});
const layers = [
  layer("e-coat", 20, "ecoat", "inferred"),
  layer("primer", 40, "primer", "inferred"),
  layer("base", 15, "base", "inferred"),
  layer("clear 1", 27, "clear"),
  layer("clear 2", 28, "clear"),
];
const show = (preview: SectionPreview = {}, units: "metric" | "imperial" = "metric") =>
  renderPage(<FilmSection layers={layers} floor_m={35e-6} baseColour="#335566" preview={preview} caption="Mean of 6 spots" />, { units });
const text = () => screen.getByRole("img").getAttribute("aria-label")!;

test("says every layer from the metal up, the clear in all and the floor", () => {
  show();
  expect(text()).toBe(
    "Section of the film in µm, from the metal up: e-coat 20.0, primer 40.0, base 15.0, clear 1 27.0, clear 2 28.0. Clear 55.0 in all, minimum 35.",
  );
  expect(screen.getByText(/clear 55 ± 6 in all, measured; layers below by usual share/)).toBeTruthy();
});
test("lying on its side in one line it says the same clear and the floor, and what is planned is drawn", () => {
  const { container } = renderPage(
    <FilmStrip
      layers={layers}
      floor_m={35e-6}
      baseColour="#335566"
      preview={{ coat: { dry_m: 27e-6, u_m: 8e-6, name: "coat 3" }, removal: { removal_m: 9e-6, u_m: 1e-6 } }}
    />,
  );
  expect(screen.getByText("Clear 55 ± 6 µm")).toBeTruthy();
  expect(screen.getByText("minimum 35 µm")).toBeTruthy();
  const widths = [...container.querySelectorAll("rect")].map((r) => Number(r.getAttribute("width")));
  expect(widths).toHaveLength(6);
  // Clear and the coat to one scale: 55 against 27.
  expect(widths[3]! / widths[5]!).toBeCloseTo(55 / 27, 6);
});
test("a planned removal is hatched and said, a planned coat drawn in outline and said", () => {
  const { unmount } = show({ removal: { removal_m: 9e-6, u_m: 1.3e-6 } });
  expect(text()).toContain("9.0 µm is planned to come off.");
  expect(screen.getByText("9 ± 3")).toBeTruthy();
  unmount();
  show({ coat: { dry_m: 27e-6, u_m: 8e-6, name: "coat 3" } });
  expect(text()).toContain("coat 3 would add 27.0 µm.");
  expect(screen.getByText("27 ± 16")).toBeTruthy();
});
test("to scale: twice the film is twice as high", () => {
  const { container } = show();
  const height = (name: string) => {
    const i = layers.findIndex((l) => l.key === name);
    return Number(container.querySelectorAll("svg > rect")[i + 1]!.getAttribute("height"));
  };
  expect(height("primer") / height("e-coat")).toBeCloseTo(2, 9);
  expect(height("clear 2") / height("clear 1")).toBeCloseTo(28 / 27, 9);
});
test("labels never lie on each other", () => {
  const { container } = show({ removal: { removal_m: 3e-6, u_m: 1e-6 } });
  const ys = [...container.querySelectorAll("svg g text[text-anchor=end]")].map((t) => Number(t.getAttribute("y"))).sort((a, b) => a - b);
  ys.slice(1).forEach((y, i) => expect(y - ys[i]!).toBeGreaterThanOrEqual(16.9));
});
test("in mil for a shop that works in mil", () => {
  show({}, "imperial");
  expect(text()).toContain("Section of the film in mil");
  expect(text()).toContain("primer 1.57");
});
