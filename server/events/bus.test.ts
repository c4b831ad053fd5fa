import { jest } from "@jest/globals";
import { CALM_MS, type Change, createEventBus } from "#server/events/bus";

test("who listens hears every change until he stops; a page made before a change can tell that it missed it", () => {
  const bus = createEventBus();
  const heard: Change[] = [];
  const madeAt = bus.published();
  const stop = bus.subscribe((c) => heard.push(c));
  bus.publish({ topic: "shop", id: "shop" });
  stop();
  bus.publish({ topic: "job", id: "j" });
  expect(heard).toEqual([{ topic: "shop", id: "shop" }]);
  expect(bus.published() - madeAt).toBe(2);
});

test("a window hears the first change at once, and of what follows the last of each thing: none is lost, and few are told", () => {
  jest.useFakeTimers();
  try {
    const bus = createEventBus();
    const heard: { at: number; id: string; jobId: string | null }[] = [];
    const begun = Date.now();
    const stop = bus.subscribeCalmly((c) => heard.push({ at: Date.now() - begun, id: c.id, jobId: c.jobId ?? null }));
    for (let i = 0; i < 40; i++) {
      bus.publish({ topic: "panel", id: "a", jobId: String(i) });
      if (i === 1) bus.publish({ topic: "panel", id: "b", jobId: "once" });
      jest.advanceTimersByTime(50);
    }
    jest.advanceTimersByTime(10 * CALM_MS);
    const a = heard.filter((h) => h.id === "a");
    expect(a[0]).toEqual({ at: 0, id: "a", jobId: "0" });
    expect(a.at(-1)).toMatchObject({ jobId: "39" });
    expect(a.length).toBeLessThanOrEqual(2000 / CALM_MS + 2);
    expect(Math.max(...a.slice(1).map((h, i) => h.at - a[i]!.at))).toBeLessThanOrEqual(CALM_MS);
    expect(heard.filter((h) => h.id === "b")).toEqual([{ at: 50, id: "b", jobId: "once" }]);
    const counts: number[] = [];
    const others = [1, 2].map(() => bus.subscribeCalmly(({ windows }) => counts.push(windows)));
    bus.publish({ topic: "panel", id: "c" });
    expect(counts).toEqual([3, 3]);
    others.forEach((gone) => gone());
    stop();
    bus.publish({ topic: "panel", id: "a" });
    expect(heard.filter((h) => h.id === "a")).toHaveLength(a.length);
  } finally {
    jest.useRealTimers();
  }
});
