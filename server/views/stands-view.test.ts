import { recordEntry, strikeEntry } from "../commands/record-entry";
import { coatBody, readingBody, testContext, testJob } from "../testing/fixtures";
import { loadStands } from "./stands-view";

test("what stands in an entry's place: its newest version, whoever changed it last, taken out and put back", async () => {
  const ctx = await testContext();
  const { panelId, jobId } = await testJob(ctx);
  const first = await recordEntry(ctx, { panelId, kind: "reading", body: readingBody("after", "1", 110), by: "painter A" });
  expect(await loadStands(ctx, first)).toMatchObject({ entry: { id: first }, takenOut: false, by: "painter A" });
  ctx.advance(1000);
  const second = await recordEntry(ctx, {
    panelId,
    kind: "reading",
    body: readingBody("after", "1", 120),
    by: "painter B",
    supersedes: first,
  });
  ctx.advance(1000);
  const strike = await strikeEntry(ctx, second, { by: "painter C", reason: "undo", whole: true });
  const ledger = `/jobs/${jobId}/panels/${panelId}/ledger`;
  for (const id of [first, second])
    expect(await loadStands(ctx, id)).toMatchObject({ entry: { id: second }, takenOut: true, by: "painter C", ledger });
  // Asked of what took it out, as whoever puts it back does.
  expect(await loadStands(ctx, strike)).toMatchObject({ entry: { id: second }, takenOut: true });
  ctx.advance(1000);
  await strikeEntry(ctx, strike, { by: "painter A", reason: "undo" });
  expect(await loadStands(ctx, first)).toMatchObject({ entry: { id: second }, takenOut: false, by: "painter A" });
  const other = await recordEntry(ctx, { panelId, kind: "coat", body: coatBody(1), by: "painter A" });
  expect(await loadStands(ctx, other)).toMatchObject({ entry: { kind: "coat" }, takenOut: false });
  expect(await loadStands(ctx, "nothing")).toBeNull();
});
