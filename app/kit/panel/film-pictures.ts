/** The film of a panel as the head of its pages shows it: fetched after what the page itself asks. */
export { FilmSection } from "./film-section";
export { FilmStrip } from "./film-strip";
