import { recordEntry } from "./record-entry";
import { handOver, verdictNow } from "./hand-over";
import { coatBody, testContext, testJob } from "../testing/fixtures";
import { loadPanelView } from "../views/panel-view";

const by = "painter A";
const glossBody = (GU: number) => ({
  role: "part" as const,
  angle: 60 as const,
  place: "",
  meter: "typed",
  readings: [{ gloss_GU: GU, entered: String(GU) }],
});

test("handing over refuses nothing, and keeps what spoke against it and what nobody had looked at", async () => {
  const ctx = await testContext();
  const { jobId, panelId } = await testJob(ctx);
  const view = async () => (await loadPanelView(ctx, jobId, panelId))!;
  ctx.advance(1000);
  await recordEntry(ctx, { panelId, kind: "coat", by, body: coatBody(1) });
  ctx.advance(1000);
  await recordEntry(ctx, { panelId, kind: "eye", by, body: { colour: "off", covered: true, light: "daylight" } });
  await recordEntry(ctx, { panelId, kind: "gloss", by, body: glossBody(91) });
  const out = await verdictNow(ctx, await view());
  expect(out.verdict).toBe("stays");
  await handOver(ctx, await view(), { note: "as it is", by, clientKey: "once" });
  const { handedOver } = (await view()).state;
  expect(handedOver!.body.note).toBe("as it is");
  expect(handedOver!.body.against).toEqual(["coats", "colour"]);
  expect(handedOver!.body.notLooked).toContain("film");
  expect(handedOver!.body.notLooked).not.toContain("coverage");
  const again = await handOver(ctx, await view(), { note: "as it is", by, clientKey: "once" });
  expect(again).toBe(handedOver!.id);
});
