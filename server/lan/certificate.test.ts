import { X509Certificate } from "node:crypto";
import { mkdtempSync, rmSync, statSync } from "node:fs";
import { createServer, get } from "node:https";
import type { AddressInfo } from "node:net";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { authorityCertificate, authorityFile, fingerprintOf, shopCertificate } from "./certificate";

const NOW = Date.UTC(2026, 10, 1);
const DAY = 86_400_000;
const NAMES = ["yakamoz.local", "127.0.0.1"];
let folder: string;
beforeEach(() => (folder = mkdtempSync(join(tmpdir(), "tls-"))));
afterEach(() => rmSync(folder, { recursive: true, force: true }));

/** The leaf of a chain as OpenSSL reads it: of our authority and for our names, or not. */
function leafOf(chain: string) {
  const leaf = new X509Certificate(chain);
  const authority = new X509Certificate(authorityCertificate(folder)!);
  return {
    sound: leaf.verify(authority.publicKey) && leaf.checkIssued(authority) && authority.ca && !leaf.ca,
    names: [leaf.checkHost("yakamoz.local"), leaf.checkIP("127.0.0.1"), leaf.checkHost("evil.test")],
    days: (Date.parse(leaf.validTo) - NOW) / DAY,
  };
}

test("a general-purpose library finds the chain sound, for these names and no other", async () => {
  const { cert } = await shopCertificate(folder, NAMES, NOW);
  expect(leafOf(cert)).toEqual({ sound: true, names: ["yakamoz.local", "127.0.0.1", undefined], days: 90 });
});

test("a client that trusts the authority is served, one that does not is not", async () => {
  const pem = await shopCertificate(folder, NAMES, Date.now());
  const server = createServer(pem, (_req, res) => res.end("in")).listen(0, "127.0.0.1");
  await new Promise((done) => server.once("listening", done));
  const { port } = server.address() as AddressInfo;
  const ask = (ca: string | undefined) =>
    new Promise<string>((resolve) =>
      get({ host: "127.0.0.1", port, ...(ca ? { ca } : {}) }, (res) => void res.on("data", (d: Buffer) => resolve(d.toString()))).on(
        "error",
        (e: NodeJS.ErrnoException) => resolve(e.code!),
      ),
    );
  try {
    expect(await ask(authorityCertificate(folder)!)).toBe("in");
    expect(await ask(undefined)).toMatch(/SELF_SIGNED/);
  } finally {
    server.close();
  }
});

test("it is kept while it lasts, and made anew a month before it ends or for another address; the authority stays", async () => {
  const first = await shopCertificate(folder, NAMES, NOW);
  const authority = authorityCertificate(folder);
  expect(await shopCertificate(folder, NAMES, NOW + 59 * DAY)).toEqual({ ...first, made: false });
  expect((await shopCertificate(folder, [...NAMES, "10.0.0.7"], NOW + 59 * DAY)).made).toBe(true);
  const later = await shopCertificate(folder, NAMES, NOW + 120 * DAY);
  expect(later.made).toBe(true);
  expect(leafOf(later.cert)).toMatchObject({ sound: true, days: 210 });
  expect(authorityCertificate(folder)).toBe(authority);
  expect(await fingerprintOf(authority!)).toMatch(/^([0-9A-F]{2}:){31}[0-9A-F]{2}$/);
});

test("the keys are for nobody else of the machine", async () => {
  await shopCertificate(folder, NAMES, NOW);
  expect(statSync(authorityFile(folder)).mode & 0o077).toBe(0);
  expect(statSync(join(folder, "tls", "server.pem")).mode & 0o077).toBe(0);
});
