/** What an incoming text asks for. */
export type Keyword = 'stop' | 'help' | 'start' | 'none';

/**
 * The words that revoke consent by themselves: 47 CFR 64.1200(a)(10)(i) names stop, quit, end, revoke, opt out, cancel
 * and unsubscribe; STOPALL is common practice among carriers, ARRET its French counterpart in Canada (both without a
 * published source here).
 */
export const STOP_WORDS = ['STOP', 'STOPALL', 'QUIT', 'END', 'REVOKE', 'OPTOUT', 'CANCEL', 'UNSUBSCRIBE', 'ARRET'] as const;
const HELP_WORDS = ['HELP', 'INFO', 'AIDE'];
const START_WORDS = ['START', 'UNSTOP'];

/** Reads a whole text as a keyword: case, accents, spaces, hyphens and punctuation around it do not matter. */
export function readKeyword(text: string): Keyword {
  const word = text
    .normalize('NFD')
    .replace(/\p{M}/gu, '')
    .toUpperCase()
    .replace(/[^A-Z0-9]/g, '');
  if ((STOP_WORDS as readonly string[]).includes(word)) return 'stop';
  if (HELP_WORDS.includes(word)) return 'help';
  return START_WORDS.includes(word) ? 'start' : 'none';
}
