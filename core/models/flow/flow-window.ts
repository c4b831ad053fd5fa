import { requireInteger, requireNumber } from "../../kernel/guard";
import { deposit } from "../spray/deposit";
import { type Ripple, patternRipple } from "../spray/pattern-ripple";
import { FLOW } from "./constants";
import { emptyFluidity } from "./fluidity";
import { type FlowCoat, type FlowConditions, type FlowResult, type ShopFactors, layCoats, simulateCoats } from "./simulate-coats";
import { waveNumbers } from "./wave-numbers";

/** What may be swept: each says how it changes the conditions and the coat that is about to be sprayed. */
export const FLOW_AXES = {
  distance: { name: "gun distance", quantity: "length", from: 0.1, to: 0.28 },
  speed: { name: "hand speed", quantity: "speed", from: 0.18, to: 0.7 },
  fluid: { name: "fluid", quantity: "fluidRate", from: 120e-6 / 60, to: 400e-6 / 60 },
  pressure: { name: "pressure at the gun", quantity: "pressure", from: 1.1e5, to: 3e5 },
  air: { name: "air", quantity: "temperature", from: 285.15, to: 308.15 },
  wet: { name: "wet film of this coat", quantity: "film", from: 20e-6, to: 110e-6 },
  flash: { name: "flash before this coat", quantity: "duration", from: 0, to: 2400 },
} as const;
export type FlowAxis = keyof typeof FLOW_AXES;

/** Pairs that say most, in the painter's words. */
export const FLOW_PAIRS = [
  { x: "distance", y: "speed" },
  { x: "air", y: "wet" },
  { x: "pressure", y: "fluid" },
  { x: "flash", y: "wet" },
] as const satisfies readonly { x: FlowAxis; y: FlowAxis }[];

export interface FlowSetting {
  conditions: FlowConditions;
  /** Coats from the first; the last is the one about to be sprayed. */
  coats: readonly FlowCoat[];
  shop?: ShopFactors;
}

/** Moves one figure of a setting. The wet film is reached by hand speed, as a painter does. @throws RangeError */
export function moveSetting(s: FlowSetting, axis: FlowAxis, value: number, wetNow_m: number): FlowSetting {
  requireNumber(axis, value);
  const last = s.coats.length - 1;
  const gun = (change: Partial<FlowCoat["gun"]>): FlowSetting => ({
    ...s,
    coats: s.coats.map((c, i) => (i === last ? { ...c, gun: { ...c.gun, ...change } } : c)),
  });
  switch (axis) {
    case "distance":
      return gun({ distance_m: value });
    case "speed":
      return gun({ handSpeed_m_s: value });
    case "fluid":
      return gun({ fluidRate_m3_s: value });
    case "pressure":
      return gun({ pressure_Pa: value });
    case "air":
      return { ...s, conditions: { ...s.conditions, air_K: value } };
    case "wet":
      return gun({ handSpeed_m_s: Math.min(3, Math.max(0.05, (s.coats[last]!.gun.handSpeed_m_s * wetNow_m) / value)) });
    case "flash":
      return last === 0 ? s : { ...s, coats: s.coats.map((c, i) => (i === last - 1 ? { ...c, flash_s: value } : c)) };
  }
}

/** Where a setting stands on an axis. */
export function settingAt(s: FlowSetting, axis: FlowAxis, wetNow_m: number): number {
  const { gun } = s.coats.at(-1)!;
  switch (axis) {
    case "distance":
      return gun.distance_m;
    case "speed":
      return gun.handSpeed_m_s;
    case "fluid":
      return gun.fluidRate_m3_s;
    case "pressure":
      return gun.pressure_Pa;
    case "air":
      return s.conditions.air_K;
    case "wet":
      return wetNow_m;
    case "flash":
      return s.coats.at(-2)?.flash_s ?? 0;
  }
}

/** What a place of the window does: the painter's words. */
export const FLOW_CLASSES = ["runs", "lean", "flows", "peels"] as const;
export type FlowClass = (typeof FLOW_CLASSES)[number];

/** Runs above 22 mm of sag, leans above 11; else peels when the texture is above the limit or the spray lies dry. */
export function flowClass(r: Pick<FlowResult, "sagLocal_m" | "texture" | "drySpray">, textureLimit: number): FlowClass {
  if (r.sagLocal_m > FLOW.sagRun_m) return "runs";
  if (r.drySpray || r.texture > textureLimit) return "peels";
  return r.sagLocal_m > FLOW.sagRisk_m ? "lean" : "flows";
}

