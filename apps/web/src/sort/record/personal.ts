import { t } from '@lingui/core/macro';
import type { MessageView, PersonalMessageBody } from '@goodword/core/contract';
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
