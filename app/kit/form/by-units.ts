import type { UnitPreferences } from "#core/kernel/units/quantities";

/** A form's schema for each choice of units, made once: making one costs more than reading a form with it. */
export function byUnits<S>(make: (units: UnitPreferences) => S): (units: UnitPreferences) => S {
  const made = new Map<string, S>();
  return (units) => {
    const { film, length, temperature, pressure, volume } = units;
    const key = [film, length, temperature, pressure, volume].join(" ");
    const schema = made.get(key) ?? make(units);
    made.set(key, schema);
    return schema;
  };
}
