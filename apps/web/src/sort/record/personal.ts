import { t } from '@lingui/core/macro';
import type { MessageView, PersonalMessageBody, ThreadView } from '@goodword/core/contract';
import type { LetterDoc } from '@goodword/core/letter';

/** A message to one person while it is written. */
export type PersonalWords = PersonalMessageBody;

/** A subject to begin with, so that none leaves without. */
export const BLANK_SUBJECT = t`A word from ${'{Organization: name}'}`;

/** A letter begins with a greeting: it is what a personal one can't do without. */
export function blankLetter(): LetterDoc {
  const paragraph = (text: string) => ({ type: 'paragraph', content: [{ type: 'text', text }] });
  return {
    type: 'doc',
    content: [
      paragraph(t`Dear ${'{Greeting, or "friend"}'},`),
      { type: 'paragraph' },
      paragraph('{Sender: name}'),
    ],
  } as LetterDoc;
}

/**
 * The words of a template or another message as the start of this one; what was written so far stays where
 * the other has nothing.
 */
export function startFrom(
  words: PersonalWords,
  message: Pick<MessageView, 'purpose' | 'subject' | 'letter' | 'text'> | null,
): PersonalWords {
  if (!message) return { ...words, subject: BLANK_SUBJECT, letter: blankLetter(), text: '' };
  return {
    ...words,
    purpose: message.purpose ?? words.purpose,
    subject: message.subject || words.subject,
    letter: message.letter ?? words.letter,
    text: message.text || words.text,
  };
}

/** What stands before the subject of an answer, in the languages of mail programs; once is enough. */
const RE = /^(?:(?:re|aw|antw|sv|vs|rv)(?:\[\d+\])?:\s*)+/i;

/** The subject of an answer: theirs, or the message that they answered. */
export function answerSubject({ subject, message }: Pick<ThreadView, 'subject' | 'message'>): string {
  const about = subject.replace(RE, '').trim() || message || '';
  return about === '' ? BLANK_SUBJECT : t`Re: ${about}`.slice(0, 200);
}
