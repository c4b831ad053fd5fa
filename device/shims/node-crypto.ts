import { Buffer } from "buffer";
import { sha256 } from "@noble/hashes/sha2.js";

/** SHA-256 alone: what the program asks of its machine, said at once and where no secure page is needed. */
export function createHash(name: string) {
  if (name !== "sha256") throw new RangeError(`no ${name} on this device`);
  const hash = sha256.create();
  const made = {
    update(data: string | Uint8Array) {
      hash.update(typeof data === "string" ? new TextEncoder().encode(data) : data);
      return made;
    },
    digest(form?: "hex" | "base64" | "base64url") {
      const bytes = Buffer.from(hash.digest());
      return form === undefined ? bytes : bytes.toString(form);
    },
  };
  return made;
}
export const randomBytes = (n: number): Buffer => Buffer.from(crypto.getRandomValues(new Uint8Array(n)));
export const randomInt = (below: number): number => crypto.getRandomValues(new Uint32Array(1))[0]! % below;

const HEX = 16;
/** A random UUID of 16 bytes, as RFC 9562 has it (version 4). */
export const randomUUID = (): string => uuidOf(crypto.getRandomValues(new Uint8Array(HEX)));
function uuidOf(given: Uint8Array): string {
  const bytes = Uint8Array.from(given);
  bytes[6] = (bytes[6]! & 0x0f) | 0x40;
  bytes[8] = (bytes[8]! & 0x3f) | 0x80;
  const hex = [...bytes].map((b) => b.toString(HEX).padStart(2, "0")).join("");
  return [hex.slice(0, 8), hex.slice(8, 12), hex.slice(12, 16), hex.slice(16, 20), hex.slice(20)].join("-");
}
export const webcrypto = crypto;
