import { fault, type FieldKind, type FieldValue } from '../field-kind';

/**
 * Words of English, Spanish, French and German sheets, and the marks that stand for them (common practice, no
 * source).
 */
const YES = new Set([
  'yes',
  'y',
  'true',
  't',
  '1',
  'x',
  'on',
  'ok',
  'okay',
  'agreed',
  'agree',
  'subscribed',
  'opted in',
  'opt-in',
  'checked',
  '✓',
  '✔',
  '☑',
  '✅',
  'oui',
  'o',
  'vrai',
  'ja',
  'j',
  'wahr',
  'si',
  'sí',
  's',
  'verdadero',
]);
const NO = new Set([
  'no',
  'n',
  'false',
  'f',
  '0',
  'off',
  '-',
  'none',
  'never',
  'unsubscribed',
  'opted out',
  'opt-out',
  'unchecked',
  '✗',
  '✘',
  '☐',
  '❌',
  'non',
  'faux',
  'nein',
  'falsch',
  'falso',
]);

/** Reads yes or no in the words and marks that sheets use; null for anything else. */
export function parseYesNo(text: string): boolean | null {
  const word = text.trim().toLowerCase();
  if (YES.has(word)) return true;
  return NO.has(word) ? false : null;
}

const yesOrNo = ({ number }: FieldValue) => (number === undefined ? '' : number === 1 ? 'yes' : 'no');

/** Yes or no. */
export const yesNoKind: FieldKind = {
  kept: 'number',
  asks: ['yes', 'no', 'empty'],
  read: (text) => {
    const yes = parseYesNo(text);
    return yes === null ? fault('value.yesno', text) : { ok: true, value: { number: yes ? 1 : 0 } };
  },
  write: yesOrNo,
  iso: yesOrNo,
};
