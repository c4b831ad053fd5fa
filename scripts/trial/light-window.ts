import { type IncomingMessage, request } from "node:http";
import { createInterface } from "node:readline";
import type { ToldChange } from "#server/events/bus";
import { concerns } from "~/kit/shell/interest";
import { lookAgain } from "~/kit/shell/look-again";
import type { TrialServer } from "./harness";

export interface LightWindow {
  /** Starts of the looks that have been answered, with when each was there, ms. */
  looks: { begun: number; there: number }[];
  close(): void;
}

/** As a device does after what others enter (app/kit/away/the-device.ts). */
const FOLLOWS_MS = 1500;

/**
 * A window as the server sees one: its event stream, and its looks by the program's own rule of when to look again. Drawing is left out: every
 * window of a shop is another device, and twenty browsers on one machine would only measure each other.
 */
export async function lightWindow(server: TrialServer, path: string): Promise<LightWindow> {
  const looks: LightWindow["looks"] = [];
  const data = path === "/" ? "/_.data" : `${path}.data`;
  // What its looks ask for is there: a look that fails later is told by how far its window is behind.
  const first = await server.ask(data);
  if (first.status !== 200) throw new Error(`${data} was answered ${first.status}`);
  const { changed, stop } = lookAgain(async () => {
    const begun = performance.now();
    const { status } = await server.ask(data);
    if (status !== 200) throw new Error(`a look was answered ${status}`);
    looks.push({ begun, there: performance.now() });
  });
  const stream = request({
    host: "127.0.0.1",
    port: server.port,
    path: "/do/events",
    agent: false,
    headers: {
      host: `localhost:${server.port}`,
      accept: "text/event-stream",
      cookie: server.deviceCookie.map(({ name, value }) => `${name}=${value}`).join("; "),
    },
  });
  // Its device keeps the shop's rows, and asks for what is new a moment after it heard of it.
  let seen: { epoch: string; seq: number } | null = null;
  let following: NodeJS.Timeout | null = null;
  const follow = async () => {
    const { status, body } = await server.ask(`/do/rows${seen ? `?epoch=${encodeURIComponent(seen.epoch)}&since=${seen.seq}` : ""}`);
    if (status === 200) seen = JSON.parse(body) as { epoch: string; seq: number };
  };
  await follow();
  const followSoon = () => (following ??= setTimeout(() => ((following = null), void follow()), FOLLOWS_MS));
  stream.on("error", () => {}); // the server goes before its windows do
  const opened = new Promise<IncomingMessage>((done, fail) => stream.once("response", done).once("error", fail));
  stream.end();
  let event = "";
  let heard = () => {};
  const hello = new Promise<void>((done) => (heard = done));
  const lines = createInterface({ input: await opened });
  lines.on("error", () => {});
  lines.on("line", (line) => {
    if (line.startsWith("event: ")) event = line.slice(7);
    if (!line.startsWith("data: ")) return;
    if (event === "hello") heard();
    if (event !== "change") return;
    followSoon();
    const change = JSON.parse(line.slice(6)) as ToldChange;
    if (concerns(change, path)) changed(change.windows);
  });
  await hello;
  return {
    looks,
    close: () => {
      stop();
      if (following) clearTimeout(following);
      stream.destroy();
    },
  };
}
