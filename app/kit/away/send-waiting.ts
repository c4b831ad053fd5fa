import { UNSAFE_decodeViaTurboStream as decode } from "react-router";
import { AGE_HEADER, KEY_HEADER, PERSON_HEADER } from "#server/sent-headers";
import { type Clash, type Waiting, firstWaiting, settle } from "./device-store";

const MS = 1000;
const NOT_NOW = [401, 408, 425, 429];

/** What the shop answered for something that was entered while it was away; null: nothing yet. */
type Said = { took: true } | ({ took: false } & Pick<Clash, "message" | "version">) | null;

async function post({ path, body, key, happened_ms, personId }: Waiting, send: typeof fetch): Promise<Said> {
  let answer: Response;
  try {
    answer = await send(path, {
      method: "POST",
      redirect: "manual",
      headers: {
        "Content-Type": "application/x-www-form-urlencoded;charset=UTF-8",
        [KEY_HEADER]: key,
        ...(personId === null ? {} : { [PERSON_HEADER]: personId }),
        [AGE_HEADER]: String(Math.max(0, (Date.now() - happened_ms) / MS)),
      },
      body,
    });
    if (answer.status >= 500 || NOT_NOW.includes(answer.status)) return null;
    if (answer.type === "opaqueredirect" || answer.status < 400) return { took: true };
    return { took: false, ...(await wordsOf(answer)) };
  } catch {
    return null;
  }
}

/** What a refusal says, however it is written. */
async function wordsOf(answer: Response): Promise<{ message: string; version: string | null }> {
  const unread = { message: "The shop did not take it.", version: null };
  try {
    const isPage = (answer.headers.get("Content-Type") ?? "").includes("x-script");
    const text = isPage ? null : await answer.text();
    const said: unknown = isPage ? await (await decode(answer.body!, window)).value : jsonOr(text!);
    return saidIn(said) ?? unread;
  } catch {
    return unread;
  }
}
function jsonOr(text: string): unknown {
  try {
    return JSON.parse(text);
  } catch {
    return text;
  }
}
function saidIn(said: unknown): { message: string; version: string | null } | null {
  if (typeof said === "string") return said === "" ? null : { message: said.slice(0, 400), version: null };
  if (typeof said !== "object" || said === null) return null;
  const { message, errors, version, data, error } = said as Record<string, unknown>;
  const inner = saidIn(data ?? null) ?? saidIn(error ?? null);
  if (inner) return inner;
  const told = [
    ...(typeof message === "string" && message !== "" ? [message] : []),
    ...(typeof errors === "object" && errors !== null ? Object.values(errors as Record<string, string[]>).flat() : []),
  ];
  return told.length === 0 ? null : { message: [...new Set(told)].join(" "), version: typeof version === "string" ? version : null };
}

/**
 * Sends what waits, in its order, until there is nothing more or no answer. What the shop refuses goes aside: a person decides, and nothing is lost.
 * @returns whether everything has been answered for
 */
export async function sendWaiting(send: typeof fetch, changed: () => void): Promise<boolean> {
  for (let head = await firstWaiting(); head; head = await firstWaiting()) {
    const said = await post(head, send);
    if (!said) return false;
    await settle(head, said.took ? null : { message: said.message, version: said.version });
    changed();
  }
  return true;
}
