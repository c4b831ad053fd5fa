import { DEFECT_KINDS, type DefectSignature } from "./kinds";

export interface DefectFacts extends DefectSignature {
  /** What it looks and feels like. */
  look: string;
  /** How to tell it from what it is taken for. */
  tell: string;
  /** What to measure, in order. */
  measure: string;
  ifIgnored: string;
}

/** What goes wrong with clear, as the trade tells it apart. Common practice. */
export const DEFECTS = {
  run: {
    ...DEFECT_KINDS.run,
    look: "A drop that has slid and left a tail",
    tell: "It has a thick lower end; a sag is a broad fold without one",
    measure: "height, width and length; the clear beside it",
    ifIgnored: "Stays; soft inside for days and cracks first",
  },
  sag: {
    ...DEFECT_KINDS.sag,
    look: "A broad fold where the film has slid",
    tell: "Broad and without a drop at its end; a curtain is several side by side",
    measure: "height and length; the clear beside it",
    ifIgnored: "Stays visible from the side",
  },
  curtain: {
    ...DEFECT_KINDS.curtain,
    look: "Folds side by side along an edge or body line",
    tell: "Several sags in a row, along one pass",
    measure: "height, length; the clear beside it",
    ifIgnored: "Stays; the film above it is thin",
  },
  peel: {
    ...DEFECT_KINDS.peel,
    look: "Orange peel: waves of some millimetres that break up a light tube",
    tell: "Smooth waves; dry spray is grainy and dull",
    measure: "peak to valley; the neighbour beside it",
    ifIgnored: "Only looks: a panel that does not match",
  },
  peelFine: {
    ...DEFECT_KINDS.peelFine,
    look: "Fine waves below a millimetre, a frosty reflection",
    tell: "The tube stays straight but its edge is fuzzy",
    measure: "peak to valley",
    ifIgnored: "Only looks",
  },
  drySpray: {
    ...DEFECT_KINDS.drySpray,
    look: "Grainy and dull, rough to the hand",
    tell: "Feels like fine paper; peel is smooth to the hand",
    measure: "how far it reaches; the clear there",
    ifIgnored: "Thin film that weathers first",
  },
  nib: {
    ...DEFECT_KINDS.nib,
    look: "A speck under or in the clear that can be felt",
    tell: "Round or sharp; a fibre is long, a pop has a hole",
    measure: "size and height; how many",
    ifIgnored: "Only looks",
  },
  fibre: {
    ...DEFECT_KINDS.fibre,
    look: "A hair or thread in the clear",
    tell: "Long and bent",
    measure: "length; how many",
    ifIgnored: "Only looks; its end may lift",
  },
  crater: {
    ...DEFECT_KINDS.crater,
    look: "A round dish with a raised rim, the layer below showing in it",
    tell: "A dish without a hole; a pop has a pinprick at its top",
    measure: "how many and where they gather",
    ifIgnored: "No clear at its bottom",
  },
  pop: {
    ...DEFECT_KINDS.pop,
    look: "Small blisters with a pinprick on top, where film is thick",
    tell: "Comes with heat or hours later, in thick places; pinholes follow filler",
    measure: "the film there; how many",
    ifIgnored: "Water gets in through the holes",
  },
  pinhole: {
    ...DEFECT_KINDS.pinhole,
    look: "Fine holes over filler or primer",
    tell: "They follow the repair below, not the thickness of the clear",
    measure: "where they gather; what lies below",
    ifIgnored: "Water gets in",
  },
  dieBack: {
    ...DEFECT_KINDS.dieBack,
    look: "Gloss that was there and is gone a day later; edges of repairs show",
    tell: "Came with time; haze came with the polish",
    measure: "gloss, and where it dropped",
    ifIgnored: "It goes on for weeks",
  },
  microFoam: {
    ...DEFECT_KINDS.microFoam,
    look: "Very fine bubbles all through the film, milky against the light",
    tell: "Everywhere alike and without holes on top",
    measure: "nothing: look with a glass",
    ifIgnored: "Milky, and weak",
  },
  blush: {
    ...DEFECT_KINDS.blush,
    look: "A white veil in fresh clear on a damp day",
    tell: "Even and white; die-back is dull, not white",
    measure: "air, part and humidity",
    ifIgnored: "Poor bond, early failure",
  },
  mottle: {
    ...DEFECT_KINDS.mottle,
    look: "Cloudy bands of different gloss along the passes",
    tell: "Follows the gun's path; a gloss patch does not",
    measure: "gloss in the bands",
    ifIgnored: "Only looks, but matte cannot be polished",
  },
  glossPatch: {
    ...DEFECT_KINDS.glossPatch,
    look: "A place that shines more than the rest",
    tell: "A patch, not bands",
    measure: "gloss there and beside it; film",
    ifIgnored: "Only looks, but matte cannot be polished",
  },
  dryTexture: {
    ...DEFECT_KINDS.dryTexture,
    look: "Heavy peel all over, under a wet-looking last coat",
    tell: "The last coat is full and still carries it",
    measure: "peak to valley",
    ifIgnored: "Only looks",
  },
  scratches: {
    ...DEFECT_KINDS.scratches,
    look: "Sanding marks under the clear",
    tell: "They lie below and cannot be felt; trails lie on top",
    measure: "which grit fits the marks",
    ifIgnored: "They swell for weeks",
  },
  edgeLift: {
    ...DEFECT_KINDS.edgeLift,
    look: "Clear that lifts along a tape edge or repair edge",
    tell: "Along a line where tape or old clear ended",
    measure: "how far it goes back until it is sound",
    ifIgnored: "Peels on",
  },
  peeling: {
    ...DEFECT_KINDS.peeling,
    look: "Clear that comes off in flakes",
    tell: "Comes off to the touch or with tape",
    measure: "how far it goes; what is on the back of a flake",
    ifIgnored: "Peels on",
  },
  haze: {
    ...DEFECT_KINDS.haze,
    look: "A veil after polishing, seen in sunlight",
    tell: "Came with the polish",
    measure: "gloss at 20°",
    ifIgnored: "Only looks",
  },
  trails: {
    ...DEFECT_KINDS.trails,
    look: "Bands or swirls that turn with the light",
    tell: "Seen in direct light only, after polishing",
    measure: "nothing: sun or a point of light",
    ifIgnored: "Only looks",
  },
  burn: {
    ...DEFECT_KINDS.burn,
    look: "A dull, wrinkled or yellowed place on an edge after polishing",
    tell: "On an edge or body line, where the pad stood",
    measure: "the clear beside it",
    ifIgnored: "Goes on as cut-through",
  },
  cutThrough: {
    ...DEFECT_KINDS.cutThrough,
    look: "Colour on the cloth, a dull spot with a ring",
    tell: "Pigment on the cloth",
    measure: "nothing more: stop",
    ifIgnored: "The base weathers away there",
  },
  softFilm: {
    ...DEFECT_KINDS.softFilm,
    look: "A nail leaves a mark after the cure it should have had",
    tell: "Soft everywhere; a thick run is soft only inside",
    measure: "hours, temperatures, age of the hardener",
    ifIgnored: "Marks, prints, no polish holds",
  },
  lostTexture: {
    ...DEFECT_KINDS.lostTexture,
    look: "Flatter or rougher than the panel beside it",
    tell: "Good in itself; wrong beside its neighbour",
    measure: "both panels' reflection",
    ifIgnored: "Only looks",
  },
} as const satisfies Record<string, DefectFacts>;
