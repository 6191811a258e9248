import type { MessageView } from '@goodword/core/contract';
import { letterFault } from '@goodword/core/letter';
import { BLANK_SUBJECT, blankLetter, startFrom, type PersonalWords } from './personal';

const words: PersonalWords = {
  channel: 'email',
  purpose: 'news',
  subject: 'Mine',
  letter: blankLetter(),
  text: '',
};
const message = (part: Partial<MessageView>) =>
  ({ purpose: 'appeals', subject: 'Planks', letter: null, text: '', ...part }) as MessageView;

test('a blank letter is one that can be sent, with a greeting that never leaves a hole', () => {
  expect(letterFault(blankLetter())).toBeNull();
  expect(JSON.stringify(blankLetter())).toContain('{Greeting, or \\"friend\\"}');
});

test('another message gives its words and purpose; what it has not stays', () => {
  expect(startFrom(words, message({}))).toMatchObject({
    purpose: 'appeals',
    subject: 'Planks',
    letter: words.letter,
  });
  expect(startFrom(words, message({ purpose: null, subject: '' }))).toMatchObject({
    purpose: 'news',
    subject: 'Mine',
  });
});

test('a blank sheet forgets the words and keeps channel and purpose', () => {
  expect(startFrom({ ...words, purpose: 'service', text: 'Hello' }, null)).toEqual({
    ...words,
    purpose: 'service',
    subject: BLANK_SUBJECT,
  });
});
