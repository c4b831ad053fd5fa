/** What can be seen in the job's record or asked of the painter, each a plain yes or no. */
export interface Observation {
  /** How often it is so when nothing is wrong. */
  usual: number;
  /** In words when it is so, and when it is not. */
  yes: string;
  no: string;
  /** Asked of the painter; null: only the record tells. */
  ask: string | null;
}

export const OBSERVATIONS = {
  // By the record
  settingsRun: { usual: 0.12, yes: "the settings lie where it runs", no: "the settings do not run by the model", ask: null },
  settingsPeel: { usual: 0.12, yes: "the settings lie where it peels", no: "the settings do not peel by the model", ask: null },
  flashShort: {
    usual: 0.12,
    yes: "a flash was shorter than the sheet's least",
    no: "every flash was long enough",
    ask: "Was the next coat put on before the last had flashed?",
  },
  flashLong: {
    usual: 0.12,
    yes: "a flash was longer than the sheet's most",
    no: "no flash was too long",
    ask: "Had the first coat dried before the next?",
  },
  hot: { usual: 0.15, yes: "it was hot in the booth", no: "it was not hot in the booth", ask: "Was it above 27 °C in the booth?" },
  cold: { usual: 0.12, yes: "part or air was cold", no: "part and air were warm enough", ask: "Was the part or the booth cold?" },
  coldMaterial: {
    usual: 0.1,
    yes: "the material was cold",
    no: "the material was at temperature",
    ask: "Did the material come from a cold store?",
  },
  damp: {
    usual: 0.1,
    yes: "it was damp or near the dew point",
    no: "it was dry enough",
    ask: "Was it a damp day, or did it cool down overnight?",
  },
  fastHardener: { usual: 0.2, yes: "the hardener was fast", no: "the hardener was not fast", ask: "Was the hardener a fast one?" },
  far: {
    usual: 0.12,
    yes: "the gun was too far away",
    no: "the gun was not too far away",
    ask: "Was the gun more than 22 cm away, or the panel hard to reach?",
  },
  close: {
    usual: 0.12,
    yes: "the gun was too close",
    no: "the gun was not too close",
    ask: "Was the gun closer than 13 cm, with no faster hand?",
  },
  slow: {
    usual: 0.12,
    yes: "the hand was too slow",
    no: "the hand was not too slow",
    ask: "Was the hand slow there, or did it turn there?",
  },
  quick: { usual: 0.12, yes: "the hand was too fast", no: "the hand was not too fast", ask: "Was the hand fast there?" },
  lowPressure: {
    usual: 0.12,
    yes: "pressure at the gun was low",
    no: "the pressure at the gun was enough",
    ask: "Did another gun or tool draw air at the same time?",
  },
  thickCoat: { usual: 0.15, yes: "coats were thicker than the sheet wants", no: "coats were within the sheet", ask: null },
  thinCoat: { usual: 0.12, yes: "coats were thinner than the sheet wants", no: "coats were not thin", ask: null },
  overReduced: {
    usual: 0.08,
    yes: "it was thinned beyond the sheet",
    no: "it was not thinned beyond the sheet",
    ask: "Was it thinned beyond the sheet?",
  },
  untacked: { usual: 0.15, yes: "it was not tacked", no: "it was tacked", ask: "Was the panel left untacked before clear?" },
  unclean: {
    usual: 0.1,
    yes: "it was not cleaned twice",
    no: "it was cleaned twice",
    ask: "Was a cleaner left out, or wiped before it was dry?",
  },
  ungrounded: { usual: 0.2, yes: "the part was not grounded", no: "the part was grounded", ask: "Is it plastic, or was it not grounded?" },
  looseClothing: {
    usual: 0.15,
    yes: "clothing was not lint-free",
    no: "clothing was lint-free",
    ask: "Were the sleeves fluffy, or was there no hood?",
  },
  dustyBooth: {
    usual: 0.15,
    yes: "the booth was not looked after",
    no: "the booth had run and its floor was wet",
    ask: "Are the filters old, or was the floor dry?",
  },
  poorLight: { usual: 0.1, yes: "light was poor there", no: "there was light on every face", ask: "Was it dark there?" },
  oldHardener: {
    usual: 0.06,
    yes: "the hardener had been open too long",
    no: "the hardener was fresh",
    ask: "Has the hardener been open for more than two weeks?",
  },
  wrongRatio: {
    usual: 0.04,
    yes: "the pour was off the ratio",
    no: "the pour kept the ratio",
    ask: "Could the hardener have been measured wrong?",
  },
  coarseBelow: {
    usual: 0.12,
    yes: "the last grit below was coarser than P600",
    no: "the last grit below was fine enough",
    ask: "Was the last paper below coarser than P600?",
  },
  baseOld: {
    usual: 0.08,
    yes: "the base was more than a day old and not scuffed",
    no: "the base was fresh or scuffed",
    ask: "Was the base more than a day old, and not scuffed?",
  },
  heatSoon: {
    usual: 0.1,
    yes: "heat came too soon after the last coat",
    no: "it had purged before heat",
    ask: "Did heat come within a quarter of an hour of the last coat?",
  },
  coolCure: {
    usual: 0.1,
    yes: "it has not had its cure",
    no: "it has had its cure",
    ask: "Did it stand in the cold, or was the bake cut short?",
  },
  forcedMatte: { usual: 0.15, yes: "the matte was baked", no: "the matte was air-dried", ask: "Was the matte forced dry?" },
  upright: { usual: 0.6, yes: "the panel stood upright", no: "the panel lay", ask: null },
  // Asked only
  edgePlace: {
    usual: 0.25,
    yes: "it lies along an edge or body line",
    no: "it does not follow an edge",
    ask: "Is it along an edge, a body line or a corner?",
  },
  onePlace: { usual: 0.4, yes: "it is in one place", no: "it is all over", ask: "Is it in one place rather than all over?" },
  overRepair: {
    usual: 0.15,
    yes: "it follows the repair below",
    no: "it does not follow a repair",
    ask: "Is it only over filler or primer?",
  },
  topEdge: {
    usual: 0.12,
    yes: "it is at the top, hard to reach",
    no: "it is not where it was hard to reach",
    ask: "Is it at the top or in the middle of a big face, hard to reach?",
  },
  extraPass: { usual: 0.1, yes: "it was given an extra pass", no: "it had no extra pass", ask: "Was that place gone over once more?" },
  shaken: { usual: 0.1, yes: "the mix was shaken", no: "the mix was stirred", ask: "Was the mix shaken?" },
  siliconeNear: {
    usual: 0.06,
    yes: "polish or silicone was about",
    no: "no polish or silicone was about",
    ask: "Was polish, spray lubricant or silicone used near it?",
  },
  wetAir: {
    usual: 0.06,
    yes: "water or oil came out of the air line",
    no: "the air line was dry",
    ask: "Does a cloth held to the air line get wet or oily?",
  },
  nextDay: { usual: 0.2, yes: "it came a day later", no: "it was there at once", ask: "Did it come hours or a day later?" },
  baseColour: {
    usual: 0.2,
    yes: "the specks have the base's colour",
    no: "the specks do not have the base's colour",
    ask: "Are the specks the colour of the base?",
  },
  unstrained: { usual: 0.1, yes: "the mix was not strained", no: "the mix was strained", ask: "Was the mix poured without a strainer?" },
  gapDust: {
    usual: 0.12,
    yes: "it gathers beside gaps and masking",
    no: "it does not gather at gaps",
    ask: "Does it gather beside gaps, seams or masking?",
  },
  smoothBelow: { usual: 0.6, yes: "it was smooth below", no: "it was rough below", ask: "Was the base smooth before clear?" },
  roughHand: { usual: 0.2, yes: "it is rough to the hand", no: "it is smooth to the hand", ask: "Is it rough to the hand?" },
  bands: { usual: 0.2, yes: "it follows the gun's passes", no: "it does not follow the passes", ask: "Are there bands along the passes?" },
  shinyBack: {
    usual: 0.1,
    yes: "the back of a flake is shiny",
    no: "the back of a flake is dull",
    ask: "Is the back of a flake, or the place below it, shiny?",
  },
  afterPolish: {
    usual: 0.2,
    yes: "it came with the polish",
    no: "it was there before polishing",
    ask: "Did it come with sanding or polishing?",
  },
  woolPad: {
    usual: 0.3,
    yes: "a hard or dirty pad was used last",
    no: "a soft clean pad was used last",
    ask: "Was the last pad hard, dry or dirty?",
  },
  softBelow: {
    usual: 0.1,
    yes: "soft or plastic stuff lies below, without a barrier",
    no: "what lies below is sound and sealed",
    ask: "Is it over plastic, soft primer or paint that a solvent wipe softens?",
  },
  overOldClear: {
    usual: 0.12,
    yes: "it is only where old clear lies below",
    no: "it does not follow old clear",
    ask: "Is it only where old clear lies below?",
  },
  shortBlend: {
    usual: 0.15,
    yes: "the colour ends close to the repair",
    no: "the colour was blended far out",
    ask: "Does the colour end within a hand of the repair?",
  },
  fewBase: {
    usual: 0.15,
    yes: "coverage was not looked at under a strong light",
    no: "coverage was looked at under a strong light",
    ask: "Was it cleared without looking at coverage under a strong light?",
  },
  noCard: {
    usual: 0.2,
    yes: "no card was held beside the neighbour",
    no: "a card was held beside the neighbour",
    ask: "Was it sprayed without a card beside the neighbour?",
  },
  touchedSoft: {
    usual: 0.12,
    yes: "something lay on it, or touched it, while it was soft",
    no: "nothing touched it while it was soft",
    ask: "Did something lie on it, or a wet glove touch it, while it was soft?",
  },
  gotWet: {
    usual: 0.12,
    yes: "water stood on it while it was fresh",
    no: "no water stood on it",
    ask: "Did rain, dew or a wash reach it in its first days?",
  },
  openMask: {
    usual: 0.15,
    yes: "neighbours were left open or poorly covered",
    no: "neighbours were covered close",
    ask: "Were the neighbours left open, or covered with a loose sheet?",
  },
} as const satisfies Record<string, Observation>;
export type ObservationId = keyof typeof OBSERVATIONS;
export const OBSERVATION_IDS = Object.keys(OBSERVATIONS) as [ObservationId, ...ObservationId[]];
