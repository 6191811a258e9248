/*
 * Words by which people stop us, language by language. Each list names its source; where it says common
 * practice there is no published one. Words and patterns are written folded: in capitals, without accents and
 * apostrophes.
 */

/** Words that stop by themselves wherever they stand as a sentence of their own. */
export const PLAIN_STOPS: readonly { language: string; source: string; words: readonly string[] }[] = [
  { language: 'en', source: '47 CFR 64.1200(a)(10)(i)', words: ['STOP', 'UNSUBSCRIBE', 'OPTOUT'] },
  { language: 'en', source: 'common practice among carriers', words: ['STOPALL'] },
  {
    language: 'fr',
    source: 'common practice among carriers in Canada and France',
    words: ['ARRET', 'ARRETEZ', 'DESABONNER', 'DESINSCRIRE'],
  },
  { language: 'es', source: 'common practice', words: ['ALTO', 'BAJA', 'PARAR', 'PARE'] },
  { language: 'de', source: 'common practice', words: ['STOPP', 'ABMELDEN', 'ABBESTELLEN'] },
  { language: 'ru', source: 'common practice', words: ['СТОП', 'ОТПИСАТЬСЯ'] },
];

/** Words that stop where the whole text is nothing else; in a longer one they may be about anything. */
export const WHOLE_STOPS: readonly { language: string; source: string; words: readonly string[] }[] = [
  { language: 'en', source: '47 CFR 64.1200(a)(10)(i)', words: ['QUIT', 'END', 'REVOKE', 'CANCEL'] },
  { language: 'fr', source: 'common practice', words: ['FIN', 'ANNULER'] },
  { language: 'es', source: 'common practice', words: ['CANCELAR', 'FIN', 'NOMAS'] },
  { language: 'de', source: 'common practice', words: ['ENDE', 'BEENDEN', 'AUS'] },
];

/** Words beside a stop that change nothing about it. */
export const BESIDE = new Set(
  (
    'PLEASE PLS PLZ THANKS THANK YOU THX TY NOW IT THIS THAT ALREADY ALL ME OK OKAY HI HELLO SORRY BUT AND JUST AT ONCE ' +
    'MERCI SVP SIL VOUS PLAIT TOUT BONJOUR POR FAVOR GRACIAS YA TODO HOLA BITTE DANKE SOFORT JETZT ALLES HALLO'
  ).split(' '),
);

const THING = '(?:TEXT|TXT|SMS|MESSAG|MAIL|EMAIL|LETTER|CALL|CONTACT|WRIT|SEND|BOTHER|SPAM|ALERT|NEWSLETTER)';
const DEED = '(?:TEXT|TXT|MESSAGE|MAIL|EMAIL|CONTACT|CALL|PHONE|WRITE|SEND|BOTHER|SPAM|DISTURB)';

/**
 * Sentences that plainly ask to be left alone (47 CFR 64.1200(a)(10)(ii): any reasonable means). They hold
 * the channel and put the words before a person, so they err on the side of holding. Matched against one
 * folded clause.
 */
