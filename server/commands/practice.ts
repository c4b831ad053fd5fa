import { type PracticeSession, practiceSession } from "#core/practice/session-body";
import type { ServerContext } from "../context";
import { insertSession } from "../repos/practice-repo";
import { run } from "./run";

/** Keeps what a session at the bench came to, for whoever sprayed it. @returns its id @throws ZodError */
export async function keepSession(ctx: ServerContext, given: PracticeSession, key: string | null = null): Promise<string> {
  const session = practiceSession.parse(given);
  const { personId } = ctx.actor;
  return run(ctx, { key, what: "practice", content: session }, async ({ db, now_ms }) => {
    const id = ctx.newId();
    await insertSession(db, { ...session, id, personId, at_ms: now_ms });
    return id;
  });
}
