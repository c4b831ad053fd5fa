import { EventEmitter } from "node:events";
import type { Request, Response } from "express";
import { StillBusy, createDoor } from "./door";

/** Somebody who comes in, and leaves when told. */
function visitor(way: ReturnType<typeof createDoor>["way"], type = "text/html", closed = false) {
  const res = Object.assign(new EventEmitter(), { getHeader: () => type, closed });
  let isIn = false;
  void way({} as Request, res as unknown as Response, () => (isIn = true));
  return { isIn: () => isIn, leave: () => res.emit("close") };
}
const moment = () => new Promise((done) => setTimeout(done, 30));

test("who comes while it is shut waits and is let in after; who was inside is waited for, a stream is not", async () => {
  const door = createDoor();
  const asks = visitor(door.way);
  const other = visitor(door.way);
  const stream = visitor(door.way, "text/event-stream; charset=utf-8");
  let at = "waiting";
  const done = door.whileShut(async () => {
    at = "working";
    await moment();
    return "done";
  });
  const late = visitor(door.way);
  await moment();
  expect([at, late.isIn(), stream.isIn()]).toEqual(["waiting", false, true]);
  other.leave();
  expect(await done).toBe("done");
  await moment();
  expect(late.isIn()).toBe(true);
  asks.leave();
});

test("where others do not leave, or it is shut already, nothing is done; it is open again afterwards", async () => {
  const door = createDoor();
  visitor(door.way);
  visitor(door.way);
  let worked = 0;
  const work = () => Promise.resolve(void worked++);
  const first = door.whileShut(work, 40);
  await expect(door.whileShut(work)).rejects.toThrow(StillBusy);
  await expect(first).rejects.toThrow("do not end");
  expect(worked).toBe(0);
  await moment();
  expect(visitor(door.way).isIn()).toBe(true);
});

test("a request that was given up on its way to the door is neither let in nor waited for", async () => {
  const door = createDoor();
  visitor(door.way);
  const gone = visitor(door.way, "text/html", true);
  expect(gone.isIn()).toBe(false);
  expect(await door.whileShut(() => Promise.resolve("done"), 40)).toBe("done");
});
