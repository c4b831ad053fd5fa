import type { ReleaseCheck, ReleasePoint, PointState } from "#core/judge/release-check";
import { show, showChance, showFilm, showWait, showWithUncertainty } from "#core/kernel/units/format";
import type { UnitPreferences } from "#core/kernel/units/quantities";
import { DEFECT_KINDS } from "#core/models/defects/kinds";
import { FAULTS } from "#core/models/defects/remedies";
import { EYE_COLOURS, EYE_LIGHTS } from "#core/record/kinds";
import { textureWords } from "~/kit/words/texture-words";

export const POINT_TAGS: Record<PointState, { tag: "good" | "caution" | "stop" | "open"; word: string }> = {
  good: { tag: "good", word: "good" },
  look: { tag: "caution", word: "look again" },
  against: { tag: "stop", word: "against it" },
  missing: { tag: "open", word: "nobody looked" },
};

/** The verdict as a sentence. */
export function releaseSentence({ verdict, points }: ReleaseCheck): { main: string; rest: string } {
  const of = (state: PointState) => points.filter((p) => p.state === state).map((p) => POINT_NAMES[p.what].toLowerCase());
  switch (verdict) {
    case "goes":
      return { main: "It goes out.", rest: "Everything was looked at, and nothing speaks against it." };
    case "look":
      return { main: "It may go out.", rest: `Look again: ${of("look").join(", ")}.` };
    case "stays":
      return { main: "Do not hand over:", rest: `${of("against").join(", ")} open.` };
    case "not known":
      return {
        main: "Not known yet.",
        rest: `Nobody looked at: ${of("missing").join(", ")}.${of("look").length > 0 ? ` Look again: ${of("look").join(", ")}.` : ""}`,
      };
  }
}

export const POINT_NAMES: Record<ReleasePoint["what"], string> = {
  coats: "Coats",
  cured: "Cure",
  film: "Film left",
  faults: "Faults",
  texture: "Texture",
  gloss: "Gloss",
  colour: "Colour",
  coverage: "Coverage",
};

/** What decides a point, in a line. */
export function pointWords(p: ReleasePoint, units: UnitPreferences): string {
  switch (p.what) {
    case "coats":
      return `${p.on} of ${p.of} are on`;
    case "cured":
      if (p.soft) return "marked as soft: it waits until a thumbnail leaves no print";
      return p.state === "good" ? "hard enough to be handled" : `soft for another ${showWait(p.left_s)}: prints, and no cover on it`;
    case "film": {
      const floor = `minimum ${showFilm(p.floor_m, units).text} ${units.film}`;
      if (p.clear_m === null || p.u_m === null)
        return p.state === "look" ? `by forecast alone, ${floor}` : `nothing read over clear, ${floor}`;
      const film = showWithUncertainty("film", p.clear_m, p.u_m, units);
      return `${film.text} ${film.unit} where it is thinnest${p.asSprayed ? ", as it was sprayed, not measured" : ""}, ${floor}`;
    }
    case "faults": {
      if (p.open.length === 0) return p.state === "missing" ? "nobody noted what he saw" : "none is open";
      const list = p.open.map((f) => `${f.count > 1 ? `${f.count} × ` : ""}${DEFECT_KINDS[f.kind].name.toLowerCase()}`).join(", ");
      const worst = p.open[0]!;
      return `${list}: rejected ${showChance(p.chance)}; at arm's length ${FAULTS[worst.kind].arm}, in the sun ${FAULTS[worst.kind].sun}`;
    }
    case "texture": {
      const pictures =
        p.pictures &&
        `${p.pictures.ratio.toFixed(2)} times as wavy as the panel beside by two pictures (${p.pictures.low.toFixed(2)} to ${p.pictures.high.toFixed(2)})`;
      if (p.part === null) return pictures ?? "not rated as it is";
      const own = `${p.part.toFixed(1)}, ${textureWords(p.part)}`;
      const rated =
        p.beside === null
          ? pictures || p.state !== "missing"
            ? own
            : `${own}; the panel beside is not rated`
          : `${own}; ${p.beside === 1 ? "show flat wants glass" : `the panel beside ${p.beside.toFixed(1)}`}`;
      return [rated, pictures].filter(Boolean).join("; ");
    }
    case "gloss": {
      if (p.part_GU === null) return "not read on the part";
      const own = `${show("gloss", p.part_GU, units, 1).text} GU at 60°`;
      if (p.wanted_GU === null) return p.state === "missing" ? `${own}; nothing to hold it against` : own;
      const against = { neighbour: "the panel beside", brief: "wanted", "other panel": "another panel of the job" }[p.from ?? "brief"];
      return `${own}, ${against} ${show("gloss", p.wanted_GU, units, 1).text}${p.state === "against" ? ": seen side by side" : ""}`;
    }
    case "colour":
      return p.colour === null || p.light === null
        ? "not held beside the neighbour"
        : `${EYE_COLOURS[p.colour as keyof typeof EYE_COLOURS]} in ${EYE_LIGHTS[p.light]}${p.state === "look" && p.colour === "same" ? "; daylight decides" : ""}`;
    case "coverage":
      return p.covered === null || p.light === null
        ? "not looked at"
        : `${p.covered ? "covered" : "not covered"} in ${EYE_LIGHTS[p.light]}`;
  }
}
