import { redirect } from "react-router";
import { deviceCookies } from "#server/access/cookie";
import type { Known } from "#server/access/guard";

/** Goes on to a page with the token that the device shows from now on. */
export function goOnWith(token: string, { secure }: Pick<Known, "secure">, to: string): Response {
  const answer = redirect(to);
  for (const cookie of deviceCookies(token, secure)) answer.headers.append("Set-Cookie", cookie);
  return answer;
}

/** What a device is called until somebody says otherwise, by what its browser says of itself. */
export function deviceName(agent: string): string {
  if (/iPad|Tablet|Android(?!.*Mobile)/i.test(agent)) return "Tablet";
  return /iPhone|Mobile/i.test(agent) ? "Telephone" : "Computer";
}
