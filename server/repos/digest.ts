import { createHash } from "node:crypto";

/** JSON with the keys of every object in order, so that the same content has the same text. */
function canonical(value: unknown): string {
  return JSON.stringify(value, (_key, v: unknown) =>
    typeof v === "object" && v !== null && !Array.isArray(v)
      ? Object.fromEntries(Object.entries(v).sort(([a], [b]) => (a < b ? -1 : 1)))
      : v,
  );
}

/** SHA-256 of content under a name, hexadecimal: the same for the same content whatever the order of its keys. */
export const digestOf = (what: string, content: unknown): string =>
  createHash("sha256")
    .update(`${what}\n${canonical(content)}`)
    .digest("hex");

/** So many digits tell two states of one thing apart. */
const VERSION_DIGITS = 16;

/** The version of what a form changes: it differs exactly when the content does, so a form that was filled in on another state is found out. */
export const versionOf = (content: unknown): string => digestOf("version", content).slice(0, VERSION_DIGITS);
