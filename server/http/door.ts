import type { RequestHandler, Response } from "express";

const LOOK_MS = 20;

/** Somebody else's request does not end: the door was not shut. */
export class StillBusy extends Error {}

/** The way in for requests: it can be shut for a moment, while what stands behind it is exchanged. */
export function createDoor() {
  const inside = new Set<Response>();
  let shut: Promise<unknown> | null = null;
  const isStream = (res: Response) => String(res.getHeader("Content-Type") ?? "").startsWith("text/event-stream");
  /** Streams hang on nothing that is exchanged. */
  const busy = () => [...inside].filter((res) => !isStream(res)).length;
  const way: RequestHandler = (_req, res, next) => {
    const enter = () => {
      if (res.closed) return; // whoever asked has gone on the way here: nobody would ever leave for them
      inside.add(res);
      res.on("close", () => inside.delete(res));
      next();
    };
    if (shut) void shut.then(enter, enter);
    else enter();
  };
  return {
    way,
    /**
     * Works while nobody but whoever asks for it is inside; who comes meanwhile waits, and is let in when it is over.
     * @param within_ms so long others are waited for
     * @throws StillBusy where others do not leave, or it is shut already
     */
    whileShut<T>(work: () => Promise<T>, within_ms = 10_000): Promise<T> {
      if (shut) return Promise.reject(new StillBusy("it is shut already"));
      const doing = (async () => {
        const until = performance.now() + within_ms;
        while (busy() > 1) {
          if (performance.now() > until) throw new StillBusy("other requests do not end");
          await new Promise((done) => setTimeout(done, LOOK_MS));
        }
        return work();
      })();
      shut = doing.catch(() => {}).then(() => (shut = null));
      return doing;
    },
  };
}
export type Door = ReturnType<typeof createDoor>;
