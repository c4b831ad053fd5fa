import { later } from "~/kit/root/later";

/** What any page may open over itself: fetched with the first of it, or when idle. */
export const inPassing = later(() => import("./in-passing"));
