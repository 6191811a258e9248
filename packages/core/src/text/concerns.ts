import { readIntent } from './reading';
import { CONCERN_KINDS, CONCERN_SENTENCES, NO_CONCERN, type ConcernKind } from './concern-words';

/** Something in an answer that a house has to do something about. */
export interface Concern {
  kind: ConcernKind;
  /** Where its sentence stands in the words, in UTF-16 units. */
  from: number;
  to: number;
  /** What it names: of an address the mail address, of a gift the amount as written; null for nothing. */
  named: string | null;
}

/** So much of an answer is read for it, in UTF-16 units. */
const MOST_READ_FOR_CONCERNS = 10_000;
/** A sentence is read to here: nobody says what is meant after so many letters. */
const LONGEST_SENTENCE = 600;

const SENTENCE = /[^.!?\r\n]+(?:[.!?](?=\S)[^.!?\r\n]+)*[.!?]*/gu;
const MAIL_ADDRESS = /[\p{L}\p{N}._%+-]{1,64}@[\p{L}\p{N}-]{1,63}(?:\.[\p{L}\p{N}-]{1,63}){1,6}/u;
const CURRENCY = '(?:dollars?|euros?|pounds?|francs?|usd|eur|gbp|chf)\\b';
const FIGURES = "\\d(?:[\\d.,']{0,13}\\d)?";
const AMOUNT = new RegExp(
  `(?:[$€£]|\\b(?:usd|eur|gbp|chf))\\s?${FIGURES}|\\b${FIGURES}\\s?(?:[$€£]|${CURRENCY})`,
  'iu',
);

/** In small letters without accents: what a word border is, patterns know of plain letters alone. */
const withoutMarks = (text: string) => text.normalize('NFKD').replace(/\p{M}/gu, '').replaceAll('’', "'");
const oneOf = (patterns: readonly RegExp[]) =>
  new RegExp(withoutMarks(patterns.map(({ source }) => source).join('|')), 'g');

const PATTERNS = CONCERN_KINDS.map(
  (kind) => [kind, oneOf(Object.values(CONCERN_SENTENCES[kind]).flat())] as const,
);
const OPPOSITE = oneOf(NO_CONCERN);

/**
 * What somebody's own words are about besides an answer: the first sentence of each kind, in the order in
 * which they stand. It only points; what is done about it is for a person to say. What plainly asks to stop
 * is asked about by itself (`readIntent`), and none of these.
 */
export function concernsIn(words: string): Concern[] {
  const found = new Map<ConcernKind, Concern>();
  for (const { 0: sentence, index } of words.slice(0, MOST_READ_FOR_CONCERNS).matchAll(SENTENCE)) {
    const start = sentence.length - sentence.trimStart().length;
    const said = readable(sentence.slice(0, LONGEST_SENTENCE));
    for (const [kind, pattern] of PATTERNS)
      if (!found.has(kind) && said.search(pattern) >= 0)
        found.set(kind, {
          kind,
          from: index + start,
          to: index + sentence.trimEnd().length,
          named: namedIn(kind, sentence, words),
        });
  }
  const asks = found.has('leaving') ? readIntent(words) : 'none';
  if (asks === 'hold' || asks === 'stop') found.delete('leaving');
  return [...found.values()].sort((a, b) => a.from - b.from);
}

function readable(sentence: string): string {
  return withoutMarks(sentence).toLowerCase().replace(OPPOSITE, ' ');
}

/** An address may stand in the line below; an amount belongs to its sentence. */
function namedIn(kind: ConcernKind, sentence: string, words: string): string | null {
  if (kind === 'address')
    return (MAIL_ADDRESS.exec(sentence) ?? MAIL_ADDRESS.exec(words.slice(0, 2000)))?.[0] ?? null;
  return kind === 'gift' ? (AMOUNT.exec(sentence)?.[0] ?? null) : null;
}
