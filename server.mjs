// Serves the production build on loopback. NODE_ENV must be set before react is first imported, so everything below is imported dynamically.
process.env.NODE_ENV ??= "production";
const { default: compression } = await import("compression");
const { default: express } = await import("express");
const { createRequestHandler } = await import("@react-router/express");
const build = await import("./build/server/index.js");

const STOP_GRACE_MS = 1500;
const app = express();
app.disable("x-powered-by");
app.use((_req, res, next) => {
  res.set({
    "X-Content-Type-Options": "nosniff",
    "Referrer-Policy": "same-origin",
    "X-Frame-Options": "DENY",
    "Permissions-Policy": "camera=(), microphone=(), geolocation=()",
    "Cross-Origin-Opener-Policy": "same-origin",
    "Cross-Origin-Resource-Policy": "same-origin",
  });
  next();
});
const isEventStream = (res) => String(res.getHeader("Content-Type") ?? "").startsWith("text/event-stream");
app.use(compression({ filter: (req, res) => !isEventStream(res) && compression.filter(req, res) }));
app.use("/assets", express.static("build/client/assets", { immutable: true, maxAge: "1y" }));
app.use(express.static("build/client", { maxAge: "1h" }));
app.get("/healthz", (_req, res) => void res.send("ok"));
app.use(createRequestHandler({ build, mode: process.env.NODE_ENV }));

const server = app.listen(Number(process.env.PORT ?? 3000), process.env.HOST ?? "127.0.0.1", (error) => {
  if (error) {
    console.error(error.message);
    process.exit(1);
  }
  console.log(`Yakamoz is at http://localhost:${server.address().port}`);
});
let stopping = false;
for (const signal of ["SIGTERM", "SIGINT"])
  process.on(signal, () => {
    if (stopping) return;
    stopping = true;
    server.close(() => {
      console.log("stopped");
      process.exit(0);
    });
    server.closeIdleConnections();
    // Open event streams never end by themselves.
    setTimeout(() => server.closeAllConnections(), STOP_GRACE_MS).unref();
  });
