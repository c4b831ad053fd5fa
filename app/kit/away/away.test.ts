import "fake-indexeddb/auto";
import { AGE_HEADER, KEY_HEADER, PERSON_HEADER } from "#server/sent-headers";
import {
  type Waiting,
  allKept,
  countKept,
  firstWaiting,
  leaveOut,
  listKept,
  putWaiting,
  settle,
  standingNow,
  takeIn,
  waitAgain,
} from "./device-store";
import { createDevice } from "./the-device";
import { followRows } from "./follow-rows";
import { sendWaiting } from "./send-waiting";

const item = (key: string, own: Partial<Waiting> = {}): Waiting => ({
  key,
  path: `/do/panels/p1/texture`,
  body: "role=part&rating=2.5",
  happened_ms: Date.now() - 5000,
  personId: "person-one",
  personName: "Painter A",
  words: [`Bonnet: ${key}`],
  ...own,
});
const told = (own: object) =>
  Response.json({ epoch: "run one", seq: 1, whole: true, rows: [], program: "/assets/device-1.js", who: null, now_ms: 0, ...own });
const job = (key: string, vehicle: string) => ({ table: "job", key, row: { id: key, vehicle } });
const answers = (...list: (Response | Error)[]) => {
  const asked: { url: string; init: RequestInit | undefined }[] = [];
  const send = (url: RequestInfo | URL, init?: RequestInit) => {
    asked.push({ url: url instanceof Request ? url.url : url.toString(), init });
    const next = list.shift() ?? new TypeError("no answer");
    return next instanceof Error ? Promise.reject(next) : Promise.resolve(next);
  };
  return { asked, send };
};
const vehicles = async () => (await allKept()).rows.map((r) => r.row.vehicle).sort();

test("rows are followed from where the device stands: all of them first, then what is new; another run of the server begins anew", async () => {
  const first = answers(told({ seq: 7, rows: [job("a", "Lodos"), job("b", "Poyraz")] }));
  expect(await followRows(first.send)).toBe("kept");
  const next = answers(told({ seq: 9, whole: false, rows: [job("b", "Imbat"), { table: "job", key: "a", row: null }] }));
  expect(await followRows(next.send)).toBe("kept");
  expect(next.asked[0]!.url).toBe("/do/rows?epoch=run+one&since=7");
  expect(await vehicles()).toEqual(["Imbat"]);
  await followRows(answers(told({ epoch: "run two", seq: 2, rows: [job("c", "Meltem")] })).send);
  expect(await vehicles()).toEqual(["Meltem"]);
  expect((await standingNow())!.epoch).toBe("run two");
});

test("no answer leaves what is there; an invented shop, or nobody signed in, leaves nothing, but for what waits", async () => {
  await putWaiting(item("stays"));
  for (const [answer, says] of [
    [new TypeError("no connection"), "no answer"],
    [new Response("fault", { status: 500 }), "no answer"],
  ] as const)
    expect(await followRows(answers(answer).send)).toBe(says);
  expect(await vehicles()).toEqual(["Meltem"]);
  expect(await followRows(answers(new Response(null, { status: 204 })).send)).toBe("nothing to keep");
  expect(await vehicles()).toEqual([]);
  await followRows(answers(told({ rows: [job("d", "Imbat")] })).send);
  expect(await followRows(answers(new Response("Nobody is signed in", { status: 401 })).send)).toBe("not let in");
  const { rows, standing, waiting } = await allKept();
  expect([rows, standing, waiting.map((w) => w.key)]).toEqual([[], undefined, ["stays"]]);
  await settle((await firstWaiting())!, null);
});

test("two windows that ask at once: what the first took in is not taken back by the second, whose answer is older", async () => {
  const known = await standingNow();
  const standing = { epoch: "run", program: "", who: null, offset_ms: 0, heard_ms: 0 };
  await takeIn({ ...standing, seq: 5 }, { whole: true, rows: [job("a", "new")] }, known);
  await takeIn({ ...standing, seq: 4 }, { whole: true, rows: [job("a", "old")] }, known);
  expect([await vehicles(), (await standingNow())!.seq]).toEqual([["new"], 5]);
});

