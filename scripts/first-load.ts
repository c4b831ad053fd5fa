import { readFileSync } from "node:fs";
import { join } from "node:path";
import { gzipSync } from "node:zlib";

/** Scripts of the built program together, each gzipped, kB. */
export const gzipped_kB = (names: readonly string[], client = "build/client"): number =>
  names.reduce((sum, name) => sum + gzipSync(readFileSync(join(client, name))).length / 1000, 0);

/** Scripts that a page's first load brings (what its document names), each gzipped, largest first. */
export function firstLoad(html: string, client = "build/client"): { kB: number; files: [name: string, kB: number][] } {
  const names = [...new Set([...html.matchAll(/\/assets\/[\w.-]+\.js/g)].map(([m]) => m))];
  const files = names.map((n): [string, number] => [n, gzipSync(readFileSync(join(client, n))).length / 1000]).sort((a, b) => b[1] - a[1]);
  return { kB: files.reduce((a, [, kB]) => a + kB, 0), files };
}
