import { type Call, answer } from "./ops";

self.addEventListener("message", (event: MessageEvent<Call>) => {
  const reply = answer(event.data, (progress) => self.postMessage(progress));
  self.postMessage(reply);
});
