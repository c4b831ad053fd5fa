/** Bounds for {@link requireNumber}; every bound is inclusive unless its name says otherwise. */
export interface Bounds {
  min?: number;
  max?: number;
  above?: number;
  below?: number;
}

/**
 * Returns the number when it is finite and inside the bounds.
 * @throws RangeError that names the argument, the value and what was expected.
 * @example requireNumber("thickness_m", 5e-5, { above: 0 }) // 5e-5
 */
export function requireNumber(name: string, value: number, bounds: Bounds = {}): number {
  if (isInside(value, bounds)) return value;
  const { min, max, above, below } = bounds;
  const wanted = [
    min === undefined ? "" : `>= ${min}`,
    above === undefined ? "" : `> ${above}`,
    max === undefined ? "" : `<= ${max}`,
    below === undefined ? "" : `< ${below}`,
  ].filter(Boolean);
  throw new RangeError(`${name} must be ${["finite", ...wanted].join(" and ")}, got ${value}`);
}

const isInside = (value: number, { min, max, above, below }: Bounds): boolean =>
  Number.isFinite(value) &&
  (min === undefined || value >= min) &&
  (above === undefined || value > above) &&
  (max === undefined || value <= max) &&
  (below === undefined || value < below);

/** Whole number inside the bounds. @throws RangeError */
export function requireInteger(name: string, value: number, bounds: Bounds = {}): number {
  requireNumber(name, value, bounds);
  if (!Number.isInteger(value)) throw new RangeError(`${name} must be a whole number, got ${value}`);
  return value;
}

/** Array of finite numbers with at least `minLength` members. @throws RangeError that names the index. */
export function requireNumbers(name: string, values: readonly number[], minLength = 1, bounds: Bounds = {}): readonly number[] {
  if (values.length < minLength) throw new RangeError(`${name} must have at least ${minLength} members, got ${values.length}`);
  for (let i = 0; i < values.length; i++) if (!isInside(values[i]!, bounds)) requireNumber(`${name}[${i}]`, values[i]!, bounds);
  return values;
}

/** What a model says; null where what it is asked of lies outside it. */
export function inRange<T>(work: () => T): T | null {
  try {
    return work();
  } catch (error) {
    if (error instanceof RangeError) return null;
    throw error;
  }
}
