import { once } from "node:events";
import { Worker } from "node:worker_threads";
import { TEST_SHEET } from "#core/panel/testing/test-ledger";
import { TrialServer, at, ownFolder } from "./harness";

const MB = 1_000_000;

/** Files that somebody may send: small on the disk and large in memory, deep, long, and one that is only large. */
function files(large: boolean): { name: string; path: string; text: string }[] {
  const job = (inner: string) => `{"format":"yakamoz-job","version":1,${inner}}`;
  const many = (bytes: number) => job(`"photos":[${"{},".repeat(Math.floor(bytes / 3))}{}]`);
  const shelf = (count: number) =>
    JSON.stringify({
      format: "yakamoz-shelf",
      version: 1,
      products: Array.from({ length: count }, (_, i) => ({ ...TEST_SHEET, name: `Clear ${i}` })),
    });
  return [
    ...(large ? [6, 60, 117] : [6]).map((mb) => ({
      name: `a job file of ${mb} MB of empty photographs`,
      path: "/do/jobs/import",
      text: many(mb * MB),
    })),
    { name: "a job file nested a million deep", path: "/do/jobs/import", text: job(`"photos":${"[".repeat(1e6)}${"]".repeat(1e6)}`) },
    {
      name: "a job file that is one large photograph",
      path: "/do/jobs/import",
      text: job(
        `"photos":[{"id":"a","mime":"image/jpeg","width":1,"height":1,"name":"a","base64":"${"A".repeat((large ? 110 : 1) * MB)}"}]`,
      ),
    },
    {
      name: "a job file with a trace of a million points",
      path: "/do/jobs/import",
      text: job(`"panels":[{"entries":[{"body":{"trace":{"at":[${"0,".repeat(1e6)}0]}}}]}]`),
    },
    { name: "a shelf file of 1,000 products", path: "/do/shelf/import", text: shelf(1000) },
    { name: "the same again, each changed", path: "/do/shelf/import", text: shelf(1000).replaceAll("0.48", "0.5") },
    { name: "a shelf file of 4,000 products", path: "/do/shelf/import", text: shelf(4000) },
    { name: "a table of semicolons", path: "/do/shelf/import", text: ";".repeat(3_900_000) },
  ];
}

/** Another screen, in a thread of its own: what it waits is the server's doing, not that of whoever sends a large file from here. */
const otherScreen = (port: number): Worker =>
  new Worker(
    `const { parentPort } = require("node:worker_threads");
     const http = require("node:http");
     const agent = new http.Agent({ keepAlive: true });
     const ask = (path) => new Promise((done) => {
       const from = performance.now();
       http.get({ port: ${port}, host: "127.0.0.1", path, agent, headers: { host: "localhost:${port}" } }, (res) => {
         res.resume();
         res.on("end", () => done(performance.now() - from));
       });
     });
     let enough = false;
     parentPort.on("message", () => (enough = true));
     (async () => {
       const waited = [];
       await ask("/jobs.data");
       parentPort.postMessage("asked");
       while (!enough) {
         waited.push(await ask("/healthz"), await ask("/jobs.data"));
         await new Promise((done) => setTimeout(done, 20));
       }
       parentPort.postMessage(waited);
       parentPort.close();
     })();`,
    { eval: true },
  );

export interface FileTry {
  name: string;
  status: number;
  answer_ms: number;
  /** How long others waited meanwhile, the longest and the 95 %. */
  others_ms: number;
  others95_ms: number;
}

/** Sends each file as a browser would, while other screens go on asking. */
export async function tryFiles(demo: string, { large = true }: { large?: boolean } = {}): Promise<FileTry[]> {
  const server = new TrialServer(ownFolder(demo));
  if (!(await server.start())) throw new Error(server.said);
  const tries: FileTry[] = [];
  try {
    for (const page of ["/jobs.data", "/healthz"]) await server.ask(page);
    for (const { name, path, text } of files(large)) {
      const body = Buffer.from(
        `--b\r\nContent-Disposition: form-data; name="file"; filename="x.json"\r\nContent-Type: application/json\r\n\r\n${text}\r\n--b--\r\n`,
      );
      const others = otherScreen(server.port);
      await once(others, "message"); // it has asked for the first time
      const { status, ms } = await server.ask(`${path}.data`, {
        method: "POST",
        headers: { "content-type": "multipart/form-data; boundary=b", origin: `http://localhost:${server.port}` },
        body,
      });
      others.postMessage("enough");
      const [waited] = (await once(others, "message")) as [number[]];
      tries.push({ name, status, answer_ms: ms, others_ms: Math.max(...waited), others95_ms: at(waited, 0.95) });
    }
  } finally {
    await server.stop("SIGKILL");
  }
  return tries;
}
