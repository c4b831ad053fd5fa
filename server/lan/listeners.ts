import { type RequestListener, type Server, createServer } from "node:http";
import { type Server as SecureServer, createServer as createSecureServer } from "node:https";
import type { Pem } from "./certificate";

type Any = Server | SecureServer;

/** Waits until a server listens. @throws its fault: an address that is taken, or not this machine's */
const listening = (server: Any, port: number, host: string): Promise<void> =>
  new Promise((resolve, reject) => {
    const failed = (error: Error) => reject(error);
    server.once("error", failed);
    server.listen(port, host, () => {
      server.off("error", failed);
      server.on("error", () => {}); // an address that goes away later is let go at the next look
      resolve();
    });
  });

/**
 * The program on several addresses at once, each for itself: on the machine's own from the start, on the network's once there is somebody who may
 * let others in, and anew when the network gives another address.
 */
export function createListeners(handler: RequestListener, { limit }: { limit: (server: Any) => void }) {
  const open = new Map<string, Any>();
  const keyOf = (host: string, secure: boolean) => `${secure ? "https" : "http"} ${host}`;
  /** What stays whatever the network gives: the machine's own. */
  const always = new Set<string>();
  let pem: Pem | null = null;
  const add = async (host: string, port: number, secure: boolean): Promise<number> => {
    const server: Any = secure ? createSecureServer({ ...pem!, minVersion: "TLSv1.2" }, handler) : createServer(handler);
    limit(server);
    await listening(server, port, host);
    open.set(keyOf(host, secure), server);
    const address = server.address();
    return typeof address === "object" && address ? address.port : port;
  };
  return {
    /** Plain http on one address. @returns the port @throws where it cannot */
    http(host: string, port: number): Promise<number> {
      always.add(keyOf(host, false));
      return add(host, port, false);
    },
    /**
     * Http and https on these addresses and, beside what `http` opened, on no other: what is new is opened, what is gone is closed.
     * @returns the addresses that could not be listened on, with why
     */
    async follow(
      hosts: readonly string[],
      { port, securePort, pem: now }: { port: number; securePort: number; pem: Pem | null },
    ): Promise<{ host: string; error: Error }[]> {
      if (now && now.cert !== pem?.cert) {
        pem = now;
        for (const [key, server] of open) if (key.startsWith("https")) (server as SecureServer).setSecureContext(now);
      }
      const wanted = new Map<string, { host: string; port: number; secure: boolean }>(
        hosts.flatMap((host) => [
          [keyOf(host, false), { host, port, secure: false }] as const,
          ...(pem ? [[keyOf(host, true), { host, port: securePort, secure: true }] as const] : []),
        ]),
      );
      for (const [key, server] of open)
        if (!wanted.has(key) && !always.has(key)) {
          server.close();
          server.closeAllConnections();
          open.delete(key);
        }
      const failed: { host: string; error: Error }[] = [];
      for (const [key, { host, port: at, secure }] of wanted)
        if (!open.has(key)) await add(host, at, secure).catch((error: Error) => failed.push({ host, error }));
      return failed;
    },
    /** No more is taken in; who is inside is answered. @param grace_ms after that, streams are cut off */
    close: async (grace_ms: number): Promise<void> => {
      const servers = [...open.values()];
      const closed = servers.map((s) => new Promise<void>((done) => s.close(() => done())));
      for (const s of servers) s.closeIdleConnections();
      setTimeout(() => servers.forEach((s) => s.closeAllConnections()), grace_ms).unref();
      await Promise.all(closed);
    },
  };
}
