// Serves the production build on loopback. NODE_ENV must be set before react is first imported, so the built program is imported dynamically.
process.env.NODE_ENV ??= "production";
const program = new URL("./build/server/index.js", import.meta.url).href;
const { start } = await import(program);
await start(program);
