import { CLOCK_KINDS, type Clock, type ClockKind, clockState } from "#core/models/clock/clock-state";

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

test("a flash clock waits, is due, and is late, with words for each", () => {
  expect(clockState(clock("flash", 5, 30), NOW)).toMatchObject({ phase: "waiting", left_s: 300, words: "until next coat" });
  expect(clockState(clock("flash", -1, 30), NOW)).toMatchObject({ phase: "due", words: "ready: touch test, then spray" });
  expect(clockState(clock("flash", -20, -2), NOW)).toMatchObject({ phase: "late", left_s: -120 });
});
test("a pot that is over is late at once: mix again", () => {
  expect(clockState(clock("pot", 5), NOW).words).toBe("left to spray");
  expect(clockState(clock("pot", -1), NOW)).toMatchObject({ phase: "late", words: "over: mix again" });
});
test("the share runs from nothing to one and never beyond", () => {
  expect(clockState(clock("flash", 10), NOW).share).toBeCloseTo(0.5, 12);
  expect(clockState(clock("flash", -60), NOW).share).toBe(1);
  expect(clockState(clock("flash", 10), NOW - 60 * MINUTE).share).toBe(0);
});
test("a stopped clock says so whatever the time; every kind has words before and after", () => {
  expect(clockState(clock("cure", -1, null, true), NOW)).toMatchObject({ phase: "stopped", words: "stopped" });
  for (const kind of Object.keys(CLOCK_KINDS) as ClockKind[]) {
    expect(clockState(clock(kind, 5), NOW).words.length).toBeGreaterThan(3);
    expect(clockState(clock(kind, -1), NOW).words.length).toBeGreaterThan(3);
  }
  expect(() => clockState(clock("pot", 1), NaN)).toThrow(RangeError);
});
