import { type ClientRequest, request } from "node:http";
import { type Answer, type Ask, OWNER_PASSCODE, TrialServer, ownFolder } from "./harness";

/** Somebody at a machine of the network: an address, and what the program has given it. */
export class Visitor {
  cookie = "";
  constructor(
    readonly server: TrialServer,
    readonly address: string,
  ) {}
  async ask(path: string, { headers = {}, ...ask }: Ask = {}): Promise<Answer> {
    const answer = await this.server.ask(path, {
      ...ask,
      from: this.address,
      headers: { ...(this.cookie ? { cookie: this.cookie } : {}), ...headers },
    });
    for (const set of answer.headers["set-cookie"] ?? []) {
      const [pair = ""] = set.split(";");
      if (pair.startsWith("yakamoz-device=")) this.cookie = pair;
    }
    return answer;
  }
  /** A request that is read, or sent, by hand: a stream that nobody reads, a body without an end. */
  raw(path: string, { headers = {}, method = "GET" }: Pick<Ask, "headers" | "method"> = {}): ClientRequest {
    const { port } = this.server;
    return request({
      host: "127.0.0.1",
      port,
      path,
      method,
      localAddress: this.address,
      headers: { host: `localhost:${port}`, cookie: this.cookie, ...headers },
    });
  }
  post(path: string, fields: Record<string, string>, headers: Record<string, string> = {}): Promise<Answer> {
    return this.ask(path, this.server.form(fields, headers));
  }
}

export const PINS = { painter: "4071", apprentice: "5082" } as const;

export interface NetworkShop {
  server: TrialServer;
  /** The machine that the program runs on, with its owner. */
  owner: Visitor;
  painter: Visitor;
  apprentice: Visitor;
  /** A device that is let in, where nobody stands. */
  nobody: Visitor;
  /** A machine that was never let in. */
  stranger: Visitor;
  people: { painter: string; apprentice: string };
  /** A code for one more device. */
  newCode: () => Promise<string>;
}

/** The demo's shop on the network, played on loopback: an owner, a painter and an apprentice on devices of their own. */
export async function networkShop(demo: string): Promise<NetworkShop> {
  const server = new TrialServer(ownFolder(demo), { HOST: "127.0.0.1", YAKAMOZ_REQUESTS_A_WINDOW: "" }, ["--lan"]);
  if (!(await server.start())) throw new Error(server.said);
  const owner = new Visitor(server, "127.0.0.1");
  await must(owner.post("/owner", { name: "Owner", passcode: OWNER_PASSCODE }), 302);
  const people = { painter: "", apprentice: "" };
  for (const role of ["painter", "apprentice"] as const)
    await must(owner.post("/house/people", { intent: "add", name: role, role, pin: PINS[role] }), 200);
  const html = (await owner.ask("/house/people")).body;
  for (const role of ["painter", "apprentice"] as const) {
    const before = html.search(new RegExp(`<b[^>]*>${role}</b>`));
    people[role] = /\/house\/people\/([0-9a-f-]{36})/.exec(html.slice(before))?.[1] ?? "";
    if (!people[role]) throw new Error(`no ${role} on the page`);
  }
  const newCode = async () => {
    await must(owner.post("/house/people", { intent: "pair" }), 200);
    const [, a, b] =
      /data-testid="code"[^>]*>(\d{3})\D*?(\d{3})</.exec((await owner.ask("/house/people")).body.replaceAll("<!-- -->", "")) ?? [];
    if (!a || !b) throw new Error("no code on the page");
    return a + b;
  };
  const device = async (address: string, name: string) => {
    const visitor = new Visitor(server, address);
    await must(visitor.post("/pair", { intent: "code", code: await newCode(), name }), 302);
    return visitor;
  };
  const signedIn = async (address: string, role: "painter" | "apprentice") => {
    const visitor = await device(address, role);
    await must(visitor.post("/sign-in", { intent: "secret", person: people[role], secret: PINS[role], to: "/" }), 302);
    return visitor;
  };
  return {
    server,
    owner,
    painter: await signedIn("127.0.0.2", "painter"),
    apprentice: await signedIn("127.0.0.3", "apprentice"),
    nobody: await device("127.0.0.4", "nobody"),
    stranger: new Visitor(server, "127.0.0.9"),
    people,
    newCode,
  };
}

async function must(answer: Promise<Answer>, status: number): Promise<Answer> {
  const got = await answer;
  if (got.status !== status) throw new Error(`expected ${status}, got ${got.status}: ${got.body.slice(0, 400)}`);
  return got;
}
