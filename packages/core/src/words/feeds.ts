import { said, type Said } from '../common';
import type { Every, FeedPlan } from '../feeds';
import { speak } from './speak';

/** What a feed takes and when, as one sentence: "Members of the filter “paid up”, every day at 2:00". */
export function feedWords({ take, when }: Pick<FeedPlan, 'take' | 'when'>): string {
  const what =
    take === null
      ? said('feed.words.nothing')
      : take.filter === null
        ? said('feed.words.all', { type: take.type.name })
        : said('feed.words.filter', { type: take.type.name, filter: take.filter.name });
  const often = when.every === null ? said('feed.every.never') : everySaid(when.every);
  const at = when.atOnce
    ? when.every === null
      ? said('feed.every.at-once')
      : said('feed.every.both', { often })
    : often;
  return speak(said('feed.words', { what, when: at }));
}

/** How often a clock of a feed looks, as part of a sentence. */
export const everyWords = (every: Every): string => speak(everySaid(every));

function everySaid(every: Every): Said {
  switch (every.unit) {
    case 'minutes':
      return said('feed.every.minutes', { n: every.n });
    case 'hours':
      return said('feed.every.hours', { n: every.n });
    case 'days':
      return said('feed.every.days', { n: every.n, at: clock(every.at) });
    case 'weekdays':
      return said('feed.every.weekdays', {
        days: [...every.days].sort((a, b) => a - b).map((day) => said(`weekday.${day as Weekday}`)),
        at: clock(every.at),
      });
  }
}

type Weekday = 1 | 2 | 3 | 4 | 5 | 6 | 7;

const clock = (minutes: number): string =>
  `${Math.floor(minutes / 60)}:${String(minutes % 60).padStart(2, '0')}`;
