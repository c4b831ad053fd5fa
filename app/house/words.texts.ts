/** The trade's words as this program uses them, each with a drawing by its id (`word-drawing.tsx`). */
export const WORDS = [
  {
    id: "layers",
    name: "Base and clear",
    says: "The base gives the colour, the clear over it gloss and protection. After clear a gauge reads both as one.",
  },
  {
    id: "film",
    name: "Film, film build",
    says: "How thick a layer lies. A sheet of paper is about 100 µm; two coats of clear are about half of that.",
  },
  {
    id: "minimum",
    name: "Minimum clear",
    says: "So much clear has to stay when all sanding and polishing is done. The sheet says it, else the house.",
  },
  { id: "wetDry", name: "Wet film, dry film", says: "What lands on the panel, and what is left of it when the solvent has gone." },
  { id: "plusMinus", name: "±", says: "Nineteen times in twenty the true figure lies within it. No ±, no promise." },
  { id: "spot", name: "Spot", says: "A place on the panel that is read before clear and again after it: their difference is the clear." },
  {
    id: "flash",
    name: "Flash",
    says: "The wait between two coats, while solvent leaves. Too short and it is trapped, too long and the next coat wants scuffing.",
  },
  { id: "potLife", name: "Pot life", says: "How long a mix may be sprayed. After it the pot thickens and cures in the cup." },
  { id: "dewPoint", name: "Dew point", says: "A part colder than this grows wet by itself. Keep it 3 K warmer before any coat." },
  {
    id: "texture",
    name: "Texture, peel",
    says: "Waves that stay in the clear when it sets before it has levelled: fine ones of 1 to 3 mm, coarse ones beyond.",
  },
  { id: "leave", name: "Texture to leave", says: "What the panel beside it shows. Flatter than the neighbour is as wrong as coarser." },
  { id: "run", name: "Run, sag", says: "Clear that was too thick or too thin in the pot for its slope, and moved down before it set." },
  { id: "window", name: "Window", says: "Between too dry, which shows as peel, and too wet, which runs: where today's settings are safe." },
  {
    id: "nib",
    name: "Nib",
    says: "A grain of dust under the skin of the clear. The smallest repair is to plane it off and polish the place.",
  },
  { id: "crater", name: "Crater, fish-eye", says: "A round hole where something drove the clear apart: oil, silicone, wax." },
  { id: "pop", name: "Solvent pop", says: "Pin-prick holes: solvent that boiled out when the skin had closed already." },
  { id: "drySpray", name: "Dry spray", says: "Drops that were half dry before they landed: rough, and dull." },
  { id: "dieBack", name: "Die-back", says: "Gloss that fades in days: the film shrinks over scratches or trapped solvent." },
  {
    id: "cutThrough",
    name: "Cut-through",
    says: "Sanded through the clear into the colour. It cannot be polished away; it is sprayed again.",
  },
  { id: "steps", name: "Sanding steps", says: "Paper after paper, each finer, each until the marks of the one before are gone." },
  {
    id: "gloss",
    name: "Gloss, GU",
    says: "How much of a beam is thrown straight back. Fresh clear reads 85 to 95 GU at 60°, matte 5 to 40.",
  },
  {
    id: "matting",
    name: "Matting component",
    says: "What makes a clear matte: fine grains that roughen the skin. More of it, less gloss. Matte is never sanded or polished.",
  },
  { id: "flowCoat", name: "Flow coat", says: "Another clear over sanded clear, to fill and level it. Every coat more is film more." },
  { id: "tack", name: "Tack coat, wet coat", says: "A thin first coat that grips, and the full one over it that flows out." },
  {
    id: "predicted",
    name: "Measured, predicted",
    says: "Measured is what a gauge said. Predicted is what the models say of what you told; it always carries its ±.",
  },
] as const;
export type WordId = (typeof WORDS)[number]["id"];
