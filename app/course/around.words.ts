import type { Around } from "#core/course/around";
import { show, showWait } from "#core/kernel/units/format";
import type { UnitPreferences } from "#core/kernel/units/quantities";
import { cleanersFor } from "~/kit/words/cleaners";

/** At the gun, for a blend: common practice. */
const BLEND_PA = 1e5;
const percent = (share: number) => `${Math.round(1000 * share) / 10} %`;

/** What is done around a step, and why. Common practice. */
export function aroundWords(a: Around, units: UnitPreferences): { what: string; why: string } {
  switch (a.what) {
    case "look":
      return {
        what: "Look at the part as it came: dents, fit, both faces; mark its faults",
        why: "what nobody saw before paint is argued about after it",
      };
    case "plug":
      return { what: "Plug openings, fix a handle or wire", why: "they spit dirt and water into the wet coat" };
    case "clean":
      return {
        what: `Clean twice: ${cleanersFor(a.carrier).replace(/^[A-Z]/, (c) => c.toLowerCase())}`,
        why: "a fingerprint shows as a flake months later",
      };
    case "warmPart":
      return { what: `Let the part warm, about ${showWait(a.time_s)} yet`, why: "on a cold part it runs, and pops later" };
    case "warmMaterial":
      return { what: "Warm the material to booth temperature", why: "from a cold store it comes out in coarse drops" };
    case "booth":
      return { what: "Run the booth some minutes, wet the floor", why: "dust leaves or settles before the gun" };
    case "flush":
      return { what: `Flush the gun of ${a.of}: cap, needle, cup`, why: "what is left of it shows in the next coat" };
    case "pattern":
      return { what: "Try the pattern on paper", why: "paint dries in a nozzle that stood; a fan that was narrowed is set back" };
    case "stir":
      return { what: "Stir it: its pearl has settled", why: "else the first stroke is another colour than the last" };
    case "wetter":
      return {
        what: `A second, wetter pot: ${percent(a.more)} more reducer into what is left, ${percent(a.reducer)} in all`,
        why: "this way sprays this coat to flow; log it as a mix",
      };
    case "wetBed":
      return {
        what: "A wet bed first: blender alone over the blend area, low pressure",
        why: "on it dry drops of colour melt in; in light and metallic colours most",
      };
    case "blendOut": {
      const beyond = show("length", a.beyond_m, units);
      const low = show("pressure", BLEND_PA, units);
      return {
        what: `This coat ends about ${beyond.text} ${beyond.unit} beyond the base, turned out of the wrist, at about ${low.text} ${low.unit}`,
        why: "each a hand further: the eye finds a straight edge, not a slow one",
      };
    }
    case "colourEdge":
      return a.edge === "blend"
        ? {
            what: "Blend: full colour over the repair, each coat a hand wider, the last fading before the neighbour's far edge",
            why: "clear goes over all of both panels; wipe the blend area before the primed one",
          }
        : {
            what: "Butt: full colour to the edge and round it; look at it beside the neighbour in daylight before clear",
            why: "with nothing blended every difference shows at the gap",
          };
    case "leaveRunning":
      return { what: "Leave the booth running 15 to 20 min", why: "solvent leaves the film before heat closes it" };
    case "shade":
      return {
        what: "Out of the sun, and no condensation overnight",
        why: "sun right after the last coat wrinkles and pops it, dew ruins it",
      };
    case "runsLater":
      return {
        what: "Runs harden later than the rest: leave them a couple of days",
        why: "a run that is soft inside tears instead of being cut",
      };
  }
}
