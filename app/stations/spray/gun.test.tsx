/** @jest-environment ./scripts/jest-jsdom.mjs */
import { act, fireEvent, screen } from "@testing-library/react";
import { jest } from "@jest/globals";
import { useState } from "react";
import { newGun } from "./gun.form";
import { CupTable } from "./cup-table";
import { FlowCurve } from "./flow-curve";
import { GunDesk } from "./gun.desk";
import { HandSpeed } from "./hand-speed";
import { RipplePicture } from "./ripple-picture";
import { renderPage } from "~/kit/testing/render-page";
import { gunWorking } from "./gun.words";
import { fitGunCurve } from "#core/models/spray/gun-curve";
import { METRIC } from "#core/kernel/units/quantities";

const cup = (turns: number, ml: number) => ({ turns, volume_m3: ml * 1e-6, time_s: 10 });
const measured = { ...newGun, name: "Clear gun", cups: [cup(2, 30), cup(3, 40)], settings: { ...newGun.settings, turns: 2 } };
const sentence = () => screen.getByTestId("gun-sentence").textContent;

test("without a cup the flow is a guess, with cups it is theirs", () => {
  renderPage(<GunDesk gun={null} start={newGun} formKey="k" />);
  expect(sentence()).toContain("2.25 turns give");
  expect(sentence()).toContain("a guess: ten seconds into a cup settle it");
});
test("kept cups give the sentence, and a school sets the needle", () => {
  renderPage(<GunDesk gun={{ id: "g", body: measured, version: 3 }} start={measured} formKey="k" />);
  expect(sentence()).toMatch(/^2 turns give 180 ± \d+ ml\/min by 2 timed cups\.$/);
  fireEvent.click(screen.getByRole("radio", { name: /^Full open/ }));
  expect(sentence()).toMatch(/^5 turns give/);
});
test("a wrong figure is told at its field and the sentence says so", () => {
  renderPage(<GunDesk gun={null} start={newGun} formKey="k" />);
  fireEvent.change(screen.getByLabelText(/^Distance/), { target: { value: "far" } });
  expect(screen.getByText('"far" is not a number')).toBeTruthy();
  expect(sentence()).toBe("A figure is missing or wrong; it says where.");
});
test("cups are added, filled and taken away; ten seconds are counted", () => {
  jest.useFakeTimers();
  function Held() {
    const [cups, setCups] = useState([{ turns: "2", volume: "30", time: "10" }]);
    return <CupTable cups={cups} onChange={setCups} errors={{ "cupVolume-1": ["Type a number"] }} />;
  }
  renderPage(<Held />);
  fireEvent.click(screen.getByRole("button", { name: "One cup more" }));
  fireEvent.change(screen.getByLabelText("Turns out, cup 2"), { target: { value: "3" } });
  expect(screen.getByLabelText<HTMLInputElement>("Turns out, cup 2").value).toBe("3");
  expect(screen.getByText("Type a number")).toBeTruthy();
  fireEvent.click(screen.getByRole("button", { name: "One less" }));
  expect(screen.queryByLabelText("Turns out, cup 2")).toBeNull();
  fireEvent.click(screen.getByRole("button", { name: "Count ten seconds" }));
  for (let s = 0; s < 4; s++) act(() => void jest.advanceTimersByTime(1000));
  expect(screen.getByRole("button", { name: "6 s" })).toBeTruthy();
  for (let s = 0; s < 6; s++) act(() => void jest.advanceTimersByTime(1000));
  expect(screen.getByRole("button", { name: "Count ten seconds" })).toBeTruthy();
  jest.useRealTimers();
});
test("the metronome knows its beats, and timed passes become a speed", () => {
  const speeds: string[] = [];
  renderPage(<HandSpeed speed_m_s={0.4} onSpeed={(s) => speeds.push(s)} />);
  expect(screen.getByRole("button", { name: /Metronome, 30 strokes a minute/ })).toBeTruthy();
  const clickAt = (name: string, at_ms: number) => {
    const event = new MouseEvent("click", { bubbles: true });
    Object.defineProperty(event, "timeStamp", { value: at_ms });
    fireEvent(screen.getByRole("button", { name }), event);
  };
  clickAt("Time the passes", 1000);
  clickAt("Stop: passes done", 9000);
  expect(speeds).toEqual(["0.4"]); // four passes of 0.8 m in 8 s
  clickAt("Time the passes", 10_000);
  clickAt("Stop: passes done", 10_100);
  expect(screen.getByText(/time them again/)).toBeTruthy();
  fireEvent.change(screen.getByLabelText(/^Length of a stroke/), { target: { value: "" } });
  expect(screen.getByRole<HTMLButtonElement>("button", { name: "Metronome" }).disabled).toBe(true);
});
test("curve and ripple say in words what they draw", () => {
  renderPage(
    <>
      <FlowCurve curve={fitGunCurve(measured.cups)} cups={measured.cups} turns={2} allTurns={5} />
      <RipplePicture overlap={0.75} />
    </>,
  );
  expect(screen.getByRole("img", { name: "Fluid against turns: 180 ml/min at 2 turns, 2 cups" })).toBeTruthy();
  expect(screen.getByText(/75 % overlap: thickest .* ripple 2\.8 %/)).toBeTruthy();
});
test("the working names every cup and what would settle the doubt", () => {
  const w = gunWorking(measured, fitGunCurve(measured.cups), METRIC);
  expect(w.inputs.filter((i) => i.name.startsWith("Cup")).map((i) => i.shown)).toEqual([
    "30 ml in 10 s at 2 turns",
    "40 ml in 10 s at 3 turns",
  ]);
  expect(w.sources).toContain("shop-reading");
  expect(gunWorking(newGun, null, METRIC).changesMost).toBe("One cup of ten seconds.");
});
