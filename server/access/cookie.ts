import type { IncomingMessage } from "node:http";

/** What a device shows with every request. Over https it has another name, which no browser sends or takes without. */
const NAME = "yakamoz-device";
const SECURE_NAME = `__Host-${NAME}`;
const AGE_S = 400 * 24 * 3600; // the longest that browsers keep one (RFC 6265bis)

const valueOf = (cookies: string, name: string): string | null =>
  cookies
    .split(";")
    .map((c) => c.trim())
    .find((c) => c.startsWith(`${name}=`))
    ?.slice(name.length + 1) ?? null;

/** The token of a request: of its cookie, or of a bridge's `Authorization`. `plain`: it came by https, but was given over plain http. */
export function tokenOf({ headers }: Pick<IncomingMessage, "headers">, secure: boolean): { token: string | null; plain: boolean } {
  const [, bearer] = /^Bearer ([A-Za-z0-9_-]+)$/.exec(headers.authorization ?? "") ?? [];
  if (bearer) return { token: bearer, plain: false };
  const cookies = headers.cookie ?? "";
  const safe = secure ? valueOf(cookies, SECURE_NAME) : null;
  return safe ? { token: safe, plain: false } : { token: valueOf(cookies, NAME), plain: secure };
}

/** `Set-Cookie` of a token. */
export const deviceCookies = (token: string, secure: boolean): string[] =>
  secure
    ? [
        `${SECURE_NAME}=${token}; Path=/; Max-Age=${AGE_S}; HttpOnly; SameSite=Strict; Secure`,
        `${NAME}=; Path=/; Max-Age=0; HttpOnly; SameSite=Strict`,
      ]
    : [`${NAME}=${token}; Path=/; Max-Age=${AGE_S}; HttpOnly; SameSite=Strict`];
