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
  const word = bare(text);
  if ((STOP_WORDS as readonly string[]).includes(word)) return 'stop';
  if (HELP_WORDS.includes(word)) return 'help';
  return START_WORDS.includes(word) ? 'start' : 'none';
}

/** Words that answer "reply YES to confirm". They mean something only where a confirmation is out. */
const CONFIRM_WORDS = ['YES', 'Y', 'SI', 'OUI', 'JA', 'OK'];

function bare(text: string): string {
  return text
    .normalize('NFD')
    .replace(/\p{M}/gu, '')
    .toUpperCase()
    .replace(/[^A-Z0-9]/g, '');
}

export function isConfirmWord(text: string): boolean {
  return CONFIRM_WORDS.includes(bare(text));
}

/** How a word that joins by text is compared: as {@link readKeyword} compares. */
export function keywordKey(text: string): string {
  return bare(text);
}

const THINGS = '(text|txt|sms|message|messag|mail|email|e-mail|letter|call|contact|writ|send|bother|spam|alert)';
const PLAIN_STOPS: readonly RegExp[] = [
  new RegExp(`\\b(stop|quit|cease|end|no more|no longer want|don'?t want( any| anymore)?|enough of)\\b[^.!?]{0,40}\\b${THINGS}`, 'i'),
  new RegExp(
    `\\b(do not|don'?t|never|no longer|not)\\b[^.!?]{0,15}\\b(text|txt|message|mail|email|e-mail|contact|call|write|writing|send|sending|bother)\\b[^.!?]{0,12}\\b(me|us|this number|this address|again|anymore|any more)\\b`,
    'i',
  ),
  /\b(unsubscribe|opt[ -]?(me )?out|take me off|remove (me|my|this)|leave me alone|delete my (number|address|email)|wrong (number|person))\b/i,
  /\b(please|pls|plz)[ ,]*(just )?(stop|quit)\b|\b(stop|quit)[ ,]*(please|pls|plz|now|it|this|already)\b/i,
  /\b(d[ée]sabonn|ne m'(envoyez|[ée]crivez|appelez|contactez)|arr[êe]tez (de|les|vos)|plus de (messages?|sms|textos?|courriels?|mails?))/i,
  /\b(de baja|no (me )?(env[íi]en?|escriban?|manden?|llamen?|contacten?)|dejen? de (enviar|escribir|mandar|llamar))/i,
  /\b(abmelden|abbestell|keine (weiteren )?(nachrichten|sms|mails|e-mails|anrufe)|h[öo]ren sie auf|schreiben sie mir nicht|nicht mehr (schreiben|anrufen|kontaktieren))/i,
];
const NOT_MEANT: readonly RegExp[] = [
  /\b(do not|don'?t|never|please don'?t) (stop|quit|unsubscribe|remove)\b/i,
  /\b(stop by|stop at|bus stop|last stop|non-?stop)\b/i,
];

/**
 * Whether free text plainly asks to be left alone (47 CFR 64.1200(a)(10)(ii): any reasonable means). It only holds the
 * channel and puts the text before a person, so it errs on the side of holding.
 */
export function plainlySaysStop(text: string): boolean {
  const straight = text.replace(/[’‘]/g, "'");
  return PLAIN_STOPS.some((pattern) => pattern.test(straight)) && !NOT_MEANT.some((pattern) => pattern.test(straight));
}

/** What somebody wrote in answer to a mail, without what they answered: quoted lines and everything after the usual marks. */
export function ownWords(mail: string): string {
  const lines: string[] = [];
  for (const line of mail.split(/\r\n|\r|\n/)) {
    if (/^\s*>/.test(line)) continue;
    if (/^(on|am|le|el) .{5,120}(wrote|schrieb|a écrit|escribió) ?:\s*$/i.test(line.trim()) || /^-{2,}\s*(original|forwarded)?/i.test(line.trim()))
      break;
    lines.push(line);
  }
  return lines.join('\n').trim();
}

/** Whether a whole answer is one of the stop words, such as a mail that says "unsubscribe" and nothing else but a greeting. */
export function isStopMail(subject: string, words: string): boolean {
  if (readKeyword(words) === 'stop') return true;
  const firstLine = words.split('\n').find((line) => line.trim() !== '') ?? '';
  return readKeyword(firstLine) === 'stop' || (readKeyword(subject.replace(/^(re|aw|sv)\s*:\s*/i, '')) === 'stop' && words.length < 200);
}
