/** What booth view draws beside its presses: fetched after the page, in one file. */
export { BoothDial } from "./booth-dial";
export { BoothPath } from "./booth-path";
