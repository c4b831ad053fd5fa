import { createSharedReads } from "./shared-reads";

/** Reads of a file that counts how often it was read. */
function file() {
  const reads = createSharedReads();
  let read = 0;
  let content = "old";
  return {
    reads,
    write: (next: string) => {
      content = next;
      reads.forget();
    },
    look: (at_ms: number, key = "panel") =>
      reads.read(key, at_ms, () => {
        read++;
        return Promise.resolve(`${key}: ${content}`);
      }),
    count: () => read,
  };
}

test("those that look in the same second share one reading; after it, and after a clock put back, it is read anew", async () => {
  const { look, count } = file();
  expect(await Promise.all([look(5000), look(5000), look(5999)])).toEqual(["panel: old", "panel: old", "panel: old"]);
  expect(count()).toBe(1);
  await look(6000);
  expect(count()).toBe(2);
  await look(1000);
  expect(count()).toBe(3);
  await look(1000, "root");
  expect(count()).toBe(4);
});

test("what is asked for after a write is never what was read before it, also where that is still under way", async () => {
  const { reads } = file();
  let answer: (value: string) => void = () => {};
  const slow = reads.read("panel", 0, () => new Promise<string>((done) => (answer = done)));
  reads.forget();
  const after = reads.read("panel", 1, () => Promise.resolve("new"));
  answer("old");
  expect(await Promise.all([slow, after])).toEqual(["old", "new"]);
  expect(await reads.read("panel", 2, () => Promise.resolve("newest"))).toBe("new");
});

test("a reading that failed is tried again, and takes no later one with it", async () => {
  const { reads } = file();
  let fail: (why: Error) => void = () => {};
  const first = reads.read("panel", 0, () => new Promise<string>((_, failed) => (fail = failed)));
  reads.forget();
  const second = reads.read("panel", 1, () => Promise.resolve("there"));
  fail(new Error("gone"));
  await expect(first).rejects.toThrow("gone");
  expect(await second).toBe("there");
  expect(await reads.read("panel", 2, () => Promise.resolve("read twice"))).toBe("there");
  await expect(reads.read("root", 2, () => Promise.reject(new Error("busy")))).rejects.toThrow("busy");
  expect(await reads.read("root", 3, () => Promise.resolve("root"))).toBe("root");
});
