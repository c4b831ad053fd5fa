import { useEffect, useRef, useState, useSyncExternalStore } from "react";
import { followPort, usbOf } from "~/kit/serial/follow-port";
import type { SerialState } from "~/kit/serial/bridge";
import { theBridge } from "~/kit/serial/the-bridge";

const NOTHING: ReadonlyMap<string, SerialState> = new Map();
const nothing = () => NOTHING;
const never = () => () => {};

/** How the instruments of this machine stand. */
export const useSerialStates = (): ReadonlyMap<string, SerialState> => {
  const bridge = theBridge();
  return useSyncExternalStore(bridge?.subscribe ?? never, bridge?.get ?? nothing, nothing);
};

/** So many of the last lines are shown. */
const LINES_SHOWN = 6;

export interface Trial {
  port: SerialPort;
  usb: { vendorId: number; productId: number } | null;
  lines: readonly string[];
  fault: string | null;
}

/** A port that is looked at before its profile is kept: opened by a press, its last lines shown. */
export function useTrial(): { trial: Trial | null; connect: (baudRate: number) => Promise<void>; end: () => void } {
  const [trial, setTrial] = useState<Trial | null>(null);
  const held = useRef<() => void>(null);
  const end = () => {
    held.current?.();
    held.current = null;
    setTrial(null);
  };
  useEffect(() => () => held.current?.(), []);
  async function connect(baudRate: number): Promise<void> {
    const port = await navigator.serial.requestPort().catch(() => null); // nothing was chosen
    if (!port) return;
    held.current?.();
    const stop = new AbortController();
    const back = theBridge()?.lend(port);
    held.current = () => {
      stop.abort();
      back?.();
    };
    setTrial({ port, usb: usbOf(port), lines: [], fault: null });
    const take = (line: string) => setTrial((t) => t && { ...t, lines: [...t.lines, line].slice(-LINES_SHOWN) });
    followPort(port, baudRate, take, stop.signal).catch((error: unknown) =>
      setTrial((t) => t && { ...t, fault: error instanceof Error ? error.message : String(error) }),
    );
  }
  return { trial, connect, end };
}
