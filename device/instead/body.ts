import { data } from "react-router";
import { jsonOf } from "~/kit/http/json-lines";

const NEEDS_SERVER = "A file goes to the shop's server, and that does not answer. Nothing was stored.";

/** The form a request carries, on a device: typed fields alone. */
export async function formOf(request: Request): Promise<FormData> {
  const type = request.headers.get("Content-Type") ?? "";
  if (!type.startsWith("application/x-www-form-urlencoded")) throw data(NEEDS_SERVER, { status: 503 });
  const form = new FormData();
  for (const [name, value] of new URLSearchParams(await request.text())) form.append(name, value);
  return form;
}
export const textBodyOf = (request: Request): Promise<string> => request.text();
export const jsonBodyOf = async (request: Request): Promise<unknown> => jsonOf(await request.text());
export const withSentFile = (): never => {
  throw data(NEEDS_SERVER, { status: 503 });
};
