import { parseYesNo } from '../fields';
import { CHANNELS, type Channel } from '../permission';
import { nameMatchKey } from './clean';

/** Whom a column of refusals speaks of: one channel, or every one. */
export type RefusedChannel = Channel | 'every';

/** What a header says of permission. */
export interface ConsentHeader {
  /** A yes under it is an agreement, or a refusal. */
  sense: 'agrees' | 'refuses';
  channel: RefusedChannel;
  /**
   * Not so where the words can be read in two ways: it is asked then, and taken for the refusal until
   * somebody says.
   */
  sure: boolean;
}

/** No header that anybody wrote is longer. */
const LONGEST = 500;

/** The words of a header without case and marks, cut where people and programs put words together. */
function wordsOf(header: string): string {
  return (
    header
      .slice(0, LONGEST)
      .replace(/(?<=\p{Ll})(?=\p{Lu})/gu, ' ')
      .normalize('NFD')
      .replace(/\p{M}/gu, '')
      .toLowerCase()
      .replace(/ß/g, 'ss')
      .replace(/[^\p{L}\p{N}]+/gu, ' ')
      .trim()
      .replace(/\be mails?\b/g, 'email')
      // "No." is a number as often: in front of what is counted, and behind what has one.
      .replace(/^(?:no|nos|nr|num) (?:de|of|du|des|d) /, 'number of ')
      .replace(/(?<=phone|mobile|tel|telefon|telefono|cell|contact|movil|portable) no$/, ' number')
  );
}

/*
 * Words of headers in English, Spanish, French and German, as forms and programs put them (common practice,
 * no source). Stems are looked for anywhere, since German puts words together; words stand alone.
 */
const stems = (text: string) => new RegExp(text.trim().split(/\s+/).join('|'));
const words = (text: string) => new RegExp(`(?:^| )(?:${text.trim().split(/\s+/).join('|')})(?= |$)`);

/** Says no by itself. */
const REFUSES = stems(`
  opt(?:ed|s)?.?out unsubscri optout blocklist suppress do.?not.?(?:contact|email|text|sms|call|phone|mail|post|send|write|subscribe|market|solicit)
  don.?t.?(?:contact|email|text|sms|call|phone|mail|post|send|write|subscribe)
  abmeld abgemeldet abbestell ausgetragen nicht.anschreiben nicht.kontaktieren widerruf widerspr werbesperre kontaktsperre
  desabonn desinscri refus oppos ne.pas
  desuscri darse.de.baja dado.de.baja dada.de.baja solicito.baja solicita.baja`);
const REFUSES_ALONE = words('dnc dne dnm baja bajas robinson');

/** Turns what it stands beside. */
const TURNS =
  words(`no not non never without none keine? keinen keiner nicht nie ohne pas sans jamais aucun aucune sin nunca ningun ninguna
  withdrawn withdrew withdraws? withdrawal revoked? revokes declined? declines denied? denies objects? objected objection cancelled canceled cancels? removed? removes
  stops? stopped blocked? exclude[ds]? left ended lapsed zuruckgezogen abgelehnt verweigert gesperrt gekundigt entzogen geloscht
  retire retiree retires revoque revoquee annule annulee exclu exclue rechaza rechazado rechazada revocado revocada cancelado cancelada retirado retirada excluido excluida denegado denegada`);

/** What an agreement is called, or the thing that is agreed to. */
const AGREES = stems(`
  consent opt.?in opted.?in permission subscri newsletter einwillig einverstand zustimm rundbrief infobrief erlaubnis
  consentement abonn inscri accord boletin suscri consentimiento acept permiso autoriz`);
const AGREES_ALONE = words(
  'ok okay agrees? agreed may allow allows allowed accepts? accepted wants? wishes receives? darf mochte erwunscht souhaite veut accepte quiere desea',
);

/** Channels by the words for them. English "mail" is the postman's, German and French "Mail" is not. */
const CHANNEL_WORDS: [Channel, RegExp][] = [
  [
    'email',
    words(
      'email emails emailing emailings newsletters? mails courriels? correo correos electronico boletin boletines rundbrief infobrief mailings?',
    ),
  ],
  ['email', stems('(?<!voic)email newsletter courriel')],
  ['text', words('texts? texting sms texto textos whatsapp kurznachricht mensajes?')],
  [
    'call',
    words(
      'calls? calling called phone phoned telephone telephones tel anruf anrufe anrufen telefon telefonisch appel appels appeler appele appelee llamada llamadas llamar telefono',
    ),
  ],
  ['call', stems('telefonwerb')],
  [
    'post',
    words(
      'post postal postmail letters? brief briefe briefpost lettre lettres courrier carta cartas directmail',
    ),
  ],
];
const MOBILE = words('mobile mobiles cell handy mobil portable movil celular');
const EVERY = words(
  'contact\\S* kontakt\\S* communications? comms marketing werbung mailing publicite publicidad anything',
);
/** Left out of the house, and of nothing that is written. */
const ELSEWHERE = words('house number nr num numero street home');

