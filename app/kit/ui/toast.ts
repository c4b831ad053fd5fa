import type { ExternalToast } from "sonner";
import { inPassing } from "./late-parts";
import type { Kind } from "./messages";

let ready: () => void = () => {};
/** Resolved when there is a place on the screen for messages: one that came before would not be seen. */
const placed = new Promise<void>((resolve) => (ready = resolve));
export const toasterPlaced = (): void => ready();

const say = (kind: Kind) => (message: string, options?: ExternalToast) =>
  void inPassing
    .get()
    .then(async (part) => {
      await placed;
      part.say(kind, message, options);
    })
    .catch(() => {}); // the server is away and nothing was fetched before: the form itself says so

/** Says something in passing, with an undo where there is one. */
export const toast = { plain: say("plain"), success: say("success"), error: say("error") };
