/**
 * Words that ask, in the languages that supporters' pages speak. A service message goes to people who said no
 * to appeals, so it may not ask. The lists are our own, no source; a house changes them. They are calls to
 * act and not the thing: a receipt speaks of a donation too.
 */
export const ASKING_WORDS: readonly string[] = [
  ...[
    'donate',
    'give again',
    'give today',
    'give now',
    'please give',
    'make a gift',
    'chip in',
    'pledge today',
    'support us',
  ],
  ...[
    'renew today',
    'become a member',
    'join today',
    'sign the petition',
    'match your gift',
    'fundraiser',
    'can you give',
  ],
  ...['done ahora', 'haga una donación', 'apóyenos', 'done hoy', 'hágase socio', 'done de nuevo'],
  ...['faites un don', 'donnez', 'soutenez-nous', 'devenez membre', 'adhérez'],
  ...['spenden sie', 'jetzt spenden', 'unterstützen sie uns', 'werden sie mitglied', 'spende jetzt'],
];

function fold(text: string): string {
  const plain = text.normalize('NFKD').replace(/[\p{M}\p{Cf}]/gu, '');
  return ` ${plain
    .toLowerCase()
    .replace(/[^\p{L}\p{N}]+/gu, ' ')
    .trim()} `;
}

/** The words of a list that stand in a text, whole, whatever their case, accents and spaces; each once. */
export function askingIn(text: string, words: readonly string[] = ASKING_WORDS): string[] {
  const folded = fold(text);
  return words.filter((one) => fold(one).trim() !== '' && folded.includes(fold(one)));
}
