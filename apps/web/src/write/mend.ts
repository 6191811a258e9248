import type { MessageFault, MessageView } from '@goodword/core/contract';
import type { WrittenWords } from '@goodword/core/letter';

/** The words of a message, as they are edited and saved. */
export type WordsOfMessage = Pick<
  MessageView,
  | 'name'
  | 'purpose'
  | 'listId'
  | 'subject'
  | 'preheader'
  | 'letter'
  | 'text'
  | 'senderId'
  | 'locale'
  | 'ask'
  | 'plainly'
>;

/** Puts the nearest right name where a wrong one stands, wherever it stands. */
export function mendedWords<T extends WrittenWords>(words: T, fault: MessageFault): T {
  const from = fault.excerpt!;
  const to = from.replace(/^\{\s*[^,}]+/, `{${fault.suggestion}`);
  const swap = (text: string) => text.split(from).join(to);
  const letter =
    words.letter &&
    (JSON.parse(
      JSON.stringify(words.letter, (key, value: unknown) =>
        (key === 'text' || key === 'label') && typeof value === 'string' ? swap(value) : value,
      ),
    ) as T['letter']);
  const { subject, preheader, text } = words;
  return { ...words, subject: swap(subject), preheader: swap(preheader), text: swap(text), letter };
}
