import { HANDED_OVER } from "./handed-over";
import type { Call, OpName, Ops, Reply } from "./ops";

export interface RunOptions {
  signal?: AbortSignal;
  onProgress?: (share: number) => void;
}
export interface ComputeClient {
  run<K extends OpName>(op: K, input: Ops[K]["in"], options?: RunOptions): Promise<Ops[K]["out"]>;
  close(): void;
}

/**
 * One worker, one call at a time. A synchronous computation cannot be asked to stop, so cancelling ends the worker; the next call starts
 * another.
 */
export function createComputeClient(start: () => Worker): ComputeClient {
  let worker: Worker | null = null;
  let nextId = 1;
  const end = () => {
    worker?.terminate();
    worker = null;
  };
  return {
    close: end,
    run<K extends OpName>(op: K, input: Ops[K]["in"], { signal, onProgress }: RunOptions = {}) {
      return new Promise<Ops[K]["out"]>((resolve, reject) => {
        const cancelled = () => new DOMException("cancelled", "AbortError");
        if (signal?.aborted) return reject(cancelled());
        const current = (worker ??= start());
        const id = nextId++;
        const finish = () => {
          current.removeEventListener("message", onMessage);
          current.removeEventListener("error", onError);
          signal?.removeEventListener("abort", onAbort);
        };
        const onAbort = () => {
          finish();
          end();
          reject(cancelled());
        };
        const onMessage = ({ data: reply }: MessageEvent<Reply<K>>) => {
          if (reply.id !== id) return;
          if ("progress" in reply) return onProgress?.(reply.progress);
          finish();
          if (reply.ok) resolve(reply.output);
          else reject(new RangeError(reply.message));
        };
        // The worker itself failed (no memory, no file): nothing more comes from it.
        const onError = (event: Event) => {
          finish();
          if (worker === current) end();
          const said = "message" in event && typeof event.message === "string" && event.message;
          reject(new Error(said || "the worker stopped"));
        };
        current.addEventListener("message", onMessage);
        current.addEventListener("error", onError);
        signal?.addEventListener("abort", onAbort, { once: true });
        current.postMessage({ id, op, input } satisfies Call<K>, HANDED_OVER[op]?.(input) ?? []);
      });
    },
  };
}
