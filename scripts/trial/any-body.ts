import { z } from "zod";
import { type EntryKind, LEDGER_BODIES } from "#core/record/bodies";
import { pickBy } from "./harness";

type Schema = Record<string, unknown> & {
  type?: string | string[];
  anyOf?: Schema[];
  enum?: unknown[];
  const?: unknown;
  items?: Schema;
  properties?: Record<string, Schema>;
  required?: string[];
  additionalProperties?: Schema | false;
  propertyNames?: Schema;
  minimum?: number;
  maximum?: number;
  exclusiveMinimum?: number;
  exclusiveMaximum?: number;
  minItems?: number;
  maxItems?: number;
  minLength?: number;
  maxLength?: number;
};

const schemas = new Map<EntryKind, Schema>();
const schemaOf = (kind: EntryKind): Schema => {
  const known = schemas.get(kind) ?? (z.toJSONSchema(LEDGER_BODIES[kind], { io: "input", unrepresentable: "any" }) as Schema);
  schemas.set(kind, known);
  return known;
};

/** Text somebody may have typed or pasted; cut to what its field takes. */
const TEXTS = [
  "1",
  "2",
  "3",
  "gauge 1",
  "x",
  "",
  "left edge",
  "0",
  "constructor",
  "__proto__",
  "💧",
  "<b>",
  "a b",
  "é".repeat(80),
  "9".repeat(300),
];

/**
 * A body of a kind that the ledger's own schema takes: every number between its bounds, often at them, of any size where it has none. What comes out
 * is only as far from the usual as the door lets it be.
 */
export function anyBody(kind: EntryKind, random: () => number): unknown {
  const pick = pickBy(random);
  const number = (s: Schema): number => {
    const low = s.minimum ?? s.exclusiveMinimum ?? -1e12;
    const high = s.maximum ?? s.exclusiveMaximum ?? 1e12;
    const whole = s.type === "integer";
    const step = whole ? 1 : Number.EPSILON * Math.max(1e-12, Math.abs(low), Math.abs(high));
    const least = s.exclusiveMinimum === undefined ? low : low + step;
    const most = s.exclusiveMaximum === undefined ? high : high - step;
    const how = random();
    const span = most - least;
    const value =
      how < 0.15
        ? least
        : how < 0.3
          ? most
          : how < 0.65 && least >= 0
            ? least + span * 10 ** (-12 * random()) // of any size
            : least + span * random();
    return whole ? Math.max(Math.ceil(least), Math.min(Math.floor(most), Math.round(value))) : Math.max(least, Math.min(most, value));
  };
  const value = (s: Schema): unknown => {
    if (s.anyOf) return value(pick(s.anyOf));
    if ("const" in s) return s.const;
    if (s.enum) return pick(s.enum);
    if (Array.isArray(s.type)) return value({ ...s, type: pick(s.type) });
    switch (s.type) {
      case "null":
        return null;
      case "boolean":
        return random() < 0.5;
      case "integer":
      case "number":
        return number(s);
      case "string": {
        const text = pick(TEXTS).slice(0, s.maxLength ?? 400);
        return text.trim().length >= (s.minLength ?? 0) ? text : "x".repeat(s.minLength!);
      }
      case "array": {
        const least = s.minItems ?? 0;
        const count = random() < 0.05 ? Math.min(s.maxItems ?? 60, 60) : Math.min(s.maxItems ?? 8, least + Math.floor(4 * random()));
        return Array.from({ length: count }, () => value(s.items!));
      }
      case "object": {
        const given = Object.entries(s.properties ?? {}).filter(([key]) => s.required?.includes(key) || random() < 0.7);
        const made = Object.fromEntries(given.map(([key, of]) => [key, value(of)]));
        if (s.additionalProperties && random() < 0.7)
          for (let i = 0; i < 3; i++)
            made[s.propertyNames ? (value(s.propertyNames) as string) : pick(TEXTS).slice(0, 20)] = value(s.additionalProperties);
        return made;
      }
      default:
        throw new Error(`no value is known for ${JSON.stringify(s).slice(0, 200)}`);
    }
  };
  return value(schemaOf(kind));
}
