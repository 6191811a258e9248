import { isFromDevice } from './own-words';
import { BESIDE, NOT_STOPPING, PLAIN_STOPS, STOP_SENTENCES, WHOLE_STOPS } from './stop-words';

/**
 * What somebody's own words ask for. `stop` closes the channel at once; `hold` plainly asks for it in free
 * words, so the channel is held until a person has read them.
 */
export type ReplyIntent = 'stop' | 'hold' | 'help' | 'start' | 'none';

const HELP_WORDS = ['HELP', 'INFO', 'AIDE', 'AYUDA', 'HILFE'];
const START_WORDS = ['START', 'UNSTOP'];
/** Words that answer "reply YES to confirm". They mean something only where a confirmation is out. */
const CONFIRM_WORDS = ['YES', 'Y', 'SI', 'OUI', 'JA', 'OK'];

/**
 * Cyrillic and Greek capitals that look like Latin ones: a STOP is a STOP, whatever keyboard it was typed on.
 */
const LOOKALIKES: Record<string, string> = {
  А: 'A',
  В: 'B',
  Е: 'E',
  К: 'K',
  М: 'M',
  Н: 'H',
  О: 'O',
  Р: 'P',
  С: 'C',
  Т: 'T',
  Х: 'X',
  Ѕ: 'S',
  Ο: 'O',
  Ρ: 'P',
  Τ: 'T',
};

/**
 * As sentences are compared: wide letters as plain ones (NFKC), in capitals, without accents, apostrophes and
 * marks.
 */
function fold(text: string): string {
  return text
    .normalize('NFKC')
    .normalize('NFD')
    .replace(/[\p{M}\p{Cf}]/gu, '')
    .toUpperCase()
    .replace(/ẞ|ß/g, 'SS')
    .replace(/['’‘`´]/g, '')
    .replace(/[^\p{L}\p{N}]+/gu, ' ')
    .trim();
}

/** As single words are compared: also without spaces, and a letter that is repeated written once (STOOOP). */
const squeeze = (folded: string) => folded.replaceAll(' ', '').replace(/(\p{L})\1+/gu, '$1');

const once = (words: readonly string[]) => new Set(words.map((word) => squeeze(fold(word))));
const plain = once(PLAIN_STOPS.flatMap(({ words }) => words));
const whole = once(WHOLE_STOPS.flatMap(({ words }) => words));
const beside = once([...BESIDE]);
const help = once(HELP_WORDS);
const start = once(START_WORDS);
const confirm = once(CONFIRM_WORDS);

/** Latin letters in the place of those that look like them, where a word holds both or only such. */
const latin = (word: string) => [...word].map((letter) => LOOKALIKES[letter] ?? letter).join('');

/** The word without an ending: STOPPED, STOPS and STOPPING stop. */
function stems(word: string): string[] {
  return [word, latin(word), word.replace(/(?:ED|ING|S|D)$/, ''), word.replace(/(?:ED|ING)$/, 'E')];
}

const isAmong = (word: string, words: ReadonlySet<string>) => stems(word).some((stem) => words.has(stem));

/** Words that are written in two. */
const joined = (folded: string) => folded.replace(/\b(OPT|STOP|NO) (?=(?:OUT|ALL|MAS)\b)/g, '$1');

/** Sentences, and their parts where "but" or a comma turns to something else. */
function clausesOf(text: string): string[] {
  return text
    .split(/[.!?;:…\r\n]+|,|\s[-–—]+\s|\b(?:but|however|aber|pero|mais|sondern)\b/iu)
    .map(fold)
    .filter((clause) => clause !== '');
}

/** Whether a clause is a stop word and nothing else that means anything; `words` are those that count. */
function isBare(clause: string, words: ReadonlySet<string>): boolean {
  if (isAmong(squeeze(clause), words)) return true;
  const rest = joined(clause)
    .split(' ')
    .map(squeeze)
    .filter((word) => !beside.has(word));
  return rest.length > 0 && rest.every((word) => isAmong(word, words));
}

/** So much of either end of an answer is read: nobody says stop in the middle of a book. */
const MOST_READ = 10_000;
const endsOf = (text: string) =>
  text.length <= 2 * MOST_READ ? text : `${text.slice(0, MOST_READ)}\n${text.slice(-MOST_READ)}`;

/**
 * Reads what somebody wrote, clause by clause: a plain stop anywhere outweighs whatever else is said. Lines
 * that a telephone adds by itself are left out.
 */
export function readIntent(text: string): ReplyIntent {
  const lines = endsOf(text)
    .split(/\r\n|\r|\n/)
    .filter((line) => !isFromDevice(line));
  const clauses = clausesOf(lines.join('\n'));
  if (clauses.length === 0) return 'none';
  if (clauses.some((clause) => isBare(clause, plain))) return 'stop';
  const isNothing = (clause: string) => clause.split(' ').every((word) => beside.has(squeeze(word)));
  const said = clauses.filter((clause) => !isNothing(clause));
  if (said.length > 0 && said.every((clause) => isBare(clause, whole))) return 'stop';
  const all = squeeze(fold(lines.join(' ')));
  if (help.has(all)) return 'help';
  if (start.has(all)) return 'start';
  return clauses.some(plainlyStops) ? 'hold' : 'none';
}

const SENTENCES = STOP_SENTENCES.flatMap(({ patterns }) => patterns);

function plainlyStops(clause: string): boolean {
  // A "don't stop" is taken out of the clause and does not excuse the rest of it.
  const said = NOT_STOPPING.reduce((rest, pattern) => rest.replace(pattern, ' '), clause);
  return SENTENCES.some((pattern) => pattern.test(said));
}

/** Whether a text answers "reply YES". */
export function isConfirmWord(text: string): boolean {
  return text.length < 100 && confirm.has(squeeze(fold(text)));
}

/** How a word that joins by text is compared: without case, accents, spaces and marks. */
export function keywordKey(text: string): string {
  return text
    .normalize('NFD')
    .replace(/\p{M}/gu, '')
    .toUpperCase()
    .replace(/[^A-Z0-9]/g, '');
}
