import { glossOf } from "./gloss-read";
import type { EntryOf } from "../record/entry";
import type { PanelFacts } from "./derive-panel";

/** The panel beside, as it was found: what this one is matched to. */
export interface Neighbour {
  name: string | null;
  /** All layers together, as the gauge read them: mean of the readings. */
  film_m: number | null;
  /** Texture by eye, 1 glass … 5 heavy: the newest of the neighbour's own and a rating of the target. */
  rating: number | null;
  /** Gloss at 60°: the neighbour's own, else what was read to be matched. */
  gloss60_GU: number | null;
  photoId: string | null;
}

type Known = Pick<PanelFacts, "neighbours" | "texture"> & Partial<Pick<PanelFacts, "gloss">>;
const newest = <E extends { seq: number }>(...list: (E | undefined)[]): E | undefined =>
  list.reduce<E | undefined>((a, e) => (e && (!a || e.seq > a.seq) ? e : a), undefined);

/** The one neighbour that brief, options and verdict ask for; null where nobody looked at one. */
export function neighbourOf({ neighbours, texture, gloss = [] }: Known): Neighbour | null {
  const last = neighbours.at(-1);
  const rated = newest<EntryOf<"neighbour"> | EntryOf<"texture">>(
    neighbours.findLast((n) => n.body.rating !== null),
    texture.findLast((t) => t.body.role === "target"),
  );
  const read = newest<EntryOf<"neighbour"> | EntryOf<"gloss">>(
    neighbours.findLast((n) => n.body.gloss60_GU !== null),
    gloss.findLast((g) => g.body.role === "target" && g.body.angle === 60),
  );
  if (!last && !rated && !read) return null;
  const films = neighbours.findLast((n) => n.body.readings.length > 0)?.body.readings.map((r) => r.thickness_m) ?? [];
  return {
    name: last?.body.name ?? null,
    film_m: films.length > 0 ? films.reduce((a, m) => a + m, 0) / films.length : null,
    rating: rated?.body.rating ?? null,
    gloss60_GU: read ? (read.kind === "gloss" ? glossOf(read) : read.body.gloss60_GU) : null,
    photoId: neighbours.findLast((n) => n.body.photoId !== null)?.body.photoId ?? null,
  };
}

/** Gloss at 60° that a panel is to come to: what stands beside it, as read, else the brief's; null where nobody said. */
export function wantedGloss(known: Known, targetGloss_GU: number | null): { GU: number; from: "neighbour" | "brief" } | null {
  const beside = neighbourOf(known)?.gloss60_GU ?? null;
  if (beside !== null) return { GU: beside, from: "neighbour" };
  return targetGloss_GU === null ? null : { GU: targetGloss_GU, from: "brief" };
}
