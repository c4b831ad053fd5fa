/** Of the head of a panel's pages what is drawn on the server and moved later: one file, fetched after what the page itself asks. */
export { FilmSection } from "~/kit/panel/film-section";
export { FilmStrip } from "~/kit/panel/film-strip";
export { OtherPanels, PanelMenu } from "./panel-menu";
