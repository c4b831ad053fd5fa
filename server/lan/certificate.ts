import "reflect-metadata"; // the package below asks for it
import { webcrypto } from "node:crypto";
import { existsSync, mkdirSync, readFileSync, renameSync, writeFileSync } from "node:fs";
import { isIP } from "node:net";
import { dirname, join } from "node:path";
import * as x509 from "@peculiar/x509";

x509.cryptoProvider.set(webcrypto as Crypto);

const KEYS = { name: "ECDSA", namedCurve: "P-256", hash: "SHA-256" } as const;
const DAY_MS = 86_400_000;
/** The shop's own authority lives as long as its tablets; the leaf is made anew by itself, long before it ends. */
const AUTHORITY_DAYS = 3650;
const LEAF_DAYS = 90;
const RENEW_DAYS = 30;
/** Clocks of tablets go wrong by so much. */
const BEFORE_MS = DAY_MS;

export interface Pem {
  cert: string;
  key: string;
}

export const authorityFile = (folder: string) => join(folder, "tls", "authority.pem");

/**
 * The certificate the server shows, signed by the shop's own authority, which is made at the first start (ECDSA P-256; RFC 5280). The leaf is made
 * anew when it has less than a month left, or when names or addresses are no longer those of the machine.
 * @param names host names and addresses that it holds for
 * @returns leaf with its chain and key, and whether it was made just now
 */
export async function shopCertificate(folder: string, names: readonly string[], now_ms: number): Promise<Pem & { made: boolean }> {
  const authority = await ownAuthority(folder, now_ms);
  const file = join(folder, "tls", "server.pem");
  const known = readPem(file);
  const chain = (leaf: string) => `${leaf.trim()}\n${authority.cert.trim()}\n`;
  if (known && holds(known.cert, { names, now_ms, authority: authority.cert }))
    return { cert: chain(known.cert), key: known.key, made: false };
  const leaf = await makeLeaf(authority, names, now_ms);
  writePem(file, leaf);
  return { cert: chain(leaf.cert), key: leaf.key, made: true };
}

async function ownAuthority(folder: string, now_ms: number): Promise<Pem> {
  const file = authorityFile(folder);
  const known = readPem(file);
  if (known && new x509.X509Certificate(known.cert).notAfter.getTime() - now_ms > LEAF_DAYS * DAY_MS) return known;
  const keys = await webcrypto.subtle.generateKey(KEYS, true, ["sign", "verify"]);
  const cert = await x509.X509CertificateGenerator.createSelfSigned({
    serialNumber: serial(),
    name: "CN=Yakamoz of this shop",
    notBefore: new Date(now_ms - BEFORE_MS),
    notAfter: new Date(now_ms + AUTHORITY_DAYS * DAY_MS),
    signingAlgorithm: KEYS,
    keys: keys,
    extensions: [
      new x509.BasicConstraintsExtension(true, 0, true),
      new x509.KeyUsagesExtension(x509.KeyUsageFlags.keyCertSign | x509.KeyUsageFlags.cRLSign, true),
      await x509.SubjectKeyIdentifierExtension.create(keys.publicKey),
    ],
  });
  const made = { cert: cert.toString("pem"), key: await pemOfKey(keys.privateKey) };
  writePem(file, made);
  return made;
}

async function makeLeaf(authority: Pem, names: readonly string[], now_ms: number): Promise<Pem> {
  const issuer = new x509.X509Certificate(authority.cert);
  const signingKey = await webcrypto.subtle.importKey("pkcs8", x509.PemConverter.decodeFirst(authority.key), KEYS, false, ["sign"]);
  const keys = await webcrypto.subtle.generateKey(KEYS, true, ["sign", "verify"]);
  const cert = await x509.X509CertificateGenerator.create({
    serialNumber: serial(),
    subject: "CN=Yakamoz",
    issuer: issuer.subject,
    notBefore: new Date(now_ms - BEFORE_MS),
    notAfter: new Date(Math.min(now_ms + LEAF_DAYS * DAY_MS, issuer.notAfter.getTime())),
    signingAlgorithm: KEYS,
    publicKey: keys.publicKey,
    signingKey: signingKey,
    extensions: [
      new x509.BasicConstraintsExtension(false, undefined, true),
      new x509.KeyUsagesExtension(x509.KeyUsageFlags.digitalSignature, true),
      new x509.ExtendedKeyUsageExtension([x509.ExtendedKeyUsage.serverAuth]),
      new x509.SubjectAlternativeNameExtension(names.map((n) => ({ type: isIP(n) ? ("ip" as const) : ("dns" as const), value: n }))),
      await x509.AuthorityKeyIdentifierExtension.create(issuer.publicKey as never),
      await x509.SubjectKeyIdentifierExtension.create(keys.publicKey),
    ],
  });
  return { cert: cert.toString("pem"), key: await pemOfKey(keys.privateKey) };
}

/** Whether a leaf is of this authority, lasts, and holds for all the names. */
function holds(pem: string, { names, now_ms, authority }: { names: readonly string[]; now_ms: number; authority: string }): boolean {
  const cert = new x509.X509Certificate(pem);
  if (cert.issuer !== new x509.X509Certificate(authority).subject) return false;
  if (cert.notAfter.getTime() - now_ms < RENEW_DAYS * DAY_MS || cert.notBefore.getTime() > now_ms) return false;
  const alternatives = cert.getExtension(x509.SubjectAlternativeNameExtension)?.names.toJSON() ?? [];
  const held = new Set(alternatives.map((a) => a.value));
  return names.every((n) => held.has(n));
}

/** Twenty random octets at most, positive (RFC 5280, 4.1.2.2). */
const serial = (): string => "01" + Buffer.from(webcrypto.getRandomValues(new Uint8Array(15))).toString("hex");

async function pemOfKey(key: webcrypto.CryptoKey): Promise<string> {
  return x509.PemConverter.encode(await webcrypto.subtle.exportKey("pkcs8", key), "PRIVATE KEY");
}

/** Certificate and key in one file, the key first; null where there is none, or it cannot be read. */
function readPem(file: string): Pem | null {
  if (!existsSync(file)) return null;
  const text = readFileSync(file, "utf8");
  const part = (label: string) => new RegExp(`-----BEGIN ${label}-----[\\s\\S]+?-----END ${label}-----`).exec(text)?.[0];
  const key = part("PRIVATE KEY");
  const cert = part("CERTIFICATE");
  return key && cert ? { cert, key } : null;
}

function writePem(file: string, { cert, key }: Pem): void {
  mkdirSync(dirname(file), { recursive: true, mode: 0o700 });
  writeFileSync(`${file}.partial`, `${key.trim()}\n${cert.trim()}\n`, { mode: 0o600 });
  renameSync(`${file}.partial`, file);
}

/** The authority's certificate alone, as tablets take it in; null before there is one. */
export const authorityCertificate = (folder: string): string | null => readPem(authorityFile(folder))?.cert ?? null;

/** Its SHA-256 fingerprint in pairs, to be compared with what a tablet shows. */
export async function fingerprintOf(pem: string): Promise<string> {
  const digest = await new x509.X509Certificate(pem).getThumbprint("SHA-256", webcrypto as Crypto);
  return Buffer.from(digest).toString("hex").toUpperCase().match(/../g)!.join(":");
}
