import type { RequestHandler } from "express";
import type { ServerContext } from "../context";
import { renewToken } from "../commands/devices";
import { type Actor, NOBODY, asActor } from "./actor";
import { deviceCookies, tokenOf } from "./cookie";
import { type Right, may, mayNotWords } from "./rights";
import { type Asking, NOT_KNOWN, hasOwner, whoAsks } from "./who";

/** What a route asks of whoever wants it. */
export type Needs =
  /** Open to everybody who reaches the program. */
  | "open"
  /** A device that was let in; nobody needs to stand there. */
  | "device"
  /** Somebody who is signed in. */
  | "person"
  /** A bridge, or somebody who is signed in. */
  | "bridge"
  /** Somebody with a right; `sure`: who has given the passcode a short while ago. */
  | { right: Right; sure?: boolean };

/** Why a request is not let to its page: somewhere else first, or not at all. */
export type First = "owner" | "pair" | "sign in" | "passcode";
export type Turned = { to: First } | { words: string; status: 401 | 403 };

/** What a request may do, by who asks. Null lets it. */
export function turnedBy(needs: Needs, { device, person, sure }: Asking): Turned | null {
  if (needs === "open") return null;
  if (!device) return { to: "pair" };
  if (needs === "device" || (needs === "bridge" && device.kind === "bridge")) return null;
  if (device.kind === "bridge") return { words: "A bridge sends readings, and does nothing else.", status: 403 };
  if (!person) return { to: "sign in" };
  if (typeof needs === "string") return null;
  if (!may(person.role, needs.right)) return { words: mayNotWords(person.role, needs.right), status: 403 };
  return needs.sure && !sure ? { to: "passcode" } : null;
}

const actorOf = ({ device, person }: Asking): Actor =>
  person
    ? { role: person.role, personId: person.id, name: person.name, deviceId: device?.id ?? null }
    : { ...NOBODY, deviceId: device?.id ?? null };

export interface Known extends Asking {
  /** Whether anybody has to sign in at all. */
  asked: boolean;
  secure: boolean;
  /** Where the request came from, and whether that is this machine. */
  address: string;
  local: boolean;
  turned: Turned | null;
}
/** Of a program that answers on this machine alone: nothing is asked. */
export const NOT_ASKED: Known = { ...NOT_KNOWN, asked: false, secure: false, address: "127.0.0.1", local: true, turned: null };

const WRITE_WORDS: Record<First, string> = {
  owner: "This shop has no owner yet. Open it on the machine it runs on.",
  pair: "This device is not let in, or not any more. Nothing was stored.",
  "sign in": "Nobody is signed in on this device any more. Nothing was stored; what you typed is still here. Sign in, then send it again.",
  passcode: "The passcode is asked again after 15 minutes. Nothing was stored. Load the page again.",
};

/**
 * Who asks, on every request, and whether they may: kept in `res.locals.known`. What writes, or is no page, is answered here in words; a page is told
 * where to go first by the root of all pages.
 * @param needs of a path and whether it writes
 */
export function guard({
  context,
  needs,
  local,
}: {
  context: () => Promise<ServerContext>;
  needs: (path: string, writes: boolean) => Needs;
  /** Whether a request comes from the machine itself, under its own name. */
  local: (req: Parameters<RequestHandler>[0]) => boolean;
}): RequestHandler {
  let owned = false; // once there is an owner, there always is
  return (req, res, next) => {
    const work = async () => {
      const ctx = await context();
      const writes = req.method === "POST";
      const address = req.ip ?? "";
      const { token, plain } = tokenOf(req, req.secure);
      const asking = await whoAsks(ctx, token, address);
      if (asking.device && plain && asking.device.kind === "screen")
        res.append("Set-Cookie", deviceCookies(await renewToken(ctx, asking.device.id), true));
      const wants = needs(req.path, writes);
      owned ||= await hasOwner(ctx);
      const turned = wants !== "open" && !owned ? ({ to: "owner" } as const) : turnedBy(wants, asking);
      const known: Known = { ...asking, asked: true, secure: req.secure, address, local: local(req), turned };
      res.locals.known = known;
      res.set("Cache-Control", "no-store"); // a tablet is shared; what may be kept says so itself
      const page = !writes && !req.path.startsWith("/do/");
      if (turned && !page) {
        const { words, status } = "to" in turned ? { words: WRITE_WORDS[turned.to], status: 401 } : turned;
        return void res.status(status).type("text/plain").send(words);
      }
      asActor(actorOf(asking), next);
    };
    work().catch(next);
  };
}

export const knownOf = (res: { locals: Record<string, unknown> }): Known => (res.locals.known as Known | undefined) ?? NOT_ASKED;
