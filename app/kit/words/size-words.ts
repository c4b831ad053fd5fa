const UNITS = ["kB", "MB", "GB", "TB"] as const;

/** A size as people read it. @param bytes @example 1_234_567: "1.2 MB" */
export function sizeWords(bytes: number): string {
  let size = bytes / 1000;
  let unit = 0;
  while (size >= 1000 && unit < UNITS.length - 1) {
    size /= 1000;
    unit++;
  }
  return `${size < 10 ? size.toFixed(1) : size.toFixed(0)} ${UNITS[unit]}`;
}
