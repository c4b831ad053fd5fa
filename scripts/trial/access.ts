import { may } from "#server/access/rights";
import { type Answer, at, inLanes } from "./harness";
import { type NetworkShop, PINS, Visitor, networkShop } from "./network-shop";
import { type RouteLine, builtRoutes, fill } from "./routes";

export interface AccessReport {
  tried: number;
  /** What was let in, or turned away, against the table. */
  faults: string[];
  /** How long others waited meanwhile (95 of 100). */
  others95_ms: Record<string, number>;
}

const isPage = (path: string) => !path.startsWith("/do/") && !path.includes(".");
/** Names of the demo that stand on nearly every page of it: nobody outside may read one. */
const TELLS = ["Lodos", "Poyraz", "Meltem"];

/** The shop on its network under everything that a stranger, an apprentice or a thief of cookies can try. */
export async function tryAccess(
  demo: string,
  ids: Record<string, string>,
  { pins = 1000, codes = 10_000, streams = 500, bodyMB = 200 }: { pins?: number; codes?: number; streams?: number; bodyMB?: number } = {},
): Promise<AccessReport> {
  const so: AccessReport = { tried: 0, faults: [], others95_ms: {} };
  const shop = await networkShop(demo);
  try {
    await deeds(shop, ids, so);
    await everyRoute(shop, ids, so);
    await foreign(shop, so);
    await whileAsking(shop, so, "wrong PINs", () => wrongPins(shop, so, pins));
    await whileAsking(shop, so, "pairing codes", () => wrongCodes(shop, so, codes));
    await whileAsking(shop, so, "event streams", () => manyStreams(shop, so, streams));
    await whileAsking(shop, so, "a large body", () => largeBody(shop, so, bodyMB));
    await stolen(shop, so);
    await ended(shop, so);
  } finally {
    await shop.server.stop("SIGKILL");
  }
  return so;
}

/** Every route as a stranger, on a device where nobody stands, and as each role: exactly what the table says, read and written. */
async function everyRoute({ stranger, nobody, apprentice, painter, owner }: NetworkShop, ids: Record<string, string>, so: AccessReport) {
  const wrong = (who: string, what: string, { status }: Answer, wanted: string) =>
    so.faults.push(`${who} ${what}: ${status}, wanted ${wanted}`);
  for (const route of await builtRoutes()) {
    const path = fill(route.path, (name) => ids[name] ?? "x");
    for (const [who, visitor] of [
      ["a stranger", stranger],
      ["nobody", nobody],
    ] as const) {
      const letsIn = (needs: RouteLine["needs"]["read"]) => needs === "open" || (needs === "device" && who === "nobody");
      const told = (a: Answer) => TELLS.find((name) => a.body.includes(name));
      for (const suffix of isPage(path) ? ["", ".data"] : [""]) {
        so.tried++;
        const read = await visitor.ask(path + suffix);
        if (told(read)) so.faults.push(`${who} reads ${told(read)} at ${path}${suffix}`);
        if (!letsIn(route.needs.read) && read.status < 300 && !(suffix && read.status === 202))
          wrong(who, `GET ${path}${suffix}`, read, "no answer");
      }
      if (route.writes && !letsIn(route.needs.write)) {
        so.tried++;
        const { status } = await visitor.post(path, { intent: "x" });
        if (status !== 401 && status !== 403) wrong(who, `POST ${path}`, { status } as Answer, "401");
      }
    }
    for (const [role, visitor] of [
      ["apprentice", apprentice],
      ["painter", painter],
      ["owner", owner],
    ] as const) {
      const allowed = (needs: RouteLine["needs"]["read"]) => typeof needs === "string" || may(role, needs.right);
      // A stream does not end; it is looked at elsewhere.
      if (!/events|gauge|scale/.test(path)) {
        so.tried++;
        const read = await visitor.ask(path);
        if (allowed(route.needs.read) ? [401, 403].includes(read.status) : read.status !== 403)
          wrong(role, `GET ${path}`, read, allowed(route.needs.read) ? "an answer" : "403");
      }
      // What the owner may do is done, and would change the shop: tried by hand in its own tests.
      // Whose an entry is, is asked by its command: tried as a deed.
      if (route.writes && role !== "owner" && !path.startsWith("/do/entries/")) {
        so.tried++;
        const write = await visitor.post(path, { intent: "not one of them" });
        if (allowed(route.needs.write) ? write.status === 401 || write.status === 403 : write.status !== 403)
          wrong(role, `POST ${path}`, write, allowed(route.needs.write) ? "an answer" : "403");
      }
    }
  }
}

