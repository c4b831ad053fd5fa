import { hostname, networkInterfaces } from "node:os";

/** The name under which the program can be found on the shop's network. */
export const SHOP_NAME = "yakamoz.local";

/** This machine's own names, as other machines of the network ask for them. */
export function machineNames(name = hostname()): string[] {
  const plain = name.toLowerCase().replace(/\.local$/, "");
  return /^[a-z0-9.-]+$/.test(plain) ? [...new Set([plain, plain.includes(".") ? plain : `${plain}.local`])] : [];
}

/** Its addresses on networks, without those that hold on one wire alone (link-local of IPv6); loopback left away. */
export function machineAddresses(interfaces: ReturnType<typeof networkInterfaces> = networkInterfaces()): string[] {
  const all = Object.values(interfaces).flatMap((of) => of ?? []);
  const found = all.filter((a) => !a.internal && !(a.family === "IPv6" && /^fe80:/i.test(a.address))).map((a) => a.address);
  return [...new Set(found)].sort((a, b) => Number(a.includes(":")) - Number(b.includes(":")));
}

/** An address as it stands in a link and in a `Host` header. */
export const inLink = (address: string): string => (address.includes(":") ? `[${address}]` : address);
