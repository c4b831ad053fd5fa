import { Toaster, toast } from "sonner";
import { kept } from "./said";

export type Kind = "plain" | "success" | "error";

/** How long a message stays; an undo is kept longer, under *Go to*. */
const STAYS_MS = 5000;

/** Where messages stand: below, over neither the stations nor the clocks. */
export function Messages({ night }: { night: boolean }) {
  return (
    <Toaster
      theme={night ? "dark" : "light"}
      style={{ fontFamily: "inherit" }}
      position="bottom-right"
      duration={STAYS_MS}
      visibleToasts={1}
      offset={{ bottom: 66, right: 12 }}
      mobileOffset={{ bottom: 118, left: 8, right: 8 }}
    />
  );
}

/** Says something in passing; one with an undo is kept in the list of what was said lately. */
export function say(kind: Kind, message: string, options?: Parameters<typeof toast>[1]): void {
  const with_ = kept(message, options);
  if (kind === "plain") toast(message, with_);
  else toast[kind](message, with_);
}
