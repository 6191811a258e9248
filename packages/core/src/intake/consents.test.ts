import { consentHeader, readConsent, readRefused } from './consents';
import { guessColumn } from './guess';
import { applyLayout } from './layouts';
import { profileColumn } from './testing';

/*
 * Headers of sign-up sheets, of exports of donor and mailing systems and of hand-kept lists, as they are
 * commonly written in four languages (common practice, no source). A question mark: it is asked, and not
 * taken for an agreement meanwhile.
 */
const REFUSE = `
every: Opt-out | Opted out | OptOut | opt_out | Do not contact | DoNotContact | Do-Not-Contact | DNC | Consent withdrawn | Permission refused | Permission denied | No marketing | No contact
  | Marketing opt out | Withdrew consent | Consent revoked | Has objected to marketing | Suppressed | Never contact | Do not solicit | Contact declined | No longer consents
  | Werbesperre | Widerspruch | Einwilligung widerrufen | Keine Werbung | Kontakt nicht erwünscht | Zustimmung verweigert | Nicht kontaktieren | Kontaktsperre
  | Ne pas contacter | Consentement retiré | Refus | Opposition | Sans publicité | Consentement refusé | A refusé
  | No contactar | Baja | Consentimiento revocado | Sin publicidad | Permiso denegado | Dado de baja | Consentimiento retirado
email: Do Not Email | DoNotEmail | do_not_email | No email | No emails please | Email opt-out | EmailOptOut | Email Opted Out | HasOptedOutOfEmail | Newsletter opt-out | No newsletter | Do not subscribe
  | Unsubscribed | Unsubscribed? | unsubscribed_at | Unsubscribed from newsletter | Newsletter cancelled | Don't email | Never email | E-Mail: no | Email permission withdrawn | Email blocked
  | Newsletter abbestellt | Newsletter abgemeldet | Newsletterabmeldung | Keine E-Mails | Kein Newsletter | Keine Mails | E-Mail nicht erlaubt | Newsletter nicht gewünscht
  | Désabonné | Désabonnée de la newsletter | Désinscrit | Pas de courriel | Pas d'e-mail | Ne pas envoyer de courriel | Newsletter refusée | Sans newsletter
  | No enviar correo | Sin boletín | No quiere correos | Baja del boletín | Correo rechazado | Desuscrito | No desea boletín
text: No SMS | Do not text | SMS opt-out | Text opt out | No texts | Don't text | SMS abgelehnt | Keine SMS | Pas de SMS | Sin SMS | No enviar mensajes | Stop SMS
call: Do Not Call | No phone calls | Do not phone | Phone opt-out | No calls | Keine Anrufe | Nicht anrufen | Ne pas appeler | Pas d'appel | No llamar | Sin llamadas | Calls declined
post: No post | Post opt-out | Do not send letters | No postal mail | Keine Briefe | Keine Post | Pas de courrier | Sin cartas | No letters
?: Do not mail | No mail | Not unsubscribed | Not opted out | No mobile contact | No calls or texts | No email or phone`;

const AGREE = `
email: Newsletter | Newsletter? | Email opt-in | Opted in | Consent | Consent given | Email consent | May we email you? | Subscribed | Subscribe to newsletter | Agrees to emails | OK to email | Email ok
  | Einwilligung | Newsletter-Anmeldung Einwilligung | Newsletter erwünscht | E-Mail erlaubt Einwilligung | Abonné | Consentement | Accepte la newsletter | Inscrit à la newsletter
  | Acepta correos | Consentimiento | Suscrito al boletín | Boletín | Rundbrief
text: SMS opt-in | Text consent | May we text you? | OK to text | SMS-Einwilligung | Accepte les SMS | Acepta SMS`;

const NEITHER = `House no. | No. | Number | Nr. | No of children | Not home | Notes | Membership cancelled | Left on | Removed by | Street | Number of calls | Retired | Stop (bus) | Nombre | Nom
  | Volunteer? | Vegetarian | Member | Postcode | Post town | Mobile | Email | Home phone | Telephone | Anrede | Left voicemail | No. of emails | No of calls | Phone no. | Contact no | Mobile No | Tel. no. | No de téléphone | No. de teléfono | Numéro | Número | Sin número`;

const cases = (text: string): [string, string][] =>
  text
    .trim()
    .split('\n')
    .join(' ')
    .split(/(?:^|\s)(every|email|text|call|post|\?): /)
    .slice(1)
    .reduce<[string, string][]>((out, part, i, all) => {
      if (i % 2 === 1) for (const header of part.split('|')) out.push([header.trim(), all[i - 1]!]);
      return out;
    }, []);

test.each(cases(REFUSE))('"%s" is a refusal of %s', (header, channel) => {
  const said = consentHeader(header);
  expect(said?.sense).toBe('refuses');
  if (channel === '?') expect(said!.sure).toBe(false);
  else expect(said).toEqual({ sense: 'refuses', channel, sure: true });
});

test.each(cases(AGREE))('"%s" is an agreement to %s', (header, channel) => {
  expect(consentHeader(header)).toEqual({ sense: 'agrees', channel, sure: true });
});

