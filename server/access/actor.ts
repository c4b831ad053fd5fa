import { AsyncLocalStorage } from "node:async_hooks";
import { Refusal } from "../commands/refusal";
import { type Right, type Role, may, mayNotWords } from "./rights";

/** In whose name something is done, and on which device. */
export interface Actor {
  role: Role;
  /** Null where nobody signs in: the program answers on this machine alone. */
  personId: string | null;
  name: string | null;
  deviceId: string | null;
}

/** Whoever is at the machine itself, while the program answers nobody else. */
export const AT_THE_MACHINE: Actor = { role: "owner", personId: null, name: null, deviceId: null };
/** Somebody who has not signed in: of an open page. */
export const NOBODY: Actor = { role: "apprentice", personId: null, name: null, deviceId: null };

const acting = new AsyncLocalStorage<Actor>();
/** Carries a request out in somebody's name. */
export const asActor = <T>(actor: Actor, work: () => T): T => acting.run(actor, work);
export const currentActor = (): Actor => acting.getStore() ?? AT_THE_MACHINE;

/** @throws Refusal in words, 403 */
export function requireRight({ actor }: { actor: Actor }, right: Right): void {
  if (!may(actor.role, right)) throw new Refusal(null, mayNotWords(actor.role, right), 403);
}