/** What an apprentice may not do on a page that is theirs, and may; and that the painter may. */
async function deeds({ apprentice, painter }: NetworkShop, ids: Record<string, string>, so: AccessReport) {
  const panel = `/jobs/${ids.jobId}/panels/${ids.panelId}`;
  const reading = (value: string, key: string) => ({ clientKey: key, phase: "before", spot: "9", x_m: "0.5", y_m: "0.4", value });
  const refused: [string, string, Record<string, string>][] = [
    ["deletes a job", `/jobs/${ids.jobId}`, { intent: "delete", vehicle: "x" }],
    ["archives a job", `/jobs/${ids.jobId}`, { intent: "putAway", vehicle: "x" }],
    ["takes a panel off its job", `${panel}/change`, { intent: "remove" }],
    ["takes out what another entered", `/do/entries/${ids.entryId}/strike`, { what: "Entry", whole: "yes" }],
  ];
  for (const [what, path, fields] of refused) {
    so.tried++;
    const { status } = await apprentice.post(path, fields);
    if (status !== 403) so.faults.push(`an apprentice ${what}: ${status}`);
  }
  const { status, body } = await apprentice.post(`/do/panels/${ids.panelId}/readings`, reading("112", "apprentice-1"));
  so.tried++;
  if (status !== 200) so.faults.push(`an apprentice cannot read the film: ${status} ${body.slice(0, 200)}`);
  const other = await painter.post(`/do/entries/${ids.entryId}/strike`, { what: "Entry", whole: "yes" });
  so.tried++;
  if (other.status >= 400) so.faults.push(`a painter cannot take out what another entered: ${other.status}`);
}

/** Posts of other sites and names pointed at the machine, in the name of somebody who is signed in; also under the shop's own name. */
async function foreign({ painter, server }: NetworkShop, so: AccessReport) {
  const port = server.port;
  const tries: [string, Record<string, string>, number][] = [
    ["a foreign origin", { origin: "http://evil.test" }, 403],
    ["a cross-site request", { "sec-fetch-site": "cross-site" }, 403],
    ["another port of the shop's name", { host: `yakamoz.local:${port}`, origin: `http://yakamoz.local:${port + 1}` }, 403],
    ["a rebound name", { host: `evil.test:${port}`, origin: `http://evil.test:${port}` }, 421],
    ["a name that begins like ours", { host: `yakamoz.local.evil.test:${port}`, origin: `http://yakamoz.local.evil.test:${port}` }, 421],
    ["a name that ends like ours", { host: `evil-yakamoz.local:${port}`, origin: `http://evil-yakamoz.local:${port}` }, 421],
  ];
  for (const [what, headers, wanted] of tries) {
    so.tried++;
    const { status } = await painter.post("/do/prefs", { sound: "true" }, headers);
    if (status !== wanted) so.faults.push(`${what}: ${status}, wanted ${wanted}`);
  }
  const own = await painter.ask("/", { headers: { host: `yakamoz.local:${port}` } });
  so.tried++;
  if (own.status !== 200) so.faults.push(`the shop's own name: ${own.status}`);
}

async function wrongPins({ nobody, people }: NetworkShop, so: AccessReport, pins: number) {
  let looked = 0;
  let inside = 0;
  await inLanes(
    Array.from({ length: pins }, (_, i) => i),
    8,
    async (i) => {
      so.tried++;
      const guess = String(i).padStart(4, "0");
      const { status } = await nobody.post("/sign-in", {
        intent: "secret",
        person: people.painter,
        secret: guess === PINS.painter ? "9999" : guess,
        to: "/",
      });
      if (status === 403) looked++;
      if (status < 400) inside++;
    },
  );
  if (inside > 0) so.faults.push(`${inside} of ${pins} wrong PINs got in`);
  if (looked > 20) so.faults.push(`${looked} of ${pins} wrong PINs were looked at`);
}

async function wrongCodes({ stranger, newCode }: NetworkShop, so: AccessReport, codes: number) {
  const good = await newCode();
  let inside = 0;
  await inLanes(
    Array.from({ length: codes }, (_, i) => String(i).padStart(6, "0")),
    8,
    async (code) => {
      if (code === good) return;
      so.tried++;
      if ((await stranger.post("/pair", { intent: "code", code, name: "Tablet" })).status < 400) inside++;
    },
  );
  if (inside > 0) so.faults.push(`${inside} of ${codes} guessed codes got in`);
  if ((await stranger.post("/pair", { intent: "code", code: good, name: "Tablet" })).status < 400)
    so.faults.push("after so many guesses the code is still good");
}

