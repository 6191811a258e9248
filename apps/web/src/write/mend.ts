import type { MessageFault, MessageView } from '@goodword/core/contract';

/** The words of a message, as they are edited and saved. */
export type WordsOfMessage = Pick<
  MessageView,
  'name' | 'purpose' | 'listId' | 'subject' | 'preheader' | 'letter' | 'text' | 'senderId'
>;

/** Puts the nearest right name where a wrong one stands, wherever it stands. */
export function mendedWords(words: WordsOfMessage, fault: MessageFault): WordsOfMessage {
  const from = fault.excerpt!;
  const to = from.replace(/^\{\s*[^,}]+/, `{${fault.suggestion}`);
  const swap = (text: string) => text.split(from).join(to);
  const letter =
    words.letter &&
    (JSON.parse(
      JSON.stringify(words.letter, (key, value: unknown) =>
        (key === 'text' || key === 'label') && typeof value === 'string' ? swap(value) : value,
      ),
    ) as WordsOfMessage['letter']);
  return { ...words, subject: swap(words.subject), text: swap(words.text), letter };
}