export interface FlowWindow {
  n: number;
  x: Float64Array;
  y: Float64Array;
  /** Row-major, length n*n, y outer: sag in m, texture 1…5, and the longest wave that still levels, m. */
  sag_m: Float32Array;
  texture: Float32Array;
  levels_m: Float32Array;
}

const SWEEP_NODES = waveNumbers(8);

/**
 * Sag and texture over two axes, n × n. Ripple is worked out once; everything else is the whole model.
 * @throws RangeError for two equal axes or n outside 2…200
 */
export function flowWindow(
  setting: FlowSetting,
  { xAxis, yAxis, n = 60 }: { xAxis: FlowAxis; yAxis: FlowAxis; n?: number },
  onProgress?: (share: number) => void,
): FlowWindow {
  requireInteger("n", n, { min: 2, max: 200 });
  if (xAxis === yAxis) throw new RangeError(`yAxis must differ from xAxis, got ${yAxis}`);
  const span = (a: FlowAxis) =>
    Float64Array.from({ length: n }, (_, i) => FLOW_AXES[a].from + ((FLOW_AXES[a].to - FLOW_AXES[a].from) * i) / (n - 1));
  const x = span(xAxis);
  const y = span(yAxis);
  const ripple = new Map<number, Ripple>();
  for (const c of setting.coats) ripple.set(c.gun.overlap, patternRipple(c.gun.overlap, setting.conditions.fanBeta));
  const options = {
    nodes: SWEEP_NODES,
    ripple,
    scratch: [emptyFluidity(), emptyFluidity()] as const,
    ...(setting.shop ? { shop: setting.shop } : {}),
  };
  const out: FlowWindow = { n, x, y, sag_m: new Float32Array(n * n), texture: new Float32Array(n * n), levels_m: new Float32Array(n * n) };
  // Whatever moves the earlier coats too (air, flash) is the outer loop, so that they are laid once for each of its values.
  const deep = (a: FlowAxis) => a === "air" || a === "flash";
  const outerIsX = deep(xAxis) || yAxis === "wet";
  const [outer, inner] = outerIsX ? [x, y] : [y, x];
  const [outerAxis, innerAxis] = outerIsX ? [xAxis, yAxis] : [yAxis, xAxis];
  for (let a = 0; a < n; a++) {
    const moved = moveSetting(setting, outerAxis, outer[a]!, 0);
    const earlier = moved.coats.slice(0, -1);
    const laid = earlier.length > 0 && !deep(innerAxis) ? layCoats(moved.conditions, earlier, options) : null;
    const wet_m = innerAxis === "wet" ? wetOf(moved) : 0;
    for (let b = 0; b < n; b++) {
      const cell = moveSetting(moved, innerAxis, inner[b]!, wet_m);
      const r = simulateCoats(cell.conditions, cell.coats, laid ? { ...options, laid } : options);
      const at = outerIsX ? b * n + a : a * n + b;
      out.sag_m[at] = r.sagLocal_m;
      out.texture[at] = r.texture;
      out.levels_m[at] = r.coats.at(-1)!.levelWavelength_m;
    }
    onProgress?.((a + 1) / n);
  }
  return out;
}

/** Wet film of the coat about to be sprayed, as it lands. */
export function wetOf(s: FlowSetting): number {
  return deposit(s.coats.at(-1)!.gun, { ...s.conditions, shopFactor: s.shop?.film ?? 1 }).wet_m;
}

const BETWEEN = { overlap: [0, 0.9], reducer: [0, 1] } as const;
const within = (value: number, [least, most]: readonly [number, number]) => Math.min(most, Math.max(least, value));

/** A coat out of the same hand as another whose setting was moved: its own is moved as much. */
export function movedWith(coat: FlowCoat, from: FlowCoat, to: FlowCoat): FlowCoat {
  const { gun } = coat;
  return {
    ...coat,
    ...(coat.reducer === undefined ? {} : { reducer: within(coat.reducer + (to.reducer ?? 0) - (from.reducer ?? 0), BETWEEN.reducer) }),
    gun: {
      ...gun,
      fluidRate_m3_s: gun.fluidRate_m3_s * (to.gun.fluidRate_m3_s / from.gun.fluidRate_m3_s),
      pressure_Pa: gun.pressure_Pa + to.gun.pressure_Pa - from.gun.pressure_Pa,
      distance_m: gun.distance_m * (to.gun.distance_m / from.gun.distance_m),
      handSpeed_m_s: gun.handSpeed_m_s * (to.gun.handSpeed_m_s / from.gun.handSpeed_m_s),
      overlap: within(gun.overlap + to.gun.overlap - from.gun.overlap, BETWEEN.overlap),
    },
  };
}