test("what waits is sent in its order, with its key, its age and who entered it; without an answer, or while nobody may, it waits on", async () => {
  for (const key of ["one", "two", "three"]) await putWaiting(item(key));
  const first = answers(new Response("ok"), new Response("Nobody is signed in", { status: 401 }));
  expect(await sendWaiting(first.send, () => {})).toBe(false);
  const headers = first.asked[0]!.init!.headers as Record<string, string>;
  expect([headers[KEY_HEADER], headers[PERSON_HEADER], Math.round(Number(headers[AGE_HEADER]))]).toEqual(["one", "person-one", 5]);
  for (const none of [new TypeError("no connection"), new Response("busy", { status: 503 }), new Response("slow down", { status: 429 })]) {
    expect(await sendWaiting(answers(none).send, () => {})).toBe(false);
    expect((await listKept()).waiting.map((w) => w.key)).toEqual(["two", "three"]);
  }
  const rest = answers(new Response("ok"), new Response(null, { status: 202 }));
  expect(await sendWaiting(rest.send, () => {})).toBe(true);
  expect(rest.asked.map(({ init }) => (init!.headers as Record<string, string>)[KEY_HEADER])).toEqual(["two", "three"]);
});

test("what the shop refuses goes aside with its words and does not hold up the rest; a person sends it again upon what stands there, or leaves it out", async () => {
  await putWaiting(item("mine", { body: "version=old&film=12" }));
  await putWaiting(item("after"));
  const changed = Response.json(
    { ok: false, message: "Another window changed this meanwhile.", errors: {}, version: "new" },
    { status: 409 },
  );
  expect(await sendWaiting(answers(changed, new Response("ok")).send, () => {})).toBe(true);
  expect(await countKept()).toEqual({ waiting: 0, clashes: 1 });
  const [clash] = (await listKept()).clashes;
  expect(clash).toMatchObject({ key: "mine", message: "Another window changed this meanwhile.", version: "new" });
  await waitAgain(clash!);
  const again = (await firstWaiting())!;
  expect([again.key, again.body]).toEqual(["mine", "version=new&film=12"]);
  await sendWaiting(answers(new Response("This panel is gone.", { status: 404 })).send, () => {});
  const [second] = (await listKept()).clashes;
  expect(second).toMatchObject({ key: "mine", message: "This panel is gone.", version: null });
  await leaveOut(second!);
  expect(await countKept()).toEqual({ waiting: 0, clashes: 0 });
});

test("while an invented shop is looked at nothing of the shop's is sent to it, and nothing is answered here for it; a form has a key only where it may wait", async () => {
  Object.assign(globalThis, { location: { href: "http://shop.test/", origin: "http://shop.test" }, document: { cookie: "" } });
  await putWaiting(item("of the shop"));
  const here = answers(new Response("stored"), new Response("stored"), new Response("stored"));
  const device = createDevice(here.send);
  device.start({ elsewhere: true });
  expect(await device.flush()).toBe(false);
  const post = (to: string) => device.fetch(to, { method: "POST", body: new URLSearchParams({ a: "1" }) });
  await post("/do/panels/p1/texture");
  expect([here.asked.length, new Headers(here.asked[0]!.init!.headers).get(KEY_HEADER)]).toEqual([1, null]);
  await settle((await firstWaiting())!, null);
  device.start({ elsewhere: false });
  await post("/house/backups.data");
  await post("/do/panels/p1/texture");
  const keys = here.asked.filter(({ init }) => init?.method === "POST").map(({ init }) => new Headers(init!.headers).get(KEY_HEADER));
  expect(keys.slice(0, 2)).toEqual([null, null]);
  expect(keys[2]).toMatch(/^[\w-]{10,80}$/);
  device.stop();
});
