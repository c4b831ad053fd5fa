import Database from "libsql";
import { databaseFile } from "#server/db/open";
import { TrialServer, ownFolder } from "./harness";
import { builtRoutes, fill } from "./routes";

/** Everything in a data file, counted and summed up: any write shows. */
function fingerprint(folder: string): string {
  const db = new Database(databaseFile(folder));
  try {
    const tables = db.prepare("select name from sqlite_master where type = 'table' order by name").all() as { name: string }[];
    return tables
      .map(({ name }) => {
        const rows = db.prepare(`select * from "${name}"`).all() as Record<string, unknown>[];
        return `${name} ${rows.length} ${JSON.stringify(rows).length}`;
      })
      .join("\n");
  } finally {
    db.close();
  }
}

/** Headers that a browser sends for a page of another site, and names pointed at this machine. */
const FOREIGN: readonly (readonly [what: string, headers: (port: number) => Record<string, string>])[] = [
  ["a foreign origin", () => ({ origin: "http://evil.test" })],
  ["no origin to tell", () => ({ origin: "null" })],
  ["another port of this machine", (port) => ({ origin: `http://localhost:${port + 1}`, "sec-fetch-site": "same-site" })],
  ["a cross-site request", () => ({ "sec-fetch-site": "cross-site" })],
  ["a rebound name", (port) => ({ host: `evil.test:${port}`, origin: `http://evil.test:${port}`, "sec-fetch-site": "same-origin" })],
  ["a name that begins like ours", (port) => ({ host: `localhost.evil.test:${port}` })],
];

/** Every route that writes, asked as another site's page would ask. @returns how many got in, of how many tries; and how many reads got in under a foreign name */
export async function tryDoors(demo: string, ids: Record<string, string>): Promise<{ tried: number; in: string[] }> {
  const folder = ownFolder(demo);
  const server = new TrialServer(folder);
  if (!(await server.start())) throw new Error(server.said);
  const inside: string[] = [];
  let tried = 0;
  try {
    const before = fingerprint(folder);
    for (const route of await builtRoutes()) {
      const path = fill(route.path, (name) => ids[name] ?? "x");
      for (const [what, headers] of FOREIGN) {
        const h = headers(server.port);
        for (const suffix of ["", ".data"])
          for (const type of ["application/x-www-form-urlencoded", "text/plain", "application/json", "multipart/form-data; boundary=x"]) {
            if (!route.writes) continue;
            tried++;
            const body = type.includes("json") ? "{}" : "intent=note&archived=true&stopped=true&struck=true&text=x";
            const { status } = await server.ask(path + suffix, { method: "POST", headers: { "content-type": type, ...h }, body });
            if (status !== 403 && status !== 421) inside.push(`POST ${path}${suffix} with ${what} (${type}): ${status}`);
          }
        if (h.host) {
          tried++;
          const { status } = await server.ask(path, { headers: h });
          if (status !== 421) inside.push(`GET ${path} under ${h.host}: ${status}`);
        }
      }
    }
    if (fingerprint(folder) !== before) inside.push("the data file has changed");
  } finally {
    await server.stop("SIGKILL");
  }
  return { tried, in: inside };
}
