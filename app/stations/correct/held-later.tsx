import type { ComponentProps } from "react";
import { HeldLines } from "~/kit/panel/held-lines";

/** The lines in a file of their own, beside the plan that has them anyway. */
export default function HeldLater(props: ComponentProps<typeof HeldLines>) {
  return <HeldLines {...props} />;
}
