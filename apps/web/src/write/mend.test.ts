import { mendedWords, type WordsOfMessage } from './mend';

const words: WordsOfMessage = {
  name: 'n',
  purpose: 'appeals',
  listId: null,
  locale: null,
  ask: null,
  plainly: false,
  senderId: 1,
  preheader: '',
  subject: '{Frist name}, and {Frist name} again',
  text: 'Hi {Frist name}',
  letter: {
    type: 'doc',
    content: [
      { type: 'paragraph', content: [{ type: 'text', text: 'Dear {Frist name},' }] },
      { type: 'button', attrs: { href: 'https://x.test/{Frist name}', label: 'For {Frist name}' } },
    ],
  },
};
const fault = (excerpt: string) => ({
  where: 'subject' as const,
  message: '',
  suggestion: 'First name',
  excerpt,
});

test('the right name is put wherever the wrong one stands, and addresses are left alone', () => {
  const right = mendedWords(words, fault('{Frist name}'));
  expect(right).toMatchObject({ subject: '{First name}, and {First name} again', text: 'Hi {First name}' });
  expect(JSON.stringify(right.letter)).toContain('Dear {First name},');
  expect(JSON.stringify(right.letter)).toContain('"label":"For {First name}"');
  expect(JSON.stringify(right.letter)).toContain('https://x.test/{Frist name}');
});

test('the words for a missing value stay', () => {
  const right = mendedWords(
    { ...words, subject: 'Dear {frst  name , or "you, all"},' },
    fault('{frst  name , or "you, all"}'),
  );
  expect(right.subject).toBe('Dear {First name, or "you, all"},');
});
