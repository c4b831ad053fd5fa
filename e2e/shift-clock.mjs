// Loaded before the server of a test (`node --import`): its clock runs ahead by what the test says over the process channel.
let ahead_ms = Number(process.env.E2E_AHEAD_MS ?? 0);
const RealDate = Date;
globalThis.Date = class extends RealDate {
  constructor(...given) {
    if (given.length === 0) super(RealDate.now() + ahead_ms);
    else super(...given);
  }
  static now() {
    return RealDate.now() + ahead_ms;
  }
};
process.on("message", (message) => {
  ahead_ms = message.ahead_ms;
  process.send?.({ ahead_ms });
});
