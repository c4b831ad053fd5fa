/** A job changed on some of its panels only, or acknowledged and not there: each change leaves a note on every panel of its job. */
export function halfChanges(
  rows: <T>(sql: string, ...args: unknown[]) => T[],
  acknowledged: ReadonlyMap<string, string>,
  start: number,
): string[] {
  const notes = rows<{ text: string; panel: string; job: string }>(
    "select body_json ->> '$.text' as text, panel_id as panel, p.job_id as job from ledger_entry e join panel p on p.id = e.panel_id where e.kind = 'note' and e.seq > ?",
    start,
  );
  const faults: string[] = [];
  const to = new Map<string, Set<string>>();
  for (const { text, panel } of notes) {
    const [, key] = /→ (kill-change-[\w-]+)/.exec(text) ?? [];
    if (key) to.set(key, (to.get(key) ?? new Set()).add(panel));
  }
  const job = notes.find((n) => n.text.includes("kill-change-"))?.job;
  const panels = rows<{ n: number }>("select count(*) as n from panel where job_id = ?", job ?? "")[0]!.n;
  for (const [key, on] of to) if (on.size !== panels) faults.push(`${key} stands on ${on.size} of ${panels} panels`);
  for (const [key, kind] of acknowledged) if (kind === "change" && !to.has(key)) faults.push(`${key} was acknowledged and stands nowhere`);
  return faults;
}
