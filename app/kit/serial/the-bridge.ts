import { type SerialBridge, createSerialBridge } from "./bridge";

let bridge: SerialBridge | null = null;
/** This window's bridge; null where the browser has no serial ports, or the page came over plain http from another machine. */
export function theBridge(): SerialBridge | null {
  if (typeof navigator === "undefined" || !("serial" in navigator)) return null;
  return (bridge ??= createSerialBridge(navigator.serial));
}
