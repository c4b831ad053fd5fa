/** How a defect lies on the panel. */
export type Reach = "point" | "line" | "area";

export interface DefectSignature {
  name: string;
  reach: Reach;
  /** Sign it is drawn with: own line drawings, shared by what looks alike. */
  sign: "hang" | "ripple" | "grain" | "dot" | "thread" | "ring" | "bubbles" | "cloud" | "patch" | "lines" | "flake" | "swirl" | "hole";
}

/** What goes wrong with clear, by name and sign: all that a drawing needs. What each is, see the catalogue. */
export const DEFECT_KINDS = {
  run: { name: "Run", reach: "line", sign: "hang" },
  sag: { name: "Sag", reach: "area", sign: "hang" },
  curtain: { name: "Curtain", reach: "area", sign: "hang" },
  peel: { name: "Peel, coarse", reach: "area", sign: "ripple" },
  peelFine: { name: "Peel, fine", reach: "area", sign: "ripple" },
  drySpray: { name: "Dry spray", reach: "area", sign: "grain" },
  nib: { name: "Nib", reach: "point", sign: "dot" },
  fibre: { name: "Fibre", reach: "point", sign: "thread" },
  crater: { name: "Crater", reach: "point", sign: "ring" },
  pop: { name: "Solvent pop", reach: "area", sign: "bubbles" },
  pinhole: { name: "Pinholes", reach: "area", sign: "hole" },
  dieBack: { name: "Die-back", reach: "area", sign: "cloud" },
  microFoam: { name: "Micro-foam", reach: "area", sign: "bubbles" },
  blush: { name: "Blush", reach: "area", sign: "cloud" },
  mottle: { name: "Mottle in matte", reach: "area", sign: "cloud" },
  glossPatch: { name: "Gloss patch in matte", reach: "area", sign: "patch" },
  dryTexture: { name: "Dry-coat texture", reach: "area", sign: "ripple" },
  scratches: { name: "Scratches show through", reach: "area", sign: "lines" },
  edgeLift: { name: "Edge lift", reach: "line", sign: "flake" },
  peeling: { name: "Peeling", reach: "area", sign: "flake" },
  haze: { name: "Haze", reach: "area", sign: "swirl" },
  trails: { name: "Buffer trails", reach: "area", sign: "swirl" },
  burn: { name: "Burn", reach: "point", sign: "patch" },
  cutThrough: { name: "Cut-through", reach: "point", sign: "patch" },
  softFilm: { name: "Soft film", reach: "area", sign: "patch" },
  lostTexture: { name: "Texture does not match", reach: "area", sign: "ripple" },
  wrinkling: { name: "Wrinkling", reach: "area", sign: "flake" },
  halo: { name: "Halo, poor blend", reach: "area", sign: "cloud" },
  notCovered: { name: "Base not covered", reach: "area", sign: "patch" },
  colourOff: { name: "Colour off", reach: "area", sign: "patch" },
  solventMark: { name: "Solvent mark", reach: "point", sign: "patch" },
  dustInBase: { name: "Dust in the base", reach: "point", sign: "dot" },
  waterSpots: { name: "Water spots", reach: "area", sign: "ring" },
  overspray: { name: "Overspray on neighbours", reach: "area", sign: "grain" },
} as const satisfies Record<string, DefectSignature>;
export type DefectKind = keyof typeof DEFECT_KINDS;
export const DEFECT_IDS = Object.keys(DEFECT_KINDS) as [DefectKind, ...DefectKind[]];

/** Film that has slid: its size decides what can be done. */
export const isFold = (kind: DefectKind): boolean => DEFECT_KINDS[kind].sign === "hang";
/** Only a clear that is on, or was, has these; all others are seen on the base, the primer or the part as it came, too. */
const OF_CLEAR: readonly DefectKind[] = [
  "run",
  "sag",
  "curtain",
  "peel",
  "peelFine",
  "pop",
  "dieBack",
  "microFoam",
  "blush",
  "mottle",
  "glossPatch",
  "dryTexture",
  "haze",
  "trails",
  "burn",
  "cutThrough",
  "softFilm",
  "lostTexture",
];
export const ofClearAlone = (kind: DefectKind): boolean => OF_CLEAR.includes(kind);
/** What has fallen or blown in: it says nothing of the settings. */
export const isInclusion = (kind: DefectKind): boolean => kind === "nib" || kind === "fibre";
