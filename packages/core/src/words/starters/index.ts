import { APPEALS } from './appeals';
import { NEWS } from './news';
import { THANK_YOUS } from './thanks';

export type { Starter } from './starter';

/** Words to begin with, for occasions that every organization has. */
export const STARTERS = [...APPEALS, ...THANK_YOUS, ...NEWS] as const;

/** The starter of a key; undefined where there is none. */
export const starterOf = (key: string) => STARTERS.find((one) => one.key === key);
