import type { HandGun } from "#core/coat/next-coat";

/** Where a coat's settings come from, in words that stand after *from* or *with*. */
export function gunSource({ from, gunName }: Pick<HandGun, "from" | "gunName">): string {
  switch (from) {
    case "gun":
      return gunName ?? "the gun taken up";
    case "last coat":
      return "the gun of the last coat";
    case "other panel":
      return "the gun of the last coat on another panel";
    case "usual":
      return "a usual gun";
  }
}
