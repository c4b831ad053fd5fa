declare module "pino-roll" {
  import type { EventEmitter } from "node:events";
  import type { DestinationStream } from "pino";
  /** Of its options those that are used here. */
  interface RollOptions {
    file: string;
    extension?: string;
    size?: string;
    limit?: { count: number };
  }
  export default function roll(options: RollOptions): Promise<DestinationStream & EventEmitter & { end(): void }>;
}