/** Streams of a signed-in device: as many as there may be, the others turned away; one of them is never read. */
async function manyStreams({ painter }: NetworkShop, so: AccessReport, streams: number) {
  const open = Array.from({ length: streams }, (_, i) => {
    const req = painter.raw("/do/events");
    const status = new Promise<number>((done) => {
      req.on("response", (res) => {
        if (i > 0) res.resume();
        done(res.statusCode ?? 0);
      });
      req.on("error", () => done(0));
    });
    req.end();
    return { req, status };
  });
  const statuses = await Promise.all(open.map((o) => o.status));
  so.tried += streams;
  const others = statuses.filter((s) => s !== 200 && s !== 503);
  if (others.length > 0) so.faults.push(`streams answered ${[...new Set(others)].join(", ")}`);
  if (statuses.filter((s) => s === 200).length > 200) so.faults.push("more than 200 streams are open");
  await new Promise((done) => setTimeout(done, 500));
  for (const { req } of open) req.destroy();
}

async function largeBody({ painter }: NetworkShop, so: AccessReport, MB: number) {
  so.tried++;
  const status = await new Promise<number>((done) => {
    const headers = { "content-type": "application/json", "transfer-encoding": "chunked" };
    const req = painter.raw("/do/prefs", { method: "POST", headers });
    req.on("response", (res) => done(res.statusCode ?? 0));
    req.on("error", () => done(413)); // cut off
    const chunk = Buffer.alloc(1_000_000, 32);
    let sent = 0;
    const more = () => {
      while (sent < MB && !req.destroyed) {
        sent++;
        if (!req.write(chunk)) return void req.once("drain", more);
      }
      req.end();
    };
    more();
  });
  if (status < 400) so.faults.push(`a body of ${MB} MB was taken: ${status}`);
}

/** A cookie copied off a tablet, shown from another machine. */
async function stolen({ painter, server }: NetworkShop, so: AccessReport) {
  const thief = new Visitor(server, "127.0.0.8");
  thief.cookie = painter.cookie;
  so.tried += 3;
  const read = await thief.ask("/jobs");
  if (read.status !== 302 || TELLS.some((t) => read.body.includes(t))) so.faults.push(`a stolen cookie reads: ${read.status}`);
  const write = await thief.post("/do/prefs", {});
  if (write.status !== 401) so.faults.push(`a stolen cookie writes: ${write.status}`);
  if ((await painter.ask("/jobs")).status !== 200) so.faults.push("whoever it was stolen from is out");
}

/** A device that the owner ends: its requests and its stream. */
async function ended({ owner, apprentice }: NetworkShop, so: AccessReport) {
  const page = (await owner.ask("/house/people")).body;
  const id = /value="([0-9a-f-]{36})"/.exec(page.slice(page.indexOf('<b class="font-semibold">apprentice</b>')))?.[1] ?? "";
  const closed = new Promise<number>((done) => {
    const start = performance.now();
    const req = apprentice.raw("/do/events");
    req.on("response", (res) => void res.resume().on("end", () => done(performance.now() - start)));
    req.on("error", () => done(performance.now() - start));
    setTimeout(() => done(Infinity), 10_000).unref();
    req.end();
  });
  so.tried += 2;
  const { status } = await owner.post("/house/people", { intent: "end", id });
  if (status !== 200) so.faults.push(`the owner cannot end a device: ${status}`);
  if ((await apprentice.ask("/jobs")).status !== 302) so.faults.push("an ended device reads");
  if ((await closed) > 5000) so.faults.push("the stream of an ended device goes on");
}

/** Asks for the Floor and a panel's page as a painter all the while. */
async function whileAsking({ owner }: NetworkShop, so: AccessReport, what: string, attack: () => Promise<void>) {
  const times: number[] = [];
  let going = true;
  const asking = (async () => {
    while (going) {
      const { status, ms } = await owner.ask("/jobs.data");
      times.push(status === 200 ? ms : Infinity);
      await new Promise((done) => setTimeout(done, 20));
    }
  })();
  await attack();
  going = false;
  await asking;
  so.others95_ms[what] = at(times, 0.95);
}
