/** The little of the general-purpose statistics library that the tests hold our distributions against. */
declare module "jstat" {
  interface Distribution {
    cdf(x: number, ...parameters: number[]): number;
    inv(p: number, ...parameters: number[]): number;
  }
  export const jStat: {
    normal: Distribution;
    studentt: Distribution;
    gammaln(x: number): number;
    simpson(f: (x: number) => number, a: number, b: number, n: number): number;
  };
}
