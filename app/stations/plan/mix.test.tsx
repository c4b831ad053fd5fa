/** @jest-environment ./scripts/jest-jsdom.mjs */
import { fireEvent, screen, waitFor, within } from "@testing-library/react";
import { partSheet } from "#core/models/product/sheet-schema";
import { reserveOf } from "#core/models/mix/amount";
import type { MixPlan } from "#core/models/mix/mix-plan";
import { TEST_SHEET } from "#core/panel/testing/test-ledger";
import { renderPage } from "~/kit/testing/render-page";
import { MixDesk } from "./mix.desk";

const part = (name: string, kind: "hardener" | "reducer") => ({ id: name, sheet: partSheet.parse({ name, kind, speed: "medium" }) });
const PARTS = [part("Hardener T", "hardener"), part("Reducer T", "reducer")];

function renderMix(o: Partial<React.ComponentProps<typeof MixDesk>> = {}) {
  const plans: (MixPlan | null)[] = [];
  renderPage(
    <MixDesk
      sheet={{ ...TEST_SHEET, ratio: "2:1" }}
      parts={PARTS}
      areas={[{ area_m2: 1, bothSides: false }]}
      areasEditor={<p>the door</p>}
      coats={2}
      strokes={(coats) => Array.from({ length: coats }, () => 1e-4)}
      air_K={293.15}
      onPlan={(p) => plans.push(p)}
      {...o}
    />,
  );
  return () => plans.at(-1)!;
}
const parts = () => within(screen.getByTestId("mix-parts")).getAllByRole("row").slice(1);

test("two coats of 100 ml by the strokes: 240 ml with waste and what stays in the gun, two of clear to one of hardener", () => {
  const plan = renderMix();
  // By hand: 200 × 1.05 + 30.
  expect(plan().amount.ready_m3 * 1e6).toBeCloseTo(240, 6);
  expect(screen.getByTestId("mix-sentence").textContent).toMatch(/^Mix 240.ml in one pot/);
  expect(parts().map((r) => r.textContent)).toEqual([expect.stringContaining("160"), expect.stringContaining("80")]);
});

test("a reserve is told that lasts 19 times of 20: 1.645 of the amount's own doubt", () => {
  const plan = renderMix();
  const { ready_m3, u_ready_m3 } = plan().amount;
  expect(reserveOf({ u_ready_m3 })).toBeCloseTo(1.645 * u_ready_m3, 12);
  const said = screen.getByTestId("mix-reserve").textContent;
  expect(said).toContain(String(Math.round((ready_m3 + reserveOf({ u_ready_m3 })) * 1e6)));
});

test("a second, wetter pot stands only where a coat is sprayed wetter than the mix", () => {
  renderMix({ moreOf: () => 0 });
  expect(screen.queryByTestId("second-pot")).toBeNull();
});

test("the second pot takes the last coat's share of the mix and says what goes into it", () => {
  renderMix({ moreOf: (n) => (n === 2 ? 0.05 : 0), reducer: 0.1 });
  const pot = screen.getByTestId("second-pot").textContent;
  expect(pot).toMatch(/for coat 2/);
  // Of 105 ml: 105 · 1.1/1.15 = 100.4 of the mix, 4.6 of reducer.
  expect(pot).toMatch(/100 ml of the mix with 5 ml reducer more, 15 % in all/);
});

test("a wrong figure is told at its field, the last figures stay away, and what was typed stays", async () => {
  const plan = renderMix();
  fireEvent.change(screen.getByLabelText(/^Ratio/), { target: { value: "2 to" } });
  await waitFor(() => expect(plan()).toBeNull());
  expect(screen.getByTestId("mix-sentence").textContent).toMatch(/wrong/);
  expect(screen.getByLabelText<HTMLInputElement>(/^Ratio/).value).toBe("2 to");
});

test("a base takes no hardener, and says so; a single stage takes one", () => {
  renderMix({ sheet: { ...TEST_SHEET, name: "Base T", kind: "base", ratio: "1:1" } });
  expect(screen.queryByLabelText("Hardener")).toBeNull();
  expect(parts()[1]!.textContent).toContain("Reducer T");
});

test("a single stage is mixed with its hardener", () => {
  renderMix({ sheet: { ...TEST_SHEET, name: "Colour T", kind: "single stage", ratio: "2:1" } });
  expect(screen.getByLabelText("Hardener")).toBeTruthy();
  expect(parts()[1]!.textContent).toContain("Hardener T");
});
