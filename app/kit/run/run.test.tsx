/** @jest-environment ./scripts/jest-jsdom.mjs */
import { useMemo } from "react";
import { act, renderHook, waitFor } from "@testing-library/react";
import type { Ops } from "#workers/ops";
import { useAskAhead, useRun } from "./use-run";
import { useTask } from "./use-task";

/** A worker that says only what the test lets it say. */
class ToldWorker extends EventTarget {
  static all: ToldWorker[] = [];
  calls: { id: number; op: string; input: unknown; handedOver: unknown[] }[] = [];
  terminated = false;
  constructor() {
    super();
    ToldWorker.all.push(this);
  }
  postMessage(call: { id: number; op: string; input: unknown }, handedOver: unknown[]) {
    this.calls.push({ ...call, handedOver });
  }
  terminate() {
    this.terminated = true;
  }
  say(reply: object) {
    this.dispatchEvent(Object.assign(new Event("message"), { data: { id: this.calls.at(-1)!.id, ...reply } }));
  }
}
const newest = () => ToldWorker.all.at(-1)!;
const asked = () => ToldWorker.all.flatMap((w) => w.calls);

// The hook only carries question and answer: what they say is the worker's own test.
type Question = Ops["boothPlan"]["in"];
const question = (name: string) => ({ name }) as unknown as Question;
const answer = (name: string) => ({ ok: true, output: { plan: name } });
const mount = (first: string | null) =>
  renderHook(({ name }: { name: string | null }) => useRun("booth", "boothPlan", name === null ? null : question(name), 1), {
    initialProps: { name: first },
  });

beforeEach(() => {
  (globalThis as { Worker?: unknown }).Worker = ToldWorker;
});

test("a question that changes cancels the one before; the last answer stays until the new one is there, and says what it answers", async () => {
  const { result, rerender, unmount } = mount("one");
  expect(result.current).toMatchObject({ busy: true, result: null, fault: null });
  await waitFor(() => expect(asked()).toHaveLength(1));
  act(() => newest().say({ progress: 0.4 }));
  await waitFor(() => expect(result.current.progress).toBe(0.4));
  act(() => newest().say(answer("one")));
  await waitFor(() => expect(result.current).toMatchObject({ busy: false, progress: 1, result: { plan: "one" }, asked: { name: "one" } }));

  rerender({ name: "two" });
  expect(result.current).toMatchObject({ busy: true, result: { plan: "one" }, asked: { name: "one" } });
  await waitFor(() => expect(asked()).toHaveLength(2));
  const second = newest();
  rerender({ name: "three" });
  await waitFor(() => expect(asked()).toHaveLength(3));
  expect(second.terminated).toBe(true);
  act(() => newest().say(answer("three")));
  await waitFor(() => expect(result.current).toMatchObject({ busy: false, result: { plan: "three" } }));

  rerender({ name: null });
  expect(result.current).toMatchObject({ busy: false, result: null, asked: null });
  unmount();
  const again = mount("three"); // known on this device for a while
  await waitFor(() => expect(again.result.current).toMatchObject({ busy: false, result: { plan: "three" } }));
  expect(asked()).toHaveLength(3);
});

test("what was asked ahead is answered when its page opens: nothing is worked out twice, nor stopped by leaving the page that asked", async () => {
  const before = asked().length;
  const ahead = renderHook(() =>
    useAskAhead(
      "booth",
      "boothPlan",
      useMemo(() => question("ahead"), []),
    ),
  );
  await waitFor(() => expect(asked()).toHaveLength(before + 1));
  const worker = newest();
  ahead.unmount();
  const opened = mount("ahead"); // while it is still being worked out
  expect(opened.result.current).toMatchObject({ busy: true, result: null });
  act(() => worker.say(answer("ahead")));
  await waitFor(() => expect(opened.result.current).toMatchObject({ busy: false, result: { plan: "ahead" } }));
  expect(asked()).toHaveLength(before + 1);
  expect(worker.terminated).toBe(false);
});

