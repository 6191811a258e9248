import fc from 'fast-check';
import { dayOf, isoDay } from '../common';
import { lastLeaves, mailsLeft, USUAL_WARM_UP, warmUpOf, type MailLimits } from '.';

const FREE: MailLimits = { perHour: null, perDay: null, warmUp: null };
const NONE = { hour: 0, day: 0, today: 0 };
const FIRST = dayOf(2026, 12, 1)!;
const BEGUN = { at: FIRST * 86_400_000, zone: 'UTC', sent: NONE };
/** Hours after the first midnight at which the last of them leaves. */
const after = (limits: MailLimits, people: number, begun = BEGUN) =>
  (lastLeaves(limits, people, begun)! - BEGUN.at) / 3_600_000;
const warm = (amounts: number[]): MailLimits => ({ ...FREE, warmUp: { from: isoDay(FIRST), amounts } });

test('without a limit any number may leave, at once', () => {
  expect(mailsLeft(FREE, { hour: 9e6, day: 9e6, today: 9e6 }, FIRST)).toEqual({ left: Infinity, by: null });
  expect(after(FREE, 1_000_000)).toBe(0);
});

test.each([
  [{ perHour: 100 }, { hour: 40 }, 60, 'hour'],
  [{ perHour: 100, perDay: 500 }, { hour: 40, day: 480 }, 20, 'day'],
  [{ perDay: 500 }, { day: 700 }, 0, 'day'],
] as const)('of %j and %j sent %d may leave', (limits, sent, left, by) => {
  expect(mailsLeft({ ...FREE, ...limits }, { ...NONE, ...sent }, FIRST)).toEqual({ left, by });
});

test('a new domain begins small, and is free when its days are over', () => {
  const limits = warm([50, 100]);
  expect([-1, 0, 1, 2].map((day) => warmUpOf(limits, FIRST + day))).toEqual([null, 50, 100, null]);
  expect(mailsLeft(limits, { ...NONE, today: 30 }, FIRST)).toEqual({ left: 20, by: 'warm-up' });
  expect(after(limits, 400)).toBe(48);
  // Doubled each day: 12,000 supporters on the eighth.
  expect(after(warm([...USUAL_WARM_UP]), 12_000)).toBe(7 * 24);
});

test.each([
  ['an hour that is full', { perHour: 100 }, { hour: 100 }, 'UTC', 1],
  ['a day that is full', { perDay: 100 }, { day: 100 }, 'UTC', 24],
  // New York is five hours behind in December: its day of the warm-up ends at 05:00 (IANA).
  ['a warm-up whose day is used up', warm([100]), { today: 100 }, 'America/New_York', 5],
] as const)('what left before counts: %s', (_what, limits, sent, zone, hours) => {
  const begun = { ...BEGUN, zone, sent: { ...NONE, ...sent } };
  expect(
    after({ ...FREE, ...limits }, 100, zone === 'UTC' ? begun : { ...begun, at: BEGUN.at + 86_400_000 }),
  ).toBe(hours + (zone === 'UTC' ? 0 : 24));
});

test('what never leaves is told as that', () => {
  expect(lastLeaves({ ...FREE, perDay: 1 }, 1_000_000, BEGUN)).toBeNull();
});

const limit = fc.option(fc.integer({ min: 1, max: 500 }));
const limits = fc.record({
  perHour: limit,
  perDay: limit,
  warmUp: fc.option(
    fc.record({
      from: fc.integer({ min: -3, max: 3 }).map((days) => isoDay(FIRST + days)),
      amounts: fc.array(fc.integer({ min: 0, max: 300 }), { maxLength: 6 }),
    }),
  ),
});

test('whatever the limits, what leaves by them is within each, by any hour, any day and the day of the house', () => {
  fc.assert(
    fc.property(limits, fc.integer({ min: 1, max: 150 }), (chosen, people) => {
      const sent: number[] = [];
      const sum = (from: number, to = sent.length) =>
        sent.slice(Math.max(0, from), to).reduce((all, n) => all + n, 0);
      let left = people;
      for (let hour = 0; left > 0 && hour < 24 * 4000; hour++) {
        const day = Math.floor(hour / 24);
        // Once an hour: what left an hour ago is not within the last one.
        const gone = { hour: 0, day: sum(hour - 23), today: sum(day * 24) };
        const go = Math.min(left, mailsLeft(chosen, gone, FIRST + day).left);
        sent.push(go);
        left -= go;
        if (chosen.perHour !== null) expect(go).toBeLessThanOrEqual(chosen.perHour);
        if (chosen.perDay !== null) expect(sum(hour - 23)).toBeLessThanOrEqual(chosen.perDay);
        const most = warmUpOf(chosen, FIRST + day);
        if (most !== null) expect(sum(day * 24)).toBeLessThanOrEqual(most);
      }
      expect(left).toBe(0);
      // Told before: the hour in which the last one left.
      expect(after(chosen, people)).toBe(sent.length - 1);
    }),
    { numRuns: 60 },
  );
});
