/** What any page may open over itself, in one file: messages and the working of a figure. */
export { Toaster, toast } from "sonner";
export { WorkingPopover } from "./working-popover";
