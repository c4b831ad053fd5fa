import { type Clock, type ClockKind, clockState } from "#core/models/clock/clock-state";

const NOW = 1_000_000_000;
const MINUTE = 60_000;
const clock = (kind: ClockKind, due_min: number, late_min: number | null = null, stopped = false): Clock => ({
  id: "c",
  panelId: "p",
  jobId: "j",
  jobName: "Test estate",
  panelName: "Door",
  kind,
  label: "coat 1",
  started_ms: NOW - 10 * MINUTE,
  due_ms: NOW + due_min * MINUTE,
  late_ms: late_min === null ? null : NOW + late_min * MINUTE,
  stopped_ms: stopped ? NOW - MINUTE : null,
});

test("a flash clock waits, is due, and is late", () => {
  expect(clockState(clock("flash", 5, 30), NOW)).toMatchObject({ phase: "waiting", left_s: 300 });
  expect(clockState(clock("flash", -1, 30), NOW)).toMatchObject({ phase: "due" });
  expect(clockState(clock("flash", -20, -2), NOW)).toMatchObject({ phase: "late", left_s: -120 });
});
test("a pot that is over is late at once: mix again", () => {
  expect(clockState(clock("pot", 5), NOW).phase).toBe("waiting");
  expect(clockState(clock("pot", -1), NOW).phase).toBe("late");
});
test("the share runs from nothing to one and never beyond", () => {
  expect(clockState(clock("flash", 10), NOW).share).toBeCloseTo(0.5, 12);
  expect(clockState(clock("flash", -60), NOW).share).toBe(1);
  expect(clockState(clock("flash", 10), NOW - 60 * MINUTE).share).toBe(0);
});
test("a stopped clock says so whatever the time", () => {
  expect(clockState(clock("cure", -1, null, true), NOW).phase).toBe("stopped");
  expect(() => clockState(clock("pot", 1), NaN)).toThrow(RangeError);
});
test("a pearl is stirred again and again while its pot lives", () => {
  const stir = { ...clock("stir", 12), started_ms: 0, due_ms: 12 * 60_000, late_ms: 60 * 60_000 };
  const at = (min: number) => clockState(stir, min * 60_000);
  expect(at(5)).toMatchObject({ phase: "waiting", left_s: 7 * 60 });
  expect(at(12.5).phase).toBe("due");
  expect(at(14)).toMatchObject({ phase: "waiting", left_s: 10 * 60 });
  expect(at(24.2).phase).toBe("due");
  expect(at(61).phase).toBe("stopped");
});