/**
 * What a header says of permission; null where it says nothing of it. A refusal that speaks of no channel is
 * of every one, an agreement that speaks of none is of email.
 */
export function consentHeader(header: string): ConsentHeader | null {
  if (header.length > LONGEST) return null;
  const text = wordsOf(header);
  const agrees = AGREES.test(text) || AGREES_ALONE.test(text);
  const refuses = REFUSES.test(text) || REFUSES_ALONE.test(text);
  const found = channelOf(text);
  const about = found !== null || EVERY.test(text) || AGREES.test(text);
  // A word that refuses by itself has its own "not" in it.
  const rest = text.replace(new RegExp(REFUSES, 'g'), ' ').trim();
  const turned = TURNS.test(rest) && (refuses || (about && !ELSEWHERE.test(text)));
  if (!refuses && !turned)
    return agrees ? { sense: 'agrees', channel: found?.channel ?? 'email', sure: found?.sure ?? true } : null;
  const channel =
    found?.channel ??
    (/newsletter|unsubscri|subscri|abonn|suscri|abmeld|abgemeldet|abbestell|desinscri/.test(text)
      ? 'email'
      : 'every');
  // "Not unsubscribed" is a double no, and "no mail" may mean either kind of mail.
  return { sense: 'refuses', channel, sure: !(refuses && turned) && (found?.sure ?? true) };
}

function channelOf(text: string): { channel: RefusedChannel; sure: boolean } | null {
  const found = new Set(
    CHANNEL_WORDS.filter(([, pattern]) => pattern.test(text)).map(([channel]) => channel),
  );
  if (found.size > 1) return { channel: 'every', sure: false };
  const [channel] = found;
  if (channel) return { channel, sure: true };
  if (/(?:^| )mail(?: |$)/.test(text))
    return { channel: /\b(?:not|no|dont|by|direct)\b/.test(text) ? 'post' : 'email', sure: false };
  // What is agreed to at a mobile may be texts or calls.
  return MOBILE.test(text) ? { channel: 'text', sure: false } : null;
}

/** The channels that a column of refusals closes. */
export function refusedChannels(channel: RefusedChannel): readonly Channel[] {
  return channel === 'every' ? CHANNELS : [channel];
}

const AGREED = `subscribed subscriber optedin optin agreed agrees consented consents granted given accepted allowed permitted abonne abonnee inscrit inscrite accepte angemeldet eingewilligt
  einverstanden zugestimmt erteilt suscrito suscrita acepta aceptado autorizado`;
const REFUSED = `unsubscribed unsubscribe unsub optedout optout withdrawn withdrew revoked refused refuses declined denied notsubscribed notgiven notconsented objected complained complaint spam bounced
  hardbounce hardbounced cleaned suppressed donotcontact donotemail donottext donotcall dnc desabonne desabonnee desinscrit desinscrite refuse refusee abgemeldet abbestellt ausgetragen widerrufen
  abgelehnt verweigert baja dadodebaja rechazado rechaza revocado noacepta nosuscrito`;
const setOf = (text: string) => new Set(text.split(/\s+/));
const [AGREED_WORDS, REFUSED_WORDS] = [setOf(AGREED), setOf(REFUSED)];

/**
 * Reads a cell under a header that agrees; null for what is neither a yes nor a no, which counts as nothing
 * said.
 */
export function readConsent(cell: string): boolean | null {
  const said = parseYesNo(cell);
  if (said !== null) return said;
  const key = nameMatchKey(cell);
  if (REFUSED_WORDS.has(key)) return false;
  return AGREED_WORDS.has(key) ? true : null;
}

/** Whether a cell names a refusal in so many words, whatever its header says. */
export function saysRefused(cell: string): boolean {
  return REFUSED_WORDS.has(nameMatchKey(cell));
}

/**
 * Reads a cell under a header that refuses: true is a refusal, false none, which is no agreement either. A
 * day is the day of the refusal. What nobody can read is taken for a refusal: null, to be told.
 */
export function readRefused(cell: string, isDay: (cell: string) => boolean): boolean | null {
  // Words that name an end of it go before yes and no: "unsubscribed" is no agreement, and here the refusal
  // itself.
  if (saysRefused(cell) || isDay(cell)) return true;
  return AGREED_WORDS.has(nameMatchKey(cell)) ? false : parseYesNo(cell);
}
