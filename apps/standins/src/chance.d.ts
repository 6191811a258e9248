/** A number from 0 to 1 that is the same for the same seed and words: chance that can be repeated. */
export declare function chance(seed: string, ...words: string[]): number;
