import type { ServerContext } from "../context";
import { pinGivenAt } from "../repos/device-repo";
import { getPerson } from "../repos/person-repo";
import type { Actor } from "./actor";
import { isNoMore } from "./rights";

/**
 * In whose name something is carried out that was entered earlier on a device: of whoever entered it, if their PIN was given on that device. It may do
 * no more than they may, and no more than whoever stands there now: a name that is sent along opens nothing.
 * @param personId as the device says; null: it says nothing
 */
export async function inWhoseName({ db }: Pick<ServerContext, "db">, now: Actor, personId: string | null): Promise<Actor> {
  if (personId === null || now.deviceId === null || personId === now.personId) return now;
  const [person, pin_at_ms] = await Promise.all([getPerson(db, personId), pinGivenAt(db, now.deviceId, personId)]);
  if (!person || pin_at_ms === null) return now;
  return { ...now, personId: person.id, name: person.name, role: isNoMore(person.role, now.role) ? person.role : now.role };
}
