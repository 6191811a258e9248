/** What may be wrong with a name, as somebody sees at a look; nothing is held back for it. */
export const NAME_DOUBTS = ['caps', 'address', 'test', 'digits', 'couple'] as const;
export type NameDoubt = (typeof NAME_DOUBTS)[number];

/** Words that stand where a name should, in the languages that lists are kept in here. */
const NO_NAMES = new Set([
  'test',
  'tester',
  'testing',
  'asdf',
  'qwerty',
  'xxx',
  'none',
  'na',
  'n/a',
  'unknown',
  'anonymous',
  'anonym',
  'prueba',
  'essai',
]);

/** Between two people in one name: "Ann and Bo", "Ann & Bo", "Ana y Luis", "Anne et Luc", "Anna und Bo". */
const BETWEEN_TWO = /\S\s*[&+/]\s*\S|\S\s+(?:and|und|et|y|e|og|och|i|en)\s+\S/i;

/** A name of one or two letters may well be in capitals ("AJ", "DJ"). */
const FEW = 3;

const inCapitals = (text: string) => !/\p{Ll}/u.test(text) && (text.match(/\p{Lu}/gu) ?? []).length >= FEW;

/**
 * What may be wrong with a first name, by its letters alone.
 *
 * @example nameDoubts('ANNA') // ['caps']
 * @example nameDoubts('Ann & Bo') // ['couple']
 */
export function nameDoubts(name: string): NameDoubt[] {
  const text = name.trim();
  if (text === '') return [];
  const doubts: [boolean, NameDoubt][] = [
    [inCapitals(text), 'caps'],
    [/\S@\S/.test(text) || /^https?:/i.test(text), 'address'],
    [NO_NAMES.has(text.toLowerCase()), 'test'],
    [/\p{N}/u.test(text), 'digits'],
    [BETWEEN_TWO.test(text), 'couple'],
  ];
  return doubts.flatMap(([is, doubt]) => (is ? [doubt] : []));
}

const RIGHT_TO_LEFT =
  /[\p{Script=Arabic}\p{Script=Hebrew}\p{Script=Syriac}\p{Script=Thaana}\p{Script=Nko}\p{Script=Adlam}]/u;
const LETTER = /\p{L}/u;

/** Whether a name is written from the right. */
export const isRightToLeft = (name: string): boolean => RIGHT_TO_LEFT.test(name);

/** Whether a name has letters of another script than Latin. */
export const isNonLatin = (name: string): boolean =>
  [...name].some((char) => LETTER.test(char) && !/\p{Script=Latin}/u.test(char));
