import { readFileSync } from "node:fs";
import type { Logger } from "pino";
import QRCode from "qrcode";
import { hasOwner } from "../access/who";
import type { ServerContext } from "../context";
import { EXIT, StartRefusal } from "../storage/open-shop";
import { type Announcer, announce } from "./announce";
import { type Pem, shopCertificate } from "./certificate";
import type { createListeners } from "./listeners";
import { SHOP_NAME, inLink, machineAddresses, machineNames } from "./names";

/** How the program answers the shop's network; null: it answers this machine alone. */
export interface LanSettings {
  port: number;
  securePort: number;
  /** Addresses to listen on; null: whatever addresses the machine has. */
  hosts: readonly string[] | null;
  /** A certificate of the shop's own choice; null: one of its own authority. */
  files: { cert: string; key: string } | null;
  /** TLS is done by a proxy before the program. */
  behindProxy: boolean;
}

const TLS_PORT_AFTER = 443;

/** @param args of the command: `--lan` switches it on, as `YAKAMOZ_LAN=1` does @throws StartRefusal in words */
export function lanSettings(env: NodeJS.ProcessEnv, args: readonly string[], port: number): LanSettings | null {
  if (!args.includes("--lan") && env.YAKAMOZ_LAN !== "1") return null;
  const { YAKAMOZ_TLS_CERT: cert, YAKAMOZ_TLS_KEY: key } = env;
  if ((cert === undefined) !== (key === undefined))
    throw new StartRefusal("A certificate needs both YAKAMOZ_TLS_CERT and YAKAMOZ_TLS_KEY.", EXIT.config);
  return {
    port,
    securePort: Number(env.YAKAMOZ_TLS_PORT ?? port + TLS_PORT_AFTER),
    hosts: env.HOST ? env.HOST.split(",").map((h) => h.trim()) : null,
    files: cert && key ? { cert, key } : null,
    behindProxy: Boolean(env.YAKAMOZ_TRUST_PROXY),
  };
}

/** Names and addresses under which others may ask for the program. */
const lanNames = (addresses: readonly string[]): string[] => [SHOP_NAME, ...machineNames(), ...addresses];

export interface Lan {
  /** Looks again who may be let in, and where the machine is on the network. */
  look: () => Promise<void>;
  stop: () => Promise<void>;
  /** Where others find it, the best first: where every device comes in at once, and where it does all there is; none before there is an owner. */
  links: () => { open: string[]; safe: string[] };
}

const LOOK_EVERY_MS = 60_000;
const isLocal = (address: string): boolean => address.startsWith("127.") || address === "::1";

/** Keeps the program on the network: its addresses, its certificate, its name. Nobody beyond this machine is answered before there is an owner. */
export function createLan(
  settings: LanSettings,
  {
    listeners,
    hosts,
    folder,
    context,
    now_ms,
    log,
    say,
  }: {
    listeners: ReturnType<typeof createListeners>;
    /** Names that the gate lets in: this machine's are added. */
    hosts: Set<string>;
    folder: string;
    context: () => Promise<ServerContext>;
    now_ms: () => number;
    log: Logger;
    say: (words: string) => void;
  },
): Lan {
  const { port, securePort } = settings;
  let announcer: Announcer | null = null;
  let open: string[] = [];
  let told = "";

  async function pemFor(names: readonly string[]): Promise<Pem | null> {
    if (settings.behindProxy) return null;
    const { files } = settings;
    if (!files) return shopCertificate(folder, ["localhost", "127.0.0.1", ...names], now_ms());
    return { cert: readFileSync(files.cert, "utf8"), key: readFileSync(files.key, "utf8") };
  }

  async function lookNow(): Promise<void> {
    if (!(await hasOwner(await context()))) {
      tell(`It answers this machine alone until the shop has an owner: open http://localhost:${port} here.`);
      return;
    }
    const addresses = settings.hosts ?? machineAddresses();
    for (const name of lanNames(addresses.map(inLink))) hosts.add(name);
    const pem = await pemFor(lanNames(addresses));
    const failed = await listeners.follow(addresses, { port, securePort, pem });
    for (const { host, error } of failed) log.warn({ err: error, host }, "an address could not be listened on");
    open = addresses.filter((a) => !failed.some((f) => f.host === a));
    if (!announcer && open.some((a) => !isLocal(a)))
      announcer = announce(
        { port: pem ? securePort : port, secure: pem !== null },
        { onFault: (error) => log.warn({ err: error }, "its name could not be told") },
      );
    const { open: found } = links();
    const [link] = found;
    if (link) tell(`Other devices find it at ${found.join(" or ")}`, link);
  }
  function links() {
    const names = [...(open.some((a) => !isLocal(a)) ? [SHOP_NAME] : []), ...open.map(inLink)];
    if (settings.behindProxy) return { open: [], safe: [] };
    const safe = names.map((h) => `https://${h}:${securePort}`);
    // A certificate of the shop's own authority is believed by nobody yet: a new device comes in by plain http, and is led on from there.
    return { open: settings.files ? safe : names.map((h) => `http://${h}:${port}`), safe };
  }
  const tell = (words: string, link?: string) => {
    if (words === told) return;
    told = words;
    say(words);
    if (link && process.stdout.isTTY) void QRCode.toString(link, { type: "terminal", small: true }).then(say);
  };

  let looking: Promise<void> = Promise.resolve();
  const look = () =>
    (looking = looking.then(lookNow).catch((error: unknown) => log.error({ err: error }, "the network could not be looked at")));
  const timer = setInterval(() => void look(), LOOK_EVERY_MS);
  return {
    look,
    links,
    async stop() {
      clearInterval(timer);
      await looking;
      await announcer?.stop();
    },
  };
}
