import { serverContext } from "#server/running";
import { listSessions } from "#server/repos/practice-repo";
import { writeSessions } from "#server/interchange/practice-csv";

/** The sessions of whoever asks, as CSV. */
export async function loader() {
  const { db, actor } = await serverContext();
  return new Response(writeSessions(await listSessions(db, actor.personId)), {
    headers: { "Content-Type": "text/csv; charset=utf-8", "Content-Disposition": 'attachment; filename="practice.csv"' },
  });
}