export const STOP_SENTENCES: readonly { language: string; patterns: readonly RegExp[] }[] = [
  {
    language: 'en',
    patterns: [
      new RegExp(
        `\\b(?:STOP|QUIT|CEASE|NO MORE|NO LONGER WANT|DONT WANT(?: ANY)?(?: MORE)?|ENOUGH OF|SICK OF|TIRED OF)\\b.{0,40}\\b${THING}`,
      ),
      new RegExp(
        `\\b(?:DO NOT|DONT|NEVER|NO LONGER|NOT)(?: EVER)? ${DEED}(?:ING|E)?\\b(?: (?:ME|US|THIS|MY|HERE|AGAIN|ANYMORE|ANY MORE|TO ME|ANYTHING)\\b.*)?$`,
      ),
      new RegExp(
        `\\b(?:DO NOT|DONT|NEVER|NO LONGER)\\b.{0,15}\\b${DEED}\\b.{0,12}\\b(?:ME|US|THIS NUMBER|THIS ADDRESS|AGAIN|ANYMORE|ANY MORE)\\b`,
      ),
      /\b(?:UNSUBSCRIBE|OPT(?:ING)? ?(?:ME )?OUT|TAKE ME OFF|REMOVE (?:ME|MY|THIS|US)|LEAVE (?:ME|US) ALONE|LOSE MY NUMBER)\b/,
      /\b(?:DELETE|ERASE|FORGET) MY (?:NUMBER|ADDRESS|EMAIL|PHONE|DATA|INFO)|\bWRONG (?:NUMBER|PERSON)\b/,
      /\b(?:REVOKE|WITHDRAW|RESCIND|RETRACT)\b.{0,20}\b(?:CONSENT|PERMISSION|AGREEMENT)\b/,
      /\bCANCEL\b.{0,20}\b(?:SUBSCRIPTION|EMAILS?|TEXTS?|MESSAGES|NEWSLETTER|MAILINGS?)\b/,
      /\b(?:PLEASE|PLS|PLZ) (?:JUST )?(?:STOP|QUIT)\b$|^(?:JUST )?(?:STOP|QUIT) (?:PLEASE|PLS|PLZ|NOW|IT|THIS|ALREADY)\b/,
    ],
  },
  {
    language: 'fr',
    patterns: [
      /\b(?:DESABONN|DESINSCRI)/,
      /\bNE M ?(?:ENVOYEZ|ECRIVEZ|APPELEZ|CONTACTEZ)/,
      /\bARRETEZ (?:DE|LES|VOS)\b/,
      /\bPLUS DE (?:MESSAGES?|SMS|TEXTOS?|COURRIELS?|MAILS?|LETTRES)/,
      /\b(?:RETIREZ|SUPPRIMEZ|EFFACEZ) (?:MOI|MON|MA|MES)\b/,
      /\bLAISSEZ MOI (?:TRANQUILLE|EN PAIX)/,
    ],
  },
  {
    language: 'es',
    patterns: [
      /\bDE BAJA\b/,
      /\bNO (?:ME )?(?:ENVIEN?|ESCRIBAN?|MANDEN?|LLAMEN?|CONTACTEN?)\b/,
      /\bDEJEN? DE (?:ENVIAR|ESCRIBIR|MANDAR|LLAMAR|MOLESTAR)/,
      /\bNO QUIERO (?:MAS|RECIBIR)\b/,
      /\b(?:BORREN?|ELIMINEN?|QUITEN?)(?:ME)?\b.{0,12}\b(?:NUMERO|CORREO|LISTA|DATOS)\b/,
    ],
  },
  {
    language: 'de',
    patterns: [
      /\b(?:ABMELD|ABBESTELL|AUSTRAGEN)/,
      /\bKEINE (?:WEITEREN )?(?:NACHRICHTEN|SMS|MAILS|EMAILS|E MAILS|ANRUFE|BRIEFE|POST|WERBUNG)\b/,
      /\bHOREN SIE AUF\b|\bHORT AUF\b/,
      /\b(?:SCHREIBEN SIE|SCHREIBT|RUFEN SIE|RUFT) MI(?:R|CH) NICHT\b/,
      /\bNICHT MEHR (?:SCHREIBEN|ANRUFEN|KONTAKTIEREN|SCHICKEN|MAILEN)\b/,
      /\b(?:LOSCHEN|STREICHEN) SIE (?:MICH|MEINE)\b|\bLASST MICH IN RUHE\b|\bLASSEN SIE MICH IN RUHE\b/,
      /\bWIDERRUFE\b.{0,30}\b(?:EINWILLIGUNG|ZUSTIMMUNG)\b/,
    ],
  },
];

/** What speaks of stopping and asks for nothing of it. */
export const NOT_STOPPING: readonly RegExp[] = [
  /\b(?:DO NOT|DONT|NEVER|CANT|CANNOT|COULDNT|WONT|WOULDNT|DIDNT|NOT) (?:EVER )?(?:STOP|QUIT|UNSUBSCRIBE|REMOVE|CANCEL)\b/,
  /\b(?:STOP BY|STOP AT THE|STOP IN|BUS STOP|LAST STOP|NEXT STOP|PIT STOP|NON ?STOP)\b/,
];
