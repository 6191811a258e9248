import fc from 'fast-check';
import { DomainRests, PUT_OFF_IN_A_ROW, REST_MINUTES } from '.';

const MINUTE = 60_000;
const often = (rests: DomainRests, now: number, times = PUT_OFF_IN_A_ROW) => {
  for (let i = 0; i < times; i++) rests.putOff(`p${i}@slow.example`, now);
};

test('a domain that puts off many in a row is left alone, longer each time, and the others are not', () => {
  const rests = new DomainRests();
  often(rests, 0, PUT_OFF_IN_A_ROW - 1);
  expect(rests.from('bo@slow.example', 0)).toBe(0);
  rests.putOff('ann@slow.example', 0);
  expect(rests.from('bo@SLOW.example', 0)).toBe(MINUTE);
  expect(rests.from('bo@fast.example', 0)).toBe(0);
  // Those that were under way meet the same answer.
  often(rests, 500);
  expect(rests.from('bo@slow.example', 500)).toBe(MINUTE);
  often(rests, MINUTE);
  expect(rests.from('bo@slow.example', MINUTE)).toBe(3 * MINUTE);
  rests.taken('ann@slow.example');
  expect(rests.from('bo@slow.example', MINUTE)).toBe(MINUTE);
});

test('where some are taken in between, as with greylisting that knows them by now, nothing is held up', () => {
  const rests = new DomainRests();
  for (let i = 0; i < 100; i++) {
    often(rests, i, PUT_OFF_IN_A_ROW - 1);
    rests.taken('ann@slow.example');
    expect(rests.from('bo@slow.example', i)).toBe(i);
  }
});

test('no rest is longer than the longest, and one that goes on is never shorter than the one before', () => {
  fc.assert(
    fc.property(fc.array(fc.integer({ min: 0, max: 3 * 3_600_000 }), { maxLength: 60 }), (waits) => {
      const rests = new DomainRests();
      let [now, last] = [0, 0];
      for (const wait of waits) {
        now = rests.from('a@slow.example', now) + wait;
        often(rests, now);
        const rest = rests.from('a@slow.example', now) - now;
        expect(rest).toBeGreaterThanOrEqual(last);
        expect(rest).toBeLessThanOrEqual(REST_MINUTES.at(-1)! * MINUTE);
        last = rest;
      }
    }),
  );
});
