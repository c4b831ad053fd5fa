import { Bonjour, type Service } from "bonjour-service";
import { SHOP_NAME } from "./names";

export interface Announcer {
  stop: () => Promise<void>;
}

/**
 * Tells the network that the shop's server answers as `yakamoz.local` (multicast DNS, RFC 6762; service discovery, RFC 6763).
 * @param socket in place of the network's own: tests send nothing beyond this process
 */
export function announce(
  { port, secure }: { port: number; secure: boolean },
  { socket, onFault = () => {} }: { socket?: unknown; onFault?: (error: unknown) => void } = {},
): Announcer {
  const bonjour = new Bonjour(socket === undefined ? {} : ({ socket } as object), onFault);
  const service: Service = bonjour.publish({ name: "Yakamoz", type: secure ? "https" : "http", port, host: SHOP_NAME, probe: false });
  service.on("error", onFault);
  return { stop: () => new Promise((done) => bonjour.unpublishAll(() => bonjour.destroy(done))) };
}