test.each(NEITHER.split('|').map((header) => header.trim()))('"%s" says nothing of permission', (header) => {
  expect(consentHeader(header)).toBeNull();
});

const VALUES = [
  ['Yes', '', 'No', 'Yes', ''],
  ['1', '0', '1', '0', '1'],
  ['x', '', 'x', '', ''],
  ['unsubscribed', 'subscribed', 'unsubscribed'],
  ['Opted out', '', 'opted in'],
  ['2024-03-01', '', '2025-11-30', '2026-01-02'],
  ['TRUE', 'FALSE', 'TRUE'],
  ['maybe', 'later', 'who knows'],
];

test('no column of refusals is ever taken for an agreement, whatever stands in it', () => {
  for (const [header] of cases(REFUSE))
    for (const values of VALUES) {
      const { choice } = guessColumn(header, profileColumn(values, 'US'), []);
      expect([header, values, choice.to]).not.toEqual([header, values, 'consent']);
    }
});

test('numbers are numbers, however like a refusal their header reads', () => {
  expect(
    guessColumn('No. telephone', profileColumn(['206 555 0101', '206 555 0102'], 'US'), []).choice,
  ).toEqual({ to: 'mobile' });
  expect(guessColumn('No. calls', profileColumn(['0', '12', '3', '7'], 'US'), []).choice).toMatchObject({
    to: 'newField',
    type: 'number',
  });
  expect(
    guessColumn(
      'Unsubscribe link',
      profileColumn(['https://example.org/u/1', 'https://example.org/u/2'], 'US'),
      [],
    ).choice,
  ).toMatchObject({
    type: 'link',
  });
  // The day of a refusal as a spreadsheet counts days.
  expect(guessColumn('Unsubscribed on', profileColumn(['45000', '45120'], 'US'), []).choice).toEqual({
    to: 'refusal',
    channel: 'email',
  });
});

test('what was agreed to is never guessed where the header does not tell, and an agreement to calls or post is none to mail', () => {
  for (const header of [
    'Mobile opt-in',
    'Cell consent',
    'Phone opt-in',
    'Phone consent',
    'OK to call',
    'Post OK',
    'Postal consent',
    'Telefon-Einwilligung',
    'Email and phone consent',
  ]) {
    const { choice } = guessColumn(header, profileColumn(['Yes', 'No', 'Yes'], 'US'), []);
    expect([header, choice.to]).not.toEqual([header, 'consent']);
  }
});

test('a few cells that say neither leave a column of consent what it is', () => {
  const { choice } = guessColumn(
    'Newsletter',
    profileColumn(['Yes', 'No', 'Yes', 'Yes', 'ask again', 'No', 'Yes', 'Yes'], 'US'),
    [],
  );
  expect(choice).toEqual({ to: 'consent', channel: 'email' });
});

test('a column that names refusals in its cells is one, whatever its header says', () => {
  for (const header of [
    'Status',
    'Newsletter',
    'Mailing',
    'Email status',
    'Subscription status',
    'State of list',
    'Abo',
  ]) {
    const { choice } = guessColumn(
      header,
      profileColumn(['subscribed', 'unsubscribed', 'subscribed', 'unsubscribed', 'cleaned'], 'US'),
      [],
    );
    // Either reads them right: a consent column hears a no in "unsubscribed", a column of refusals a refusal.
    expect(['consent', 'refusal']).toContain(choice.to);
  }
});

test.each<[string, boolean | null]>([
  ['Yes', true],
  ['x', true],
  ['unsubscribed', true],
  ['Opted out', true],
  ['2024-03-01', true],
  ['Abgemeldet', true],
  ['No', false],
  ['0', false],
  ['subscribed', false],
  ['opted in', false],
  ['maybe', null],
])('under a refusal, "%s" refuses: %s', (cell, refused) => {
  expect(readRefused(cell, (text) => /^\d{4}-/.test(text))).toBe(refused);
});

test.each<[string, boolean | null]>([
  ['Yes', true],
  ['subscribed', true],
  ['Eingewilligt', true],
  ['unsubscribed', false],
  ['opted out', false],
  ['withdrawn', false],
  ['désabonné', false],
  ['No', false],
  ['maybe', null],
  ['pending', null],
])('under an agreement, "%s" says %s', (cell, says) => {
  expect(readConsent(cell)).toBe(says);
});

test('a layout of before that took a refusal for an agreement is not clicked there', () => {
  const layout = {
    header: ['Email', 'Do Not Email', 'OK'],
    columns: [
      { to: 'email' as const },
      { to: 'consent' as const, channel: 'email' as const },
      { to: 'leave' as const },
    ],
    what: 'people' as const,
  };
  const guess = [
    { to: 'leave' as const },
    { to: 'refusal' as const, channel: 'email' as const },
    { to: 'consent' as const, channel: 'email' as const },
  ];
  expect(applyLayout(layout.header, guess, layout)).toEqual([{ to: 'email' }, guess[1], { to: 'leave' }]);
});
