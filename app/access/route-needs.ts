import type { Needs } from "#server/access/guard";

/** What a route asks of whoever reads it, and of whoever writes to it. */
export interface RouteNeeds {
  read: Needs;
  write: Needs;
}

const PERSON: RouteNeeds = { read: "person", write: "person" };
const OPEN: RouteNeeds = { read: "open", write: "open" };
const DEVICE: RouteNeeds = { read: "device", write: "device" };
const OWNER: RouteNeeds = { read: { right: "people", sure: true }, write: { right: "people", sure: true } };
const KEEPER: RouteNeeds = { read: { right: "keep", sure: true }, write: { right: "keep", sure: true } };
const SHOP: RouteNeeds = { read: "person", write: { right: "shop" } };
const COSTS: RouteNeeds = { read: { right: "costs" }, write: { right: "costs" } };

/**
 * Every route that is not for everybody who is signed in, by its file: everything else is. What one press of a page asks for beyond its page (to
 * delete, to put right what others entered) is asked by its command.
 */
const NEEDS: Record<string, RouteNeeds> = {
  "access/owner.route": OPEN,
  "access/pair.route": OPEN,
  "access/trust.route": OPEN,
  "access/authority.do": OPEN,
  "access/sign-in.route": DEVICE,
  "access/people.route": OWNER,
  "access/person.route": OWNER,
  "house/backups.route": KEEPER,
  "house/backup.route": KEEPER,
  "house/house.route": SHOP,
  "house/devices.route": SHOP,
  "house/way.route": SHOP,
  "house/help.do": { read: { right: "keep" }, write: { right: "keep" } },
  "cards/card.route": { read: "person", write: { right: "putRight" } },
  "shelf/product.route": SHOP,
  "shelf/shelf-import.do": SHOP,
  "jobs/job-import.do": SHOP,
  "jobs/job-bundle.do": COSTS,
  "stations/correct/options.route": COSTS,
  "stations/correct/flow.route": COSTS,
  "kit/do/gauge.do": { read: "person", write: "bridge" },
  "kit/do/climate.do": { read: "person", write: "bridge" },
  "kit/do/scale.do": { read: "person", write: "bridge" },
};
export const needsOf = (id: string): RouteNeeds => NEEDS[id] ?? PERSON;
export const NAMED_ROUTES = Object.keys(NEEDS);
