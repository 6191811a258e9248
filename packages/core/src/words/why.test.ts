import { RELATIONSHIPS, COLLECTION_METHODS } from '../permission';
import { type Basis, whyWords } from '../words';

const APPEAL = { purpose: 'appeals' as const, list: null, organization: 'Lantern Ferry Trust' };
const implied = (how: Basis['how']): Basis => ({ state: 'implied', how });

test('that they agreed is said to those alone who did', () => {
  expect(whyWords(APPEAL, { state: 'yes', how: 'form' })).toBe(
    'You agreed to get appeals from Lantern Ferry Trust.',
  );
  expect(whyWords({ ...APPEAL, organization: 'Old Quay, A.C.' }, { state: 'yes', how: 'form' })).toBe(
    'You agreed to get appeals from Old Quay, A.C.',
  );
  const others = [null, ...COLLECTION_METHODS.map(implied)].map((basis) => whyWords(APPEAL, basis));
  for (const words of others) expect(words).not.toMatch(/you agreed/i);
  expect(new Set(RELATIONSHIPS.map((how) => whyWords(APPEAL, implied(how)))).size).toBe(RELATIONSHIPS.length);
});

test('each reads the reason that is theirs', () => {
  const news = { ...APPEAL, purpose: 'news' as const };
  expect(
    (['gift', 'membership', 'volunteering', 'inquiry', 'file'] as const).map((how) =>
      whyWords(news, implied(how)),
    ),
  ).toEqual([
    'You get this because you have given to Lantern Ferry Trust.',
    'You get this because you are, or have been, a member of Lantern Ferry Trust.',
    'You get this because you have volunteered with Lantern Ferry Trust.',
    'You get this because you asked Lantern Ferry Trust something.',
    'You get this because of what Lantern Ferry Trust has on record of you; you have not agreed to it in so many words.',
  ]);
  expect(whyWords(news, null)).toBe(
    'Lantern Ferry Trust writes to you without having asked you before; you can tell us not to.',
  );
  expect(whyWords(news, { state: 'asked', how: 'form' })).toBe(whyWords(news, null));
  expect(whyWords(news, { state: 'yes', how: 'form' })).toBe(
    'You agreed to get news from Lantern Ferry Trust.',
  );
  expect(whyWords({ ...news, purpose: null }, { state: 'yes', how: 'form' })).toBe(
    'You agreed to get appeals from Lantern Ferry Trust.',
  );
});

// 15 U.S.C. 7704(a)(5)(A)(i) and (B), cited from memory.
test('an appeal without an agreement says that it is a solicitation, news and what they set going do not', () => {
  expect(whyWords(APPEAL, null)).toContain('This is a solicitation.');
  expect(whyWords(APPEAL, implied('gift'))).toBe(
    'You get this because you have given to Lantern Ferry Trust. This is a solicitation.',
  );
  expect(whyWords(APPEAL, { state: 'yes', how: 'paper' })).not.toContain('solicitation');
  expect(whyWords({ ...APPEAL, purpose: 'news' }, implied('gift'))).not.toContain('solicitation');
  expect(whyWords({ ...APPEAL, purpose: 'service' }, null)).toBe(
    'This is about something you did or set going with Lantern Ferry Trust.',
  );
});

test('a public list speaks for itself to who is on it by their own word', () => {
  const list = { ...APPEAL, purpose: null, list: 'You asked for the river letter.' };
  expect(whyWords(list, { state: 'yes', how: 'form' })).toBe('You asked for the river letter.');
  expect(whyWords(list, implied('membership'))).toContain('a member of');
});
