// jsdom for tests of the interface, with the web platform's own classes that Node has and jsdom has not.
import { TestEnvironment } from "jest-environment-jsdom";

const FROM_NODE = [
  "TextEncoder",
  "TextDecoder",
  "Request",
  "Response",
  "Headers",
  "fetch",
  "ReadableStream",
  "WritableStream",
  "TransformStream",
  "structuredClone",
];

/** jsdom lays nothing out, so nothing ever changes its size. */
class NoResize {
  observe() {}
  unobserve() {}
  disconnect() {}
}

export default class InterfaceEnvironment extends TestEnvironment {
  async setup() {
    await super.setup();
    for (const name of FROM_NODE) this.global[name] ??= globalThis[name];
    this.global.ResizeObserver ??= NoResize;
  }
}
