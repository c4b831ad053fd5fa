import { type BenchCoat, type BenchSetting, benchTextures } from "#core/practice/bench-setting";
import type { Level } from "#core/practice/exercises";
import type { ByFilm } from "#core/models/panel-film/by-film";
import type { Look, Rgb } from "#core/models/panel-film/seen";

/** Colours as this screen's theme has them, in red, green and blue. */
function coloursOf(names: readonly string[]): Rgb[] {
  const style = getComputedStyle(document.documentElement);
  const canvas = document.createElement("canvas");
  canvas.width = canvas.height = 1;
  const draw = canvas.getContext("2d", { willReadFrequently: true })!;
  return names.map((name) => {
    draw.fillStyle = style.getPropertyValue(name).trim();
    draw.fillRect(0, 0, 1, 1);
    const [r, g, b] = draw.getImageData(0, 0, 1, 1).data;
    return [r!, g!, b!];
  });
}

const TUBES = [0.2, 0.62] as const;
/** A texture of 1 (glass) to 5 (heavy) as rms slope of the set surface, for the eye: a default of ours. */
const slopeOf = (texture: number): number => 0.0009 * Math.max(0.5, texture) ** 1.3;

/** What the film of a bench is held against: texture of each coat by its film and wait, and the film planned up to each. */
export interface LookedAt {
  textures: readonly ByFilm[];
  planned_m: readonly number[];
}
export function lookedAt(setting: BenchSetting, wanted: readonly BenchCoat[]): LookedAt {
  let sum_m = 0;
  return { textures: benchTextures(setting), planned_m: wanted.map((c) => (sum_m += c.dry_m)) };
}

/** The same table with something made of each figure. */
const each = (table: ByFilm, of: (figure: number) => number): ByFilm => ({ ...table, figures: table.figures.map((row) => row.map(of)) });

/** How the bench is looked at on a level: its film in colours where that is allowed, else two light tubes. */
export function lookOf(level: Level | "film", { textures, planned_m }: LookedAt): Look {
  const [bare, coated, wet, light] = coloursOf(["--bench-bare", "--bench-coated", "--bench-wet", "--bench-light"]);
  const ramp = level === "guided" || level === "film";
  return {
    bare: bare!,
    coated: coated!,
    wet: wet!,
    light: light!,
    ramp: ramp ? { colours: coloursOf(Array.from({ length: 8 }, (_, k) => `--ramp-${k}`)), most_m: 1.6 * planned_m.at(-1)! } : null,
    tubes: TUBES,
    lean: -0.035,
    setSlope: textures.map((table) => each(table, slopeOf)),
    planned_m,
  };
}

/** Where somebody holds the light who looks a hard panel over: how far along it, and whether it stands. */
export interface HeldLight {
  at: number;
  upright: boolean;
}
/** Along the panel slopes show several times as far; the fine texture of a set coat does so less to an eye that looks for runs. Defaults of ours, for the eye. */
const ALONG = { grazing: 10, texture: 0.03 } as const;
/** A hard panel looked over along one light, which can be moved over it. */
export function lightLook({ at, upright }: HeldLight, of: LookedAt): Look {
  const look = lookOf("booth", of);
  return {
    ...look,
    tubes: [at],
    lean: 0,
    upright,
    grazing: ALONG.grazing,
    setSlope: look.setSlope.map((table) => each(table, (slope) => ALONG.texture * slope)),
  };
}
