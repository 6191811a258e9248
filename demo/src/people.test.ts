import { cleanEmail, cleanMobile } from '@goodword/core/intake';
import { AREA_CODES } from './names';
import { inventPeople } from './people';

const people = inventPeople(12_000);

test('the same seed invents the same people', () => {
  expect(inventPeople(50)).toEqual(people.slice(0, 50));
  expect(inventPeople(50, 2)).not.toEqual(people.slice(0, 50));
});

test("only addresses and numbers that are nobody's (RFC 2606 §3; 555-0100 to 0199)", () => {
  for (const person of people) {
    if (person.email) expect(person.email).toMatch(/@example\.(org|com|net)$/);
    if (person.mobile) expect(person.mobile).toMatch(/^\+1\d{3}55501\d\d$/);
  }
  expect(new Set(AREA_CODES).size).toBe(AREA_CODES.length);
  expect(AREA_CODES.length * 100).toBeGreaterThanOrEqual(12_000);
});

test('addresses are good, some are shared, and there are realistic gaps', () => {
  for (const person of people.slice(0, 500)) {
    if (person.email) expect(cleanEmail(person.email)).toMatchObject({ ok: true, normal: person.email });
    if (person.mobile)
      expect(cleanMobile(person.mobile, 'US')).toMatchObject({ ok: true, normal: person.mobile });
  }
  const emails = people.flatMap((person) => (person.email ? [person.email] : []));
  expect(new Set(emails).size).toBeLessThan(emails.length);
  expect(people.some((person) => person.firstName === '')).toBe(true);
  expect(people.every((person) => person.email ?? person.mobile)).toBe(true);
});
