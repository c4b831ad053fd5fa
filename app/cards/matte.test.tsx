/** @jest-environment ./scripts/jest-jsdom.mjs */
import { fireEvent, screen } from "@testing-library/react";
import type { CardBody } from "#core/models/cards/card";
import { testCard } from "#core/models/cards/testing/test-card";
import { MatteDesk, type MatteCardItem } from "./matte.desk";
import { renderPage } from "~/kit/testing/render-page";

const card = (number: number, share: number, gloss_GU: number, change: Partial<CardBody> = {}): MatteCardItem => ({
  id: String(number),
  number,
  simulated: false,
  body: testCard({ name: `M ${share}`, mattingShare: share, reducer: 0, gloss: [{ angle: 60, gloss_GU }], ...change }),
});
const FIVE = [90, 62, 34, 18, 9].map((g, i) => card(i + 1, i / 4, g));
const show = (cards: MatteCardItem[], target_GU: number | null = 25) =>
  renderPage(
    <MatteDesk
      cards={cards}
      products={["Matte T"]}
      levelsOf={() => [{ share: 0.55, gloss60_GU: 30 }]}
      target_GU={target_GU}
      targetNote="read beside the repair"
      orientation="vertical"
      rowKey="row"
    />,
  );
const sentence = () => screen.getByTestId("matte-sentence").textContent;

test("five cards and 25 GU: the mix with its span, and the chart says it in words", async () => {
  show(FIVE);
  expect(sentence()).toMatch(/^62\.3 % matting component gives 25 GU; between 60\.\d and 64\.\d % nineteen times in twenty\.$/);
  expect((await screen.findByRole("img")).getAttribute("aria-label")).toContain("For 25 GU: 62.3 %");
  expect(screen.getByText(/Next card: 62/)).toBeTruthy();
});
test("another target moves the answer; text is told at the field and keeps what was typed", () => {
  show(FIVE);
  const field = screen.getByLabelText<HTMLInputElement>(/Target at 60°/);
  fireEvent.change(field, { target: { value: "12,5" } });
  expect(sentence()).toContain("gives 12.5 GU");
  fireEvent.change(field, { target: { value: "dull" } });
  expect(screen.getByText('"dull" is not a number')).toBeTruthy();
  expect(field.value).toBe("dull");
});
test("two cards refuse a fit and offer the sheet's level; three are called few", () => {
  const { unmount } = show(FIVE.slice(0, 2));
  expect(sentence()).toContain("2 cards of this kind: too few to fit. The sheet’s nearest level is 55.0 %, 30 GU.");
  unmount();
  show([FIVE[0]!, FIVE[2]!, FIVE[4]!]);
  expect(screen.getByText("Only 3 cards: four are wanted")).toBeTruthy();
});
test("cards that differ in cure are kept apart, and a pair shows what the oven does", () => {
  show([...FIVE, card(6, 0.75, 22, { cure: "forced", name: "baked" })]);
  expect(sentence()).toContain("62.3 %");
  expect(screen.getByText(/your cards: \+4\.0 GU/)).toBeTruthy();
  fireEvent.change(screen.getByLabelText("Cure"), { target: { value: "" } });
  expect(screen.getByText(/Cards differ in cure/)).toBeTruthy();
});
test("without a target it asks for one; a target beyond the cards is not guessed", () => {
  const { unmount } = show(FIVE, null);
  expect(sentence()).toBe("Which gloss is wanted? Type the vehicle’s own reading.");
  unmount();
  show(FIVE, 4);
  expect(sentence()).toBe("No card brackets 4 GU. Spray one further out.");
});
