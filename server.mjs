// Serves the production build on loopback. NODE_ENV must be set before react is first imported, so the built program is imported dynamically.
process.env.NODE_ENV ??= "production";
const { start } = await import("./build/server/index.js");
await start();
