/** What the flow window draws and proposes beside its sentence: fetched after the page. */
export { LightTube } from "~/kit/panel/light-tube";
export { TextureRating } from "~/kit/panel/texture-rating";
export { FlowCoats } from "./flow-coats";
export { SweptMap } from "./swept-map";
export { Thinner } from "./thinner";
export { Margins, Proposal } from "./window-proposal";
