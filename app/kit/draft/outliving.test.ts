import { outliving } from "./outliving";

/** A storage of a test. */
function storage(): Storage {
  const kept = new Map<string, string>();
  return {
    get length() {
      return kept.size;
    },
    key: (i) => [...kept.keys()][i] ?? null,
    clear: () => kept.clear(),
    getItem: (key) => kept.get(key) ?? null,
    setItem: (key, text) => void kept.set(key, text),
    removeItem: (key) => void kept.delete(key),
  };
}

/** Tabs of one browser, each with its heart in the test's hand. */
function browser() {
  const shared = storage();
  let now_ms = 1_000_000;
  const beats: (() => void)[] = []; // by timer: what ends is silent
  const tab = () => {
    const own = storage();
    const on: Record<string, () => void> = {};
    const page = {
      addEventListener: (name: string, f: () => void) => void (on[name] = f),
      setInterval: (f: () => void) => beats.push(f) - 1,
      clearInterval: (n: number) => void (beats[n] = () => undefined),
    };
    const drafts = outliving(own, shared, page as never, () => now_ms);
    const mine = beats.length - 1;
    const crash = () => (beats[mine] = () => undefined);
    const hide = () => {
      crash(); // what is hidden runs no timers
      on.pagehide!();
    };
    return { drafts, hide, crash };
  };
  const pass = (ms: number) => {
    now_ms += ms;
    beats.forEach((b) => b());
  };
  return { tab, pass, shared };
}

test("what a tab leaves half-typed is found by the next one once it is closed, and by no other while it lives", () => {
  const { tab, pass } = browser();
  const [one, two] = [tab(), tab()];
  one.drafts.setItem("coat", "2.35");
  expect(two.drafts.getItem("coat")).toBeNull();
  pass(60_000); // it lives on
  expect(two.drafts.getItem("coat")).toBeNull();
  one.hide();
  expect(two.drafts.getItem("coat")).toBe("2.35");
  expect(tab().drafts.getItem("coat")).toBeNull(); // it is the second's now
});

test("a tab that went without a word is gone once it is not heard any more", () => {
  const { tab, pass } = browser();
  const [one, two] = [tab(), tab()];
  one.drafts.setItem("coat", "2.35");
  one.crash();
  pass(3000);
  expect(two.drafts.getItem("coat")).toBeNull();
  pass(4000);
  expect(two.drafts.getItem("coat")).toBe("2.35");
});

test("what was stored is forgotten everywhere; what is another tab's stays; what nobody came back to for a month is let go", () => {
  const { tab, pass, shared } = browser();
  const [one, two] = [tab(), tab()];
  one.drafts.setItem("coat", "1");
  two.drafts.removeItem("coat");
  one.hide();
  expect(tab().drafts.getItem("coat")).toBe("1");
  const three = tab();
  three.drafts.setItem("mix", "5");
  three.drafts.removeItem("mix");
  three.hide();
  expect(tab().drafts.getItem("mix")).toBeNull();
  const four = tab();
  four.drafts.setItem("old", "5");
  four.hide();
  pass(31 * 86_400_000);
  expect(tab().drafts.getItem("old")).toBeNull();
  expect(shared.getItem("left old")).toBeNull();
});

test("a shared storage that is full, or holds what is none of ours, loses nothing of the tab's own", () => {
  const { tab, shared } = browser();
  const one = tab();
  shared.setItem("left coat", "{not ours");
  expect(one.drafts.getItem("coat")).toBeNull();
  shared.setItem = () => {
    throw new Error("full");
  };
  one.drafts.setItem("coat", "7");
  expect(one.drafts.getItem("coat")).toBe("7");
});

test("a form that looked while the other tab was still closing is told once what it left; what lives on, or is typed over, tells nothing", () => {
  const { tab, pass } = browser();
  const [one, two, three] = [tab(), tab(), tab()];
  one.drafts.setItem("coat", "2.35");
  const told: string[] = [];
  expect(two.drafts.getItem("coat")).toBeNull();
  two.drafts.awaits("coat", () => told.push(two.drafts.getItem("coat")!));
  expect(two.drafts.awaits("mix", () => told.push("mix"))).toBeUndefined(); // nobody left anything there
  three.drafts.awaits("coat", () => told.push("three"));
  three.drafts.setItem("coat", "3"); // typed over before
  one.drafts.setItem("coat", "2.4");
  pass(250);
  expect(told).toEqual([]);
  one.hide();
  pass(250);
  pass(250);
  expect(told).toEqual(["2.4"]);
  // A tab that lives on past the time it is missed in is another window.
  const [four, five] = [tab(), tab()];
  four.drafts.setItem("bake", "60");
  five.drafts.awaits("bake", () => told.push("bake"));
  pass(9000);
  four.hide();
  pass(250);
  expect(told).toEqual(["2.4"]);
});
