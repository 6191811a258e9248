/** The part of the package that the tests ask; it comes without types. */
declare module 'jstat' {
  export const jStat: {
    normal: {
      cdf(x: number, mean: number, deviation: number): number;
      inv(p: number, mean: number, deviation: number): number;
    };
    chisquare: { cdf(x: number, freedom: number): number };
  };
}
