/** Which of a job's two colours a part has; `both`: the line goes through it. */
export const PART_COLOURS = ["first", "second", "both"] as const;
export type PartColour = (typeof PART_COLOURS)[number];

/** How light falls on a colour: what decides whether a small difference at an edge is seen. */
export const PAINTS = { solid: "solid", effect: "metallic or pearl" } as const;
export type Paint = keyof typeof PAINTS;

/** A colour as it is shown, under its name. */
export interface Shade {
  name: string;
  css: string;
}

/** A job's colours beside its first one. */
export interface JobColours {
  /** A second colour of the vehicle; null: it has one. */
  second: Shade | null;
  /** Null: nobody has said. */
  paint: Paint | null;
}
export const ONE_COLOUR: JobColours = { second: null, paint: null };

interface Coloured {
  colourName: string;
  colourCss: string;
  colours: JobColours;
}

/** A job's colours, the first in front; one where it has one. */
export const shadesOf = ({ colourName, colourCss, colours }: Coloured): [Shade, ...Shade[]] => [
  { name: colourName, css: colourCss },
  ...(colours.second ? [colours.second] : []),
];

/** The colour of one of its panels; of one with both the first, named with the other. */
export function shadeOf(job: Coloured, colour: PartColour = "first"): Shade {
  const [first, second = first] = shadesOf(job);
  if (!job.colours.second || colour === "first") return first;
  return colour === "second" ? second : { name: [first.name, second.name].filter(Boolean).join(" and "), css: first.css };
}
