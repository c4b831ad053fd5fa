import { useEffect } from "react";
import type { LineProfile } from "#core/models/devices/line-profile";
import { theBridge } from "./the-bridge";

/** Reads this machine's instruments for as long as the window is open. */
export function SerialReader({ profiles }: { profiles: readonly LineProfile[] }) {
  useEffect(() => theBridge()?.start(), []);
  useEffect(() => theBridge()?.follow(profiles), [profiles]);
  return null;
}
