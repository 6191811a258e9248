import fc from 'fast-check';
import {
  Bits,
  dateParts,
  dayInZone,
  dayOf,
  daysToBirthday,
  editDistance,
  isoDay,
  nearest,
  parseIsoDay,
} from '.';

describe('the calendar', () => {
  test('days that do not exist are refused', () => {
    expect(dayOf(2027, 2, 29)).toBeNull();
    expect(dayOf(2028, 2, 29)).not.toBeNull();
    expect(parseIsoDay('2026-04-31')).toBeNull();
  });

  // Gregorian rule: 1900 is a common year, 2000 a leap year (ISO 8601:2004, 3.2.1).
  test('centuries', () => {
    expect(dayOf(1900, 2, 29)).toBeNull();
    expect(dayOf(2000, 2, 29)).not.toBeNull();
  });

  test('parts and day numbers agree', () => {
    fc.assert(
      fc.property(fc.integer({ min: -20000, max: 60000 }), (day) => {
        const { year, month, day: d } = dateParts(day);
        expect(dayOf(year, month, d)).toBe(day);
        expect(parseIsoDay(isoDay(day))).toBe(day);
      }),
    );
  });

  test('the day of a moment is the day of its place', () => {
    const lateEvening = Date.UTC(2026, 10, 24, 3, 0);
    expect(isoDay(dayInZone(lateEvening, 'America/Los_Angeles'))).toBe('2026-11-23');
    expect(isoDay(dayInZone(lateEvening, 'Europe/London'))).toBe('2026-11-24');
  });

  test('29 February is kept on the 28th in common years', () => {
    expect(daysToBirthday(229, dayOf(2027, 2, 28)!)).toBe(0);
    expect(daysToBirthday(229, dayOf(2028, 2, 28)!)).toBe(1);
    expect(daysToBirthday(101, dayOf(2026, 12, 31)!)).toBe(1);
  });
});

describe('sets of people', () => {
  const members = fc.uniqueArray(fc.integer({ min: 0, max: 99 }));
  const set = (ordinals: number[]) => {
    const bits = new Bits(100);
    ordinals.forEach((o) => bits.add(o));
    return bits;
  };

  test('behave like sets', () => {
    fc.assert(
      fc.property(members, members, (a, b) => {
        const sorted = (list: number[]) => [...list].sort((x, y) => x - y);
        expect(set(a).and(set(b)).ordinals()).toEqual(sorted(a.filter((x) => b.includes(x))));
        expect(set(a).or(set(b)).count()).toBe(new Set([...a, ...b]).size);
        expect(set(a).not().count()).toBe(100 - a.length);
        expect(set(a).not().not().ordinals()).toEqual(sorted(a));
      }),
    );
  });

  test('everybody is exactly everybody', () => {
    for (const size of [0, 1, 31, 32, 33, 64, 1000]) expect(Bits.all(size).count()).toBe(size);
  });
});

test('the nearest name is offered only when it is near', () => {
  expect(editDistance('kitten', 'sitting')).toBe(3); // the usual textbook example, from memory
  expect(nearest('frist name', ['First name', 'Last name'])).toBe('First name');
  expect(nearest('zebra', ['First name', 'Last name'])).toBeNull();
});
