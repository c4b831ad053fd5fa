import { type RouteConfig, index, prefix, route } from "@react-router/dev/routes";

export default [
  index("routes/floor.tsx"),
  route("ask/sand", "routes/ask-sand.tsx"),
  route("jobs", "routes/jobs.tsx"),
  route("jobs/new", "routes/new-job.tsx"),
  route("jobs/:jobId", "routes/job.tsx"),
  route("jobs/:jobId/add-panel", "routes/add-panel.tsx"),
  route("jobs/:jobId/panels/:panelId", "routes/panel/layout.tsx", { id: "panel" }, [
    route("plan", "routes/panel/plan.tsx"),
    route("spray", "routes/panel/spray.tsx"),
    route("inspect", "routes/panel/inspect.tsx"),
    route("correct", "routes/panel/correct.tsx"),
    route("hand-over", "routes/panel/hand-over.tsx"),
  ]),
  route("shelf", "routes/shelf.tsx"),
  route("shelf/:productId", "routes/product.tsx"),
  route("house", "routes/house.tsx"),
  route("keys", "routes/keys.tsx"),
  ...prefix("do", [
    route("events", "routes/resources/events.ts"),
    route("prefs", "routes/resources/prefs.ts"),
    route("clocks/:clockId", "routes/resources/clock.ts"),
    route("entries/:entryId/strike", "routes/resources/strike.ts"),
    route("panels/:panelId/readings.csv", "routes/resources/readings-csv.ts"),
    route("panels/:panelId/import", "routes/resources/import.ts"),
  ]),
] satisfies RouteConfig;