test("what came to nothing ahead is asked again by its page, which says why", async () => {
  const before = asked().length;
  renderHook(() =>
    useAskAhead(
      "booth",
      "boothPlan",
      useMemo(() => question("unlucky"), []),
    ),
  );
  await waitFor(() => expect(asked()).toHaveLength(before + 1));
  await act(async () => {
    newest().say({ ok: false, message: "no such coat" });
    await Promise.resolve();
  });
  const opened = mount("unlucky");
  await waitFor(() => expect(asked()).toHaveLength(before + 2));
  act(() => newest().say({ ok: false, message: "no such coat" }));
  await waitFor(() => expect(opened.result.current).toMatchObject({ busy: false, fault: "no such coat" }));
});

test("a figure outside the model is said as the core says it; a worker that cannot start says what is kept and what to do", async () => {
  const { result, rerender } = mount("outside");
  await waitFor(() => expect(asked().at(-1)).toMatchObject({ input: { name: "outside" } }));
  act(() => newest().say({ ok: false, message: "tilt_rad must be ≤ 1.6, got 2" }));
  await waitFor(() => expect(result.current).toMatchObject({ busy: false, fault: "tilt_rad must be ≤ 1.6, got 2" }));
  rerender({ name: "no file" });
  await waitFor(() => expect(asked().at(-1)).toMatchObject({ input: { name: "no file" } }));
  expect(result.current.fault).toBeNull();
  act(() => void newest().dispatchEvent(new Event("error")));
  await waitFor(() =>
    expect(result.current.fault).toBe(
      "This device could not work it out (the worker stopped). What you typed is kept; load the page again.",
    ),
  );
  expect(result.current.busy).toBe(false);
});

test("stopped by hand it is neither busy nor at fault, and the next question starts anew", async () => {
  const { result, rerender } = mount("long");
  await waitFor(() => expect(asked().at(-1)).toMatchObject({ input: { name: "long" } }));
  const stopped = newest();
  act(() => result.current.cancel());
  await waitFor(() => expect(result.current).toMatchObject({ busy: false, fault: null }));
  expect(stopped.terminated).toBe(true);
  rerender({ name: "short" });
  await waitFor(() => expect(asked().at(-1)).toMatchObject({ input: { name: "short" } }));
  act(() => newest().say(answer("short")));
  await waitFor(() => expect(result.current.result).toEqual({ plan: "short" }));
});

test("a task hands its picture over, and ends done, stopped or failed, never thrown", async () => {
  const rgba = new Uint8ClampedArray(16);
  const picture = { rgba, width: 2, height: 2, scale_m_px: 1e-4 };
  const { result } = renderHook(() => useTask("photo", "findInclusions"));
  const ask = async (then: () => void) => {
    const before = asked().length;
    let run!: ReturnType<typeof result.current.run>;
    act(() => void (run = result.current.run(() => Promise.resolve(picture))));
    await waitFor(() => expect(asked()).toHaveLength(before + 1));
    await waitFor(() => expect(result.current.busy).toBe(true));
    act(then);
    return act(() => run);
  };
  expect(await ask(() => newest().say({ ok: true, output: { ok: false, reason: "too dark" } }))).toEqual({
    at: "done",
    output: { ok: false, reason: "too dark" },
  });
  expect(newest().calls[0]!.handedOver).toEqual([rgba.buffer]);
  expect(await ask(() => result.current.cancel())).toEqual({ at: "stopped" });
  const before = asked().length;
  let made!: (p: typeof picture) => void;
  let early!: ReturnType<typeof result.current.run>;
  act(() => void (early = result.current.run(() => new Promise((done) => (made = done)))));
  act(() => result.current.cancel()); // stopped while its picture is still being unpacked
  await waitFor(() => expect(made).toBeDefined());
  made(picture);
  expect(await act(() => early)).toEqual({ at: "stopped" });
  expect(asked()).toHaveLength(before);
  expect(await ask(() => newest().say({ ok: false, message: "width must be > 0" }))).toEqual({ at: "failed", reason: "width must be > 0" });
});
