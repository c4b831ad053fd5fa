import { Refusal } from "../commands/refusal";
import type { Db } from "../db/open";
import { entriesOfOthers, isOwnEntry } from "../repos/ledger-repo";
import type { Actor } from "./actor";
import { may, mayNotWords } from "./rights";

/** Who may not put others' entries right corrects and takes out only what they entered themselves. @throws Refusal in words, 403 */
export async function refuseOthersEntries(
  { role, personId }: Actor,
  db: Db,
  inputs: readonly { supersedes?: string | null }[],
): Promise<void> {
  if (may(role, "putRight")) return;
  for (const { supersedes } of inputs)
    if (supersedes && !(await isOwnEntry(db, supersedes, personId))) throw new Refusal(null, mayNotWords(role, "putRight"), 403);
}

/** A panel's entries that this would be refused for: pages offer it at none of them. */
export async function othersEntries({ role, personId }: Actor, db: Db, panelId: string): Promise<string[]> {
  return may(role, "putRight") ? [] : entriesOfOthers(db, panelId, personId);
}
