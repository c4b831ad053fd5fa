/** What somebody is in the shop. */
export const ROLES = ["owner", "painter", "apprentice"] as const;
export type Role = (typeof ROLES)[number];

/** What not everybody may do. Everything else (reading, spraying, mixing, marking, working) is for all who are signed in. */
export const RIGHTS = {
  putRight: "put right or take out what others entered",
  delete: "delete jobs and panels, archive them, bring them back",
  costs: "see what the shop's work costs",
  shop: "change how the shop works: its sheets, ways and figures",
  keep: "make, look into and bring back backups",
  people: "say who may come in, and on which devices",
} as const;
export type Right = keyof typeof RIGHTS;
const RIGHT_KEYS = Object.keys(RIGHTS) as Right[];

const OF_ROLE: Record<Role, readonly Right[]> = {
  owner: RIGHT_KEYS,
  painter: ["putRight", "delete", "costs", "shop"],
  apprentice: [],
};
export const rightsOf = (role: Role): readonly Right[] => OF_ROLE[role];
export const may = (role: Role, right: Right): boolean => OF_ROLE[role].includes(right);

/** Who may do it, in words. */
const whoMay = (right: Right): string => (may("painter", right) ? "a painter or the owner" : "the owner");
/** Why somebody may not, and who may. */
export const mayNotWords = (role: Role, right: Right): string => `As ${role} you cannot ${RIGHTS[right]}. Ask ${whoMay(right)}.`;

/** Whether a role may do no more than another: on a device, whoever stands there can hand over to such a person without a PIN. */
export const isNoMore = (role: Role, than: Role): boolean => OF_ROLE[role].every((right) => may(than, right));
