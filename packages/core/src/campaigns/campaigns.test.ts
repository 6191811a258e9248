import fc from 'fast-check';
import {
  FALLS,
  FALL_CAUSES,
  fallOf,
  howManyGet,
  momentOfStep,
  stepsInOrder,
  usualEnds,
  FIRST_STAGES,
  type CampaignEnds,
  type RosterFacts,
} from '.';

const FACTS: RosterFacts = {
  ...{ stage: 'asked', takenOff: false, given: 0, replied: false, left: false, elsewhere: false },
};
const ALL: CampaignEnds = { causes: FALL_CAUSES, stages: ['declined'], joins: false };

test('an appeal is over for whoever gave, replied or opted out; a thank-you for whoever left', () => {
  expect(usualEnds('appeal', FIRST_STAGES)).toEqual({
    ...{ causes: ['gave', 'replied', 'left'], stages: ['gave', 'declined'] },
  });
  expect(usualEnds('appeal', ['asked'])).toMatchObject({ stages: [] });
  expect(usualEnds('thank-you', FIRST_STAGES)).toEqual({ causes: ['left'], stages: [] });
});

test.each([
  ['somebody who was asked', {}, null],
  ['who gave', { given: 1 }, 'gave'],
  ['whose gift was taken back', { given: 0 }, null],
  ['who took back more than they gave', { given: -5 }, null],
  ['who replied', { replied: true }, 'replied'],
  ['who left and gave', { left: true, given: 10 }, 'left'],
  ['at a stage that ends it', { stage: 'declined' }, 'stage'],
  ['not on the roster', { stage: null }, 'taken-off'],
] as const)('%s', (_who, part, fall) => {
  expect(fallOf(ALL, { ...FACTS, ...part })).toBe(fall);
});

test('of a roster that fills itself only who was taken off by hand is not on it', () => {
  const joins = { ...ALL, joins: true };
  expect(fallOf(joins, { ...FACTS, stage: null })).toBeNull();
  expect(fallOf(joins, { ...FACTS, stage: null, takenOff: true })).toBe('taken-off');
  // Put on again by hand they are on it, whatever was before.
  expect(fallOf(joins, { ...FACTS, takenOff: true })).toBeNull();
});

const facts = fc.record({
  stage: fc.constantFrom(null, 'asked', 'declined', 'pledged'),
  takenOff: fc.boolean(),
  given: fc.integer({ min: -10, max: 10 }),
  replied: fc.boolean(),
  left: fc.boolean(),
  elsewhere: fc.boolean(),
});
const ends = fc.record({
  causes: fc.subarray([...FALL_CAUSES]),
  stages: fc.subarray(['asked', 'declined', 'pledged']),
  joins: fc.boolean(),
  alone: fc.boolean(),
});

test('nobody comes back by something more that ends it, and what is not chosen ends nothing', () => {
  fc.assert(
    fc.property(ends, facts, (chosen, known) => {
      const fall = fallOf(chosen, known);
      if (fall) {
        expect(FALLS).toContain(fall);
        const more = { ...known, given: Math.max(known.given, 1), replied: true, left: true };
        expect(fallOf({ ...chosen, causes: FALL_CAUSES }, more)).not.toBeNull();
      }
      const without = fallOf({ causes: [], stages: [], joins: true }, { ...known, takenOff: false });
      expect(without).toBeNull();
      if (fall === 'gave' || fall === 'replied' || fall === 'left') expect(chosen.causes).toContain(fall);
    }),
  );
});

test('steps leave by the clock of the house, also where it changes between them', () => {
  // 28 and 29 March 2026, Paris: the clocks go forward at 2:00 of the 29th (IANA time zone database).
  const first = Date.UTC(2026, 2, 28) / 86_400_000;
  const at = (day: number, minutes: number) =>
    new Date(momentOfStep(first, { day, minutes }, 'Europe/Paris')).toISOString();
  expect([at(0, 600), at(1, 600), at(1, 150)]).toEqual([
    ...['2026-03-28T09:00:00.000Z', '2026-03-29T08:00:00.000Z', '2026-03-29T01:30:00.000Z'],
  ]);
});

test('steps stand in the order in which they leave', () => {
  const steps = [
    { id: 3, day: 3, minutes: 600 },
    { id: 2, day: 0, minutes: 900 },
    { id: 1, day: 3, minutes: 600 },
    { id: 4, day: 0, minutes: 600 },
  ];
  expect(stepsInOrder(steps).map(({ id }) => id)).toEqual([4, 2, 1, 3]);
});

test('how many get how many: as counted person by person', () => {
  const people = fc.uniqueArray(fc.integer({ min: 1, max: 40 }));
  fc.assert(
    fc.property(people, fc.array(people, { maxLength: 5 }), (everybody, steps) => {
      const all = [...new Set([...everybody, ...steps.flat()])];
      const naive = Array.from(
        { length: steps.length + 1 },
        (_none, n) => all.filter((id) => steps.filter((step) => step.includes(id)).length === n).length,
      );
      expect(howManyGet(everybody, steps)).toEqual(naive);
    }),
  );
});
