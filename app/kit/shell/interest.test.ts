import { concerns } from "./interest";

const panel = { topic: "panel", id: "p1", jobId: "j1" } as const;
test("a panel's page follows its panel, its job, the clocks and the shelf, and no other panel", () => {
  const page = "/jobs/j1/panels/p1/inspect";
  expect(concerns(panel, page)).toBe(true);
  expect(concerns({ ...panel, id: "p2" }, page)).toBe(false);
  expect(concerns({ topic: "job", id: "j1" }, page)).toBe(true);
  expect(concerns({ topic: "job", id: "j2" }, page)).toBe(false);
  for (const topic of ["clock", "product", "shop"] as const) expect(concerns({ topic, id: "x" }, page)).toBe(true);
});
test("the booth follows its job; the Floor and lists follow everything", () => {
  expect(concerns(panel, "/jobs/j1/booth")).toBe(true);
  expect(concerns(panel, "/jobs/j2/booth/p9")).toBe(false);
  for (const page of ["/", "/jobs", "/booth-plan", "/house"]) expect(concerns(panel, page)).toBe(true);
});
