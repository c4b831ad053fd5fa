/** @jest-environment ./scripts/jest-jsdom.mjs */
import { act, fireEvent, screen } from "@testing-library/react";
import { jest } from "@jest/globals";
import { PourGuide, type PouredMix } from "./pour-guide";
import { renderPage } from "~/kit/testing/render-page";

const parts = [
  { role: "Clear T", share: 2 / 3, density_kg_m3: 1000 },
  { role: "Hardener T", share: 1 / 3, density_kg_m3: 1050 },
];
/** A scale that says what the test puts on it. */
class FakeSource extends EventTarget {
  static last: FakeSource;
  constructor() {
    super();
    FakeSource.last = this;
  }
  close() {}
  say(mass_kg: number, stable = true) {
    act(() => {
      this.dispatchEvent(
        new MessageEvent("reading", { data: JSON.stringify({ device: "Stand-in scale", simulated: true, mass_kg, stable, fault: null }) }),
      );
    });
  }
}
beforeEach(() => {
  Object.assign(globalThis, {
    EventSource: FakeSource,
    fetch: jest.fn(() =>
      Promise.resolve({
        json: () => Promise.resolve({ device: "Stand-in scale", simulated: true, mass_kg: 0, stable: true, fault: null }),
      }),
    ),
  });
});
const show = (capacity_m3 = 1e-3, onDone: (p: PouredMix) => void = () => undefined) =>
  renderPage(<PourGuide parts={parts} volume_m3={300e-6} capacity_m3={capacity_m3} busy={false} doneLabel="Keep it" onDone={onDone} />);
const press = (name: string) =>
  act(() => {
    fireEvent.click(screen.getByRole("button", { name }));
  });
const now = () => screen.getByTestId("pour-now").textContent;
const tare = async () => {
  FakeSource.last.say(0);
  await act(async () => {
    fireEvent.click(screen.getByRole("button", { name: "Tare with the pot on" }));
    await Promise.resolve();
  });
};

test("from tare to the end: what is to go falls as it is poured, each part is accepted, the mix is handed on", async () => {
  const kept: PouredMix[] = [];
  show(1e-3, (p) => kept.push(p));
  expect(now()).toBe("Empty pot on the scale, then tare.");
  await tare();
  expect(now()).toContain("200.0 g to go");
  FakeSource.last.say(0.15);
  expect(now()).toContain("50.0 g to go");
  FakeSource.last.say(0.2);
  expect(now()).toContain("stop here");
  press("Clear T is in");
  expect(now()).toContain("Hardener T105.0 g to go");
  FakeSource.last.say(0.305);
  press("Hardener T is in");
  expect(now()).toContain("All in: 300 ml.");
  press("Keep it");
  expect(kept).toHaveLength(1);
  expect(kept[0]!.poured_kg.map((m) => Number(m.toFixed(4)))).toEqual([0.2, 0.105]);
  expect(kept[0]!.simulated).toBe(true);
});
test("over-poured hardener: it says what the clear has to come to, and lets it be poured", async () => {
  show();
  await tare();
  FakeSource.last.say(0.2);
  press("Clear T is in");
  FakeSource.last.say(0.313);
  expect(now()).toContain("8.0 g too much");
  expect(screen.getByTestId("pour-correction").textContent).toBe(
    "Poured too much. To keep the ratio the mix grows to 323 ml: Clear T to 215.2 g.",
  );
  press("Hardener T is in");
  expect(now()).toContain("Clear T15.2 g to go");
  FakeSource.last.say(0.313 + 0.0152);
  press("Clear T is in");
  expect(now()).toContain("All in: 323 ml.");
});
test("a pot that is too small for the mended mix says so and keeps nothing", async () => {
  show(310e-6);
  await tare();
  FakeSource.last.say(0.26);
  expect(screen.getByTestId("pour-correction").textContent).toContain(
    "The pot is too small to mend this: the right mix would be 390 ml, 80 more than it holds.",
  );
});
test("a part is not accepted while the scale still moves; typing what it shows works without a scale", async () => {
  show();
  await tare();
  FakeSource.last.say(0.1, false);
  expect(screen.getByRole<HTMLButtonElement>("button", { name: "Clear T is in" }).disabled).toBe(true);
  fireEvent.change(screen.getByLabelText(/Or type what the scale shows/), { target: { value: "200,0" } });
  expect(now()).toContain("0.0 g to go: stop here");
  expect(screen.getByRole<HTMLButtonElement>("button", { name: "Clear T is in" }).disabled).toBe(false);
  fireEvent.change(screen.getByLabelText(/Or type what the scale shows/), { target: { value: "two" } });
  expect(screen.getByText('"two" is not a number')).toBeTruthy();
});
test("poured by typed weights: each part has its own weight to go, whatever the scale that nobody uses shows", async () => {
  show();
  await tare();
  fireEvent.change(screen.getByLabelText(/Or type what the scale shows/), { target: { value: "200" } });
  press("Clear T is in");
  expect(now()).toContain("Hardener T105.0 g to go"); // 110.0: 5 g too much, of reducer 32 %
  fireEvent.change(screen.getByLabelText(/Or type what the scale shows/), { target: { value: "305" } });
  press("Hardener T is in");
  expect(now()).toContain("All in: 300 ml.");
});
test("a fault of the scale is shown in its words", () => {
  show();
  act(() => {
    FakeSource.last.dispatchEvent(
      new MessageEvent("reading", {
        data: JSON.stringify({ device: "Scale", simulated: false, mass_kg: null, stable: false, fault: "More than 5 kg on the scale." }),
      }),
    );
  });
  expect(screen.getByText("More than 5 kg on the scale.")).toBeTruthy();
});
