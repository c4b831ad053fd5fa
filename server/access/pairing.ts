import { Refusal } from "../commands/refusal";
import { newPairingCode } from "./secrets";

export const CODE_LIVES_MS = 5 * 60_000;
/** So many wrong codes end the one that waits: of a million, ten are tried at most for each code that the owner asks for. */
export const MOST_WRONG_CODES = 10;

interface PairingCode {
  code: string;
  until_ms: number;
}

/** Codes by which a new device comes in: asked for by the owner, good for five minutes and one device. They die with the process. */
export function createPairing(now_ms: () => number) {
  /** The last one asked for: it is the one on the screen. */
  let asked: PairingCode | null = null;
  let wrong = 0;
  const waiting = () => (asked && asked.until_ms > now_ms() ? asked : null);
  return {
    start(): void {
      asked = { code: newPairingCode(), until_ms: now_ms() + CODE_LIVES_MS };
      wrong = 0;
    },
    /** The code that waits now, for the page that shows it. */
    waiting,
    /** Uses a code up. @throws Refusal in words */
    take(code: string): void {
      const right = waiting()?.code === code;
      if (right || ++wrong >= MOST_WRONG_CODES) asked = null;
      if (!right)
        throw new Refusal("code", "This code is not good, or not any more. Ask the owner for a new one (House, People and devices).", 403);
    },
  };
}
export type Pairing = ReturnType<typeof createPairing>;
