/** @jest-environment ./scripts/jest-jsdom.mjs */
import { fireEvent, screen, waitFor } from "@testing-library/react";
import type { ShownClock } from "#core/course/clock-hold";
import { renderPage } from "~/kit/testing/render-page";
import { ClockStrip } from "./clock-strip";

const MIN = 60_000;
const clock = (id: string, over: Partial<ShownClock>): ShownClock => ({
  id,
  panelId: "p",
  jobId: "j",
  jobName: "Estate",
  panelName: "Door",
  kind: "flash",
  label: "coat 1",
  started_ms: 0,
  due_ms: 10 * MIN,
  late_ms: 45 * MIN,
  stopped_ms: null,
  holds: [],
  ...over,
});
const clocks = [
  clock("over", { kind: "pot", label: "Clear T", due_ms: 2 * MIN, late_ms: null }),
  clock("later", { kind: "cure", label: "work", due_ms: 600 * MIN, late_ms: null }),
  clock("soon", {}),
];
const cells = () => screen.getAllByTestId("clock").map((c) => c.textContent);

test("what is over or ready comes first, then what runs, soonest first; each says its time, its state in words and whose it is", () => {
  renderPage(<ClockStrip now_ms={5 * MIN} />, { clocks });
  expect(cells()).toEqual([
    "+3:00 Pot of Clear T over: mix again Door, Estate",
    "5:00 Flash after coat 1 Door, Estate",
    "9 h 55 Cure Door, Estate",
  ]);
  expect(screen.getAllByRole("link").every((l) => l.getAttribute("href") === "/jobs/j/panels/p/course")).toBe(true);
});

test("a clock is stopped by its own button, and nothing running is said", async () => {
  const { sent, unmount } = renderPage(<ClockStrip now_ms={5 * MIN} />, { clocks: [clocks[2]!] });
  fireEvent.click(screen.getByRole("button", { name: "Stop the flash clock of Door" }));
  await waitFor(() => expect(sent).toEqual([{ path: "/do/clocks/soon", fields: { stopped: "true" } }]));
  unmount();
  renderPage(<ClockStrip now_ms={0} />);
  expect(screen.getByText(/No clock is running/)).toBeTruthy();
});

test("what has no room is folded behind its count, and unfolds: none is cut", () => {
  const { unmount } = renderPage(<ClockStrip now_ms={5 * MIN} />, { clocks });
  const folded = () => screen.getAllByTestId("clock").map((c) => c.className.split(" ").includes("hidden"));
  expect(folded()).toEqual([false, true, true]);
  const all = screen.getByRole("button", { name: "All 3 clocks" });
  expect(all.getAttribute("aria-expanded")).toBe("false");
  fireEvent.click(all);
  expect(folded()).toEqual([false, false, false]);
  fireEvent.click(screen.getByRole("button", { name: "Fewer clocks" }));
  expect(folded()).toEqual([false, true, true]);
  unmount();
  renderPage(<ClockStrip now_ms={5 * MIN} />, { clocks: clocks.slice(0, 1) });
  expect(screen.queryByRole("button", { name: /clocks/ })).toBeNull();
});

test("a clock that is due says what says no to its step before it says ready; once that is over it is ready", () => {
  const holds = [{ by: "pot" as const, over_ms: 12 * MIN }];
  const at = (min: number) => {
    const { unmount } = renderPage(<ClockStrip now_ms={min * MIN} />, { clocks: [clock("flash", { holds })] });
    const [text] = cells();
    unmount();
    return text;
  };
  expect(at(5)).toMatch(/^5:00 Flash after coat 1/);
  expect(at(11)).toMatch(/^ready Flash over/);
  expect(at(13)).toMatch(/^held Flash after coat 1: the pot is over/);
});
