import { type Change, createEventBus } from "#server/events/bus";

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
