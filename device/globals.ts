import { Buffer } from "buffer";

// What code made for the server takes for granted.
Object.assign(globalThis, { Buffer });

/** What an answer would have the browser remember: a browser takes it out of every answer that a script makes. */
let remembered: string[] = [];
export function takeRemembered(): string[] {
  const all = remembered;
  remembered = [];
  return all;
}
globalThis.Response = class extends Response {
  constructor(body?: BodyInit | null, init?: ResponseInit) {
    super(body, init);
    remembered.push(...new Headers(init?.headers).getSetCookie());
  }
};
