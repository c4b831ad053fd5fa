import type { Page } from "@playwright/test";

/** The other end of a virtual pair: what an instrument would print, and its plug. */
export interface VirtualSerial {
  print: (text: string) => Promise<void>;
  unplug: () => Promise<void>;
  plugIn: () => Promise<void>;
}

/** A serial port of a browser whose other end the test holds, in place of the machine's own: allowed once asked for, gone when it is pulled out. */
export async function virtualSerial(page: Page): Promise<VirtualSerial> {
  await page.addInitScript(() => {
    let controller: ReadableStreamDefaultController<Uint8Array> | null = null;
    let plugged = true;
    const allowed = () => localStorage.getItem("virtual-serial") === "allowed";
    const target = new EventTarget();
    const port = Object.assign(new EventTarget(), {
      readable: null as ReadableStream<Uint8Array> | null,
      getInfo: () => ({ usbVendorId: 0x1209, usbProductId: 7 }), // a vendor's number that is open to everybody
      open() {
        if (!plugged) return Promise.reject(new DOMException("The device has been lost.", "NetworkError"));
        if (port.readable) return Promise.reject(new DOMException("The port is already open.", "InvalidStateError"));
        port.readable = new ReadableStream<Uint8Array>({ start: (c) => void (controller = c) });
        return Promise.resolve();
      },
      close() {
        port.readable = null;
        controller = null;
        return Promise.resolve();
      },
    });
    Object.defineProperty(navigator, "serial", {
      value: Object.assign(target, {
        requestPort() {
          localStorage.setItem("virtual-serial", "allowed");
          return Promise.resolve(port);
        },
        getPorts: () => Promise.resolve(plugged && allowed() ? [port] : []),
      }),
    });
    Object.assign(window, {
      virtualSerial: {
        print: (text: string) => controller?.enqueue(new TextEncoder().encode(text)),
        unplug() {
          plugged = false;
          controller?.error(new DOMException("The device has been lost.", "NetworkError"));
        },
        plugIn() {
          plugged = true;
          target.dispatchEvent(new Event("connect"));
        },
      },
    });
  });
  const call = (what: string, text = "") =>
    page.evaluate(
      ([name, t]) => (window as unknown as { virtualSerial: Record<string, (t: string) => void> }).virtualSerial[name!]!(t!),
      [what, text],
    );
  return { print: (text) => call("print", text), unplug: () => call("unplug"), plugIn: () => call("plugIn") };
}
