/** A seed out of a text: the same panel keeps its hidden truth, the same name its gun; each use starts elsewhere. */
export const seedOf = (text: string, start: number): number =>
  [...text].reduce((a, c) => (Math.imul(a, 31) + c.charCodeAt(0)) | 0, start) >>> 0;
