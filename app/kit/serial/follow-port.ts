import { createLineSplitter } from "#core/models/devices/line";

/** Reads a port's lines until it is pulled out, or until it is told to stop. @throws what the port cannot do: it is taken, or gone */
export async function followPort(port: SerialPort, baudRate: number, onLine: (line: string) => void, signal: AbortSignal): Promise<void> {
  await port.open({ baudRate });
  const split = createLineSplitter();
  const text = new TextDecoder();
  try {
    while (port.readable && !signal.aborted) {
      const reader = port.readable.getReader();
      const stop = () => void reader.cancel().catch(() => {});
      signal.addEventListener("abort", stop, { once: true });
      try {
        for (;;) {
          const { value, done } = await reader.read();
          if (done) return;
          split(text.decode(value, { stream: true })).forEach(onLine);
        }
      } finally {
        signal.removeEventListener("abort", stop);
        reader.releaseLock();
      }
    }
  } finally {
    await port.close().catch(() => {}); // pulled out: there is nothing to close
  }
}

/** What a port tells of itself; null for one that is no USB device. */
export function usbOf(port: SerialPort): { vendorId: number; productId: number } | null {
  const { usbVendorId, usbProductId } = port.getInfo();
  return usbVendorId === undefined || usbProductId === undefined ? null : { vendorId: usbVendorId, productId: usbProductId };
}
