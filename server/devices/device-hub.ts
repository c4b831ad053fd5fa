import { z } from "zod";
import { standInClimateProbe } from "#stand-ins/climate-probe";
import { type StandInScale, standInScale } from "#stand-ins/scale";

/** One line of the scale's stream, as a real bridge sends it and as the page receives it. */
export const scaleLine = z.object({ mass_kg: z.number().min(-10).max(100), stable: z.boolean().default(true) });
/** One line of a climate probe's bridge. */
export const climateLine = z.object({
  air_K: z.number().min(253).max(333),
  part_K: z.number().min(253).max(373).nullable().default(null),
  material_K: z.number().min(253).max(333).nullable().default(null),
  relativeHumidity: z.number().gt(0).max(1),
});
/** One reading of a film gauge's bridge. */
export const gaugeLine = z.object({ total_m: z.number().min(0).max(5e-3), device: z.string().trim().min(1).max(40).default("Film gauge") });
export interface GaugeReading {
  /** Counts the readings of this server's run: a reader asks for those after the last it has seen. */
  seq: number;
  device: string;
  total_m: number;
  at_ms: number;
}
export interface ScaleReading {
  device: string;
  simulated: boolean;
  mass_kg: number | null;
  stable: boolean;
  fault: string | null;
  at_ms: number;
}

/** A real device that has spoken this lately silences the stand-in. */
const REAL_FRESH_MS = 5000;

/** A climate is slower: a real line counts for so long. */
const CLIMATE_FRESH_MS = 10 * 60_000;

/** Readings of a film gauge kept for pages that ask late. */
const GAUGE_KEPT = 100;

/** Devices of one running server: the stand-in scale, and the last line of a real one where a bridge sends any. */
export interface DeviceHub {
  scale: StandInScale;
  scaleReading(now_ms: number): ScaleReading;
  /** A real bridge's line; the tare is taken here, so that any scale will do. */
  pushScale(line: z.infer<typeof scaleLine>, now_ms: number): void;
  tareScale(now_ms: number): void;
  climateReading(now_ms: number): { device: string; simulated: boolean; reading: z.infer<typeof climateLine> };
  pushClimate(line: z.infer<typeof climateLine>, now_ms: number): void;
  pushGauge(line: z.infer<typeof gaugeLine>, now_ms: number): void;
  /** Readings after a count, oldest first; the last hundred are kept. */
  gaugeAfter(seq: number): GaugeReading[];
  lastGaugeSeq(): number;
}

export function createDeviceHub(seed = 41): DeviceHub {
  const scale = standInScale({ seed });
  let real: { mass_kg: number; stable: boolean; at_ms: number } | null = null;
  let realTare_kg = 0;
  const probe = standInClimateProbe({ seed: seed + 1 });
  let climate: { line: z.infer<typeof climateLine>; at_ms: number } | null = null;
  const gauge: GaugeReading[] = [];
  let gaugeSeq = 0;
  const fresh = (now_ms: number) => (real && now_ms - real.at_ms < REAL_FRESH_MS ? real : null);
  return {
    scale,
    scaleReading(now_ms) {
      const own = fresh(now_ms);
      if (own)
        return { device: "Scale", simulated: false, mass_kg: own.mass_kg - realTare_kg, stable: own.stable, fault: null, at_ms: own.at_ms };
      const r = scale.read(now_ms);
      const common = { device: scale.name, simulated: true, at_ms: now_ms };
      return r.ok
        ? { ...common, mass_kg: r.mass_kg, stable: r.stable, fault: null }
        : { ...common, mass_kg: null, stable: false, fault: r.fault };
    },
    climateReading(now_ms) {
      return climate && now_ms - climate.at_ms < CLIMATE_FRESH_MS
        ? { device: "Climate probe", simulated: false, reading: climate.line }
        : { device: probe.name, simulated: true, reading: probe.read(now_ms) };
    },
    pushGauge({ device, total_m }, now_ms) {
      gauge.push({ seq: ++gaugeSeq, device, total_m, at_ms: now_ms });
      if (gauge.length > GAUGE_KEPT) gauge.shift();
    },
    gaugeAfter: (seq) => gauge.filter((r) => r.seq > seq),
    lastGaugeSeq: () => gaugeSeq,
    pushClimate(line, now_ms) {
      climate = { line, at_ms: now_ms };
    },
    pushScale(line, now_ms) {
      real = { ...line, at_ms: now_ms };
    },
    tareScale(now_ms) {
      const own = fresh(now_ms);
      if (own) realTare_kg = own.mass_kg;
      else scale.tare(now_ms);
    },
  };
}
