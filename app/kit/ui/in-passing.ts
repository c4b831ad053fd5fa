/** What any page may open over itself, in one file: messages and the working of a figure. */
export { Messages, say } from "./messages";
export { WorkingPopover } from "./working-popover";
