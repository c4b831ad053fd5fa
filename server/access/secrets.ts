import { createHash, randomBytes, randomInt } from "node:crypto";
import { type Options, hash, verify } from "@node-rs/argon2";
import pLimit from "p-limit";

/** argon2id (the package's own choice of algorithm) with the least that OWASP's Password Storage Cheat Sheet asks for: 19 MiB, two passes, one lane. */
const COST: Options = { memoryCost: 19_456, timeCost: 2, parallelism: 1 };
/** One at a time: whoever guesses holds up other guesses, never the pages. */
const oneByOne = pLimit(1);

export const hashSecret = (secret: string): Promise<string> => oneByOne(() => hash(secret.normalize("NFKC"), COST));
export const isSecret = (secret: string, hashed: string): Promise<boolean> =>
  oneByOne(() => verify(hashed, secret.normalize("NFKC")).catch(() => false));

/** 256 random bits that a device shows with every request; only its digest is kept. */
export const newToken = (): string => randomBytes(32).toString("base64url");
export const digestOfToken = (token: string): string => createHash("sha256").update(token).digest("hex");

/** Six digits. */
export const newPairingCode = (): string => String(randomInt(0, 1_000_000)).padStart(6, "0");

/** A passcode that can be read off a screen and typed: 60 bits, without letters that look like others. */
const LETTERS = "abcdefghjkmnpqrstuvwxyz23456789";
export const newPasscode = (): string =>
  Array.from({ length: 3 }, () => Array.from({ length: 4 }, () => LETTERS[randomInt(LETTERS.length)]).join("")).join("-");
