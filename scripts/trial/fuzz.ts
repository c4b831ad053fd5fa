import { readFileSync, readdirSync } from "node:fs";
import { join } from "node:path";
import { seededRandom } from "#core/kernel/stats/random";
import { AGE_HEADER, KEY_HEADER, PERSON_HEADER } from "#server/sent-headers";
import { type Ask, TrialServer, inLanes, ownFolder, pickBy } from "./harness";
import { type RouteLine, builtRoutes, fill } from "./routes";

const ODD = [
  "",
  " ",
  "0",
  "-1",
  "1e309",
  "NaN",
  "131",
  "131 128 126",
  "2:1",
  "on",
  "true",
  "null",
  "__proto__",
  "constructor",
  "toString",
  "µm",
  "'; drop table job; --",
  "<script>1</script>",
  "\u0000",
  "\ud800",
  "💧".repeat(60),
  "9".repeat(400),
  "2026-11-26",
  "#4a5a66",
  '{"film":"µm"}',
  '{"as":"line","at":[]}',
  "[]",
  "{",
  "../../etc/passwd",
  "x".repeat(3000),
] as const;

/** Names and words that forms of the program itself use: a fuzz that knows them comes further in. */
function vocabulary(): { names: string[]; words: string[] } {
  const files = readdirSync("app", { recursive: true, encoding: "utf8" })
    .filter((f) => /\.tsx?$/.test(f) && !f.includes(".test."))
    .map((f) => readFileSync(join("app", f), "utf8"));
  const text = files.join("\n");
  const found = (pattern: RegExp) => [...new Set([...text.matchAll(pattern)].map((m) => m[1]!))];
  return { names: found(/\b([a-z][A-Za-z0-9_]{1,18}):\s/g), words: found(/["'`]([A-Za-z][A-Za-z0-9-]{1,20})["'`]/g) };
}

/** So many requests with odd paths, bodies and headers. @returns answers of 500 and above with what was asked, and whether the server lives */
export async function fuzz(
  demo: string,
  ids: Record<string, string>,
  { requests, seed, lanes = 6 }: { requests: number; seed: number; lanes?: number },
): Promise<{ requests: number; faults: string[]; byStatus: Record<number, number>; unanswered: number; slowest_ms: number }> {
  const server = new TrialServer(ownFolder(demo));
  if (!(await server.start())) throw new Error(server.said);
  const routes = await builtRoutes();
  const { names, words } = vocabulary();
  const random = seededRandom(seed);
  const pick = pickBy(random);
  const value = () => (random() < 0.5 ? pick(ODD) : pick(words));
  const param = (name: string) =>
    random() < 0.6 ? (ids[name] ?? pick(ODD)) : random() < 0.5 ? pick(Object.values(ids)) : pick(ODD) || "x";
  const faults: string[] = [];
  const byStatus: Record<number, number> = {};
  let unanswered = 0;
  const spent: { ms: number; path: string }[] = [];
  let slowest_ms = 0;
  const one = (): { path: string; ask: Ask } => {
    const writing = random() < 0.65;
    const route = pick(routes.filter((r: RouteLine) => (writing ? r.writes : r.reads)));
    const query = random() < 0.3 ? `?${pick(names)}=${encodeURIComponent(value().replace(/[\ud800-\udfff]/g, ""))}` : "";
    const path =
      (fill(route.path, (n) => param(n).replace(/[\ud800-\udfff]/g, "")) || "/") +
      (random() < 0.5 && route.path !== "/" ? ".data" : "") +
      query;
    if (!writing) return { path, ask: random() < 0.1 ? { method: pick(["HEAD", "PUT", "DELETE", "OPTIONS"]) } : {} };
    const { headers, ...sent } = body();
    return { path, ask: { method: "POST", headers: { ...headers, ...outbox() }, ...sent } };
  };
  /** A third comes as out of a device's outbox: under a new key or one that was used, with an age and a name that may be odd. */
  const outbox = (): Record<string, string> => {
    if (random() > 0.33) return {};
    const said = () =>
      pick(ODD)
        .replace(/[^\x20-\x7e]/g, "?")
        .slice(0, 200);
    return {
      [KEY_HEADER]: random() < 0.8 ? `fuzz-${Math.floor(random() * 20_000)}-${seed}-key` : said(),
      [AGE_HEADER]: random() < 0.7 ? String(Math.floor(random() * 9000)) : said(),
      ...(random() < 0.3 ? { [PERSON_HEADER]: random() < 0.5 ? pick(Object.values(ids)) : said() } : {}),
    };
  };
  const fields = (): [string, string][] => {
    const count = random() < 0.01 ? 5000 : Math.floor(random() * 14);
    return Array.from({ length: count }, () => [random() < 0.2 ? "intent" : pick(names), value()]);
  };
  const body = (): Pick<Ask, "headers" | "body"> => {
    const kind = random();
    if (kind < 0.45)
      return {
        headers: { "content-type": "application/x-www-form-urlencoded" },
        body: fields()
          .map(([k, v]) => `${encodeURIComponent(k)}=${encodeURIComponent(v.replace(/[\ud800-\udfff]/g, "?"))}`)
          .join("&"),
      };
    if (kind < 0.65) {
      const parts = fields().map(([k, v]) =>
        random() < 0.2
          ? `--b\r\nContent-Disposition: form-data; name="${pick(["file", "photos", k])}"; filename="${pick(["a.jpg", "x.json", "__proto__", ""])}"\r\nContent-Type: ${pick(["image/svg+xml", "application/json", "text/html"])}\r\n\r\n${v}\r\n`
          : `--b\r\nContent-Disposition: form-data; name="${k}"\r\n\r\n${v}\r\n`,
      );
      return {
        headers: { "content-type": `multipart/form-data; boundary=${random() < 0.1 ? "other" : "b"}` },
        body: parts.join("") + (random() < 0.8 ? "--b--\r\n" : ""),
      };
    }
    if (kind < 0.85) {
      const object = Object.fromEntries(fields().map(([k, v]) => [k, random() < 0.3 ? Number(v) : random() < 0.2 ? [v, {}] : v]));
      return {
        headers: { "content-type": pick(["application/json", "application/x-ndjson"]) },
        body: random() < 0.7 ? JSON.stringify(object) : pick(['{"a":', "[[[", "nul", '{"__proto__":{"x":1}}', "[1e999]", '"\\ud800"']),
      };
    }
    return {
      headers: {
        "content-type": pick([
          "",
          "text/plain",
          "multipart/form-data",
          "application/octet-stream",
          "application/json; charset=x",
          "nonsense",
        ]),
      },
      body: Buffer.from(Array.from({ length: Math.floor(random() * 400) }, () => Math.floor(random() * 256))),
    };
  };
  try {
    await inLanes(
      (function* () {
        for (let i = 0; i < requests; i++) yield one();
      })(),
      lanes,
      async ({ path, ask }) => {
        const stream = /\/do\/(events|devices\/(scale|gauge))/.test(path) && ask.method === undefined;
        if (stream) return; // a stream has no end
        const { status, ms, body: said } = await server.ask(path, ask);
        byStatus[status] = (byStatus[status] ?? 0) + 1;
        slowest_ms = Math.max(slowest_ms, ms);
        if (process.env.TRIAL_DEBUG)
          spent.push({
            ms,
            path: `${ask.method ?? "GET"} ${path.replace(/[0-9a-f-]{36}/g, ":id").slice(0, 90)} ${status} ${String(ask.headers?.["content-type"] ?? "")}`,
          });
        if (status === 0) {
          unanswered++;
          faults.push(`no answer: ${ask.method ?? "GET"} ${path.slice(0, 160)} ${JSON.stringify(ask.headers ?? {})} ${said.slice(0, 80)}`);
        }
        if (status >= 500 && faults.length < 60)
          faults.push(
            `${status} ${ask.method ?? "GET"} ${path.slice(0, 160)} ${JSON.stringify(ask.headers ?? {})} ${String(ask.body ?? "").slice(0, 200)} -> ${said.slice(0, 80)}`,
          );
      },
    );
    for (const s of spent.sort((a, b) => b.ms - a.ms).slice(0, 40)) console.log(s.ms.toFixed(0), s.path);
    await server.again();
    const { status } = await server.ask("/healthz");
    if (status !== 200) faults.push(`afterwards /healthz says ${status}`);
    for (const path of ["/", "/jobs", "/house", "/shelf", "/cards", "/booth-plan", `/jobs/${ids.jobId}/panels/${ids.panelId}/inspect`]) {
      const after = await server.ask(path);
      if (after.status !== 200) faults.push(`afterwards ${path} says ${after.status}`);
    }
    if (server.said)
      faults.push(
        ...server.said
          .split("\n")
          .slice(0, 5)
          .map((l) => `said: ${l.slice(0, 300)}`),
      );
  } finally {
    await server.stop("SIGKILL");
  }
  return { requests, faults, byStatus, unanswered, slowest_ms };
}
