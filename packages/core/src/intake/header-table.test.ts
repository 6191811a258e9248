import fc from 'fast-check';
import type { ColumnChoice } from './columns';
import { saysRefused } from './consents';
import { guessColumn } from './guess';
import { cleanRow } from './row';
import { profileColumn } from './testing';

/*
 * How sheets of the trade name their columns, in four languages, each over values as they stand in such
 * sheets. Common practice without a source, written down from sheets and from what programs export; no
 * outside list is behind it. A guess is right, or it is no target at all and so asks; of a column about
 * permission nothing else will do.
 */
const EMAILS = ['ann@example.org', 'bo@example.com', 'cy@example.net'];
const PHONES_US = ['206 555 0141', '(206) 555-0142', '+1 206 555 0143'];
const PHONES_DE = ['030 23125 014', '+49 30 23125 015', '0171 3920 016'];
const FIRST = ['Ann', 'Bo', 'Cyd'];
const LAST = ['Quay', 'van der Reef', "O'Shoal"];
const WHOLE = ['Ann Quay', 'Bo van der Reef', "Cyd O'Shoal"];
const STREETS = ['12 Quay Street', '3 Mill Lane', '77 Pier Road'];
const TOWNS = ['Seattle', 'Tacoma', 'Everett'];
const ZIPS = ['98101', '98402-1234', '98201'];
const REGIONS = ['WA', 'OR', 'WA'];
const COUNTRIES = ['US', 'Canada', 'Germany'];
const YES = ['Yes', 'No', 'Yes'];
const JA = ['ja', 'nein', 'ja'];
const OUI = ['oui', 'non', 'oui'];
const SI = ['sí', 'no', 'sí'];
const IDS = ['A-1001', 'A-1002', 'A-1003'];
const TAGS = ['menders, oars', 'oars', 'crew, menders'];

type Row = [header: string, values: string[], to: string, country?: string];
const all = (headers: string[], values: string[], to: string, country?: string): Row[] =>
  headers.map((header) => (country ? [header, values, to, country] : [header, values, to]));
const TABLE: Row[] = [
  // English
  ...all(
    [
      'Email',
      'E-mail',
      'Email address',
      'E-Mail Address',
      'EMAIL_ADDRESS',
      'Primary email',
      'Contact email',
      'Mail',
    ],
    EMAILS,
    'email',
  ),
  ...all(
    [
      'Phone',
      'Mobile',
      'Cell',
      'Cell phone',
      'Phone number',
      'Mobile number',
      'Telephone',
      'Home phone',
      'Primary Phone',
    ],
    PHONES_US,
    'mobile',
  ),
  ...all(['First name', 'First', 'Given name', 'firstname', 'FIRST_NAME', 'Forename'], FIRST, 'firstName'),
  ...all(['Last name', 'Surname', 'Family name', 'lastname', 'Last'], LAST, 'lastName'),
  ...all(['Name', 'Full name', 'Donor name', 'Contact name'], WHOLE, 'fullName'),
  ...all(
    ['Street', 'Address', 'Address 1', 'Street address', 'Mailing address', 'Address line 1'],
    STREETS,
    'street',
  ),
  ...all(['City', 'Town', 'City/Town'], TOWNS, 'city'),
  ...all(['ZIP', 'Zip code', 'Postcode', 'Postal code', 'ZIP/Postal'], ZIPS, 'postcode'),
  ...all(['State', 'Province', 'State/Province', 'Region'], REGIONS, 'region'),
  ...all(['Country', 'Country code'], COUNTRIES, 'country'),
  ...all(['Tags', 'Labels', 'Keywords'], TAGS, 'tags'),
  ...all(['Member ID', 'Constituent ID', 'Donor ID', 'Contact ID', 'Supporter no.'], IDS, 'externalId'),
  ...all(
    ['Newsletter', 'Email opt-in', 'Subscribed', 'May we email you?', 'Email consent', 'Receive emails'],
    YES,
    'consent',
  ),
  ...all(['Text opt-in', 'SMS consent', 'May we text you?'], YES, 'consent'),
  ...all(
    [
      'Email opt-out',
      'Do not email',
      'Unsubscribed',
      'No newsletter',
      'Consent withdrawn',
      'Do not contact',
      'Opted out of email',
    ],
    YES,
    'refusal',
  ),
  // German
  ...all(['E-Mail', 'E-Mail-Adresse', 'Mailadresse', 'Email-Adresse'], EMAILS, 'email', 'DE'),
  ...all(
    ['Telefon', 'Handy', 'Mobil', 'Telefonnummer', 'Handynummer', 'Mobilnummer'],
    PHONES_DE,
    'mobile',
    'DE',
  ),
  ...all(['Vorname'], FIRST, 'firstName', 'DE'),
  ...all(['Nachname', 'Familienname', 'Zuname'], LAST, 'lastName', 'DE'),
  ...all(['Straße', 'Strasse', 'Anschrift', 'Straße und Hausnummer'], STREETS, 'street', 'DE'),
  ...all(['PLZ', 'Postleitzahl'], ['10115', '80331', '01067'], 'postcode', 'DE'),
  ...all(['Ort', 'Stadt', 'Wohnort'], ['Berlin', 'München', 'Köln'], 'city', 'DE'),
  ...all(['Land'], ['Deutschland', 'Österreich', 'Schweiz'], 'country', 'DE'),
  ...all(['Bundesland'], ['Bayern', 'Hessen', 'Berlin'], 'region', 'DE'),
  ...all(['Mitgliedsnummer', 'Mitglieds-Nr.', 'Spendernummer', 'Kundennummer'], IDS, 'externalId', 'DE'),
  ...all(['Newsletter', 'Einwilligung E-Mail', 'Darf per E-Mail angeschrieben werden'], JA, 'consent', 'DE'),
  ...all(
    [
      'Newsletter abbestellt',
      'Kein Newsletter',
      'Einwilligung widerrufen',
      'Nicht anschreiben',
      'Werbesperre',
    ],
    JA,
    'refusal',
    'DE',
  ),
  // French
  ...all(['Courriel', 'Adresse e-mail', 'Adresse électronique', 'Mél'], EMAILS, 'email', 'FR'),
  ...all(
    ['Téléphone', 'Portable', 'Tél. mobile', 'Numéro de téléphone'],
    ['06 12 34 56 78', '+33 6 98 76 54 32', '01 42 68 53 00'],
    'mobile',
    'FR',
  ),
  ...all(['Prénom'], FIRST, 'firstName', 'FR'),
  ...all(['Nom', 'Nom de famille'], LAST, 'lastName', 'FR'),
  ...all(['Adresse', 'Rue'], STREETS, 'street', 'FR'),
  ...all(['Code postal'], ['75001', '69002', '13001'], 'postcode', 'FR'),
  ...all(['Ville', 'Commune'], ['Paris', 'Lyon', 'Marseille'], 'city', 'FR'),
  ...all(['Pays'], ['France', 'Belgique', 'Suisse'], 'country', 'FR'),
  ...all(['Accepte la newsletter', "Inscrit à l'infolettre", 'Consentement e-mail'], OUI, 'consent', 'FR'),
  ...all(
    ['Désinscrit', 'Ne pas contacter', 'Refuse la newsletter', 'Désabonné de la newsletter'],
    OUI,
    'refusal',
    'FR',
  ),
  // Spanish
  ...all(['Correo electrónico', 'Correo', 'Dirección de correo'], EMAILS, 'email', 'ES'),
  ...all(
    ['Teléfono', 'Móvil', 'Celular'],
    ['612 34 56 78', '+34 611 22 33 44', '912 34 56 78'],
    'mobile',
    'ES',
  ),
  ...all(['Nombre'], FIRST, 'firstName', 'ES'),
  ...all(['Apellido', 'Apellidos'], LAST, 'lastName', 'ES'),
  ...all(['Dirección', 'Calle', 'Domicilio'], STREETS, 'street', 'ES'),
  ...all(['Código postal', 'C.P.'], ['28001', '08001', '41001'], 'postcode', 'ES'),
  ...all(['Ciudad', 'Localidad', 'Población'], ['Madrid', 'Sevilla', 'Bilbao'], 'city', 'ES'),
  ...all(['País'], ['España', 'México', 'Chile'], 'country', 'ES'),
  ...all(['Provincia'], ['Madrid', 'Sevilla', 'Bizkaia'], 'region', 'ES'),
  ...all(['Acepta boletín', 'Suscrito al boletín'], SI, 'consent', 'ES'),
  ...all(['Baja del boletín', 'No contactar', 'No desea recibir correos', 'Cancelado'], SI, 'refusal', 'ES'),
];

const guessOf = ([header, values, , country = 'US']: Row) =>
  guessColumn(header, profileColumn(values, country), []);
/** Below this the page asks, and says that it is not sure. */
const SURE = 0.65;

test('the table holds at least 120 headers in four languages', () => {
  expect(new Set(TABLE.map(([header]) => header)).size).toBeGreaterThanOrEqual(120);
});

test.each(TABLE)('“%s” over %j is %s', (...row) => {
  const [, , to] = row;
  const { choice, confidence } = guessOf(row);
  if (choice.to === to) return;
  // What it does not know it asks; a word about permission is never taken for its opposite, nor a no for
  // nothing.
  expect([choice.to, confidence < SURE]).toEqual([expect.not.stringMatching(/^(consent|refusal)$/), true]);
});

test('nine of ten are right at once', () => {
  const right = TABLE.filter((row) => guessOf(row).choice.to === row[2]);
  expect(right.length / TABLE.length).toBeGreaterThan(0.9);
});

/** Values of many kinds, whatever stands above them. */
const VALUES: Record<string, string[]> = {
  ...{
    emails: EMAILS,
    phones: PHONES_US,
    names: WHOLE,
    streets: STREETS,
    zips: ZIPS,
    yes: YES,
    tags: TAGS,
    ids: IDS,
  },
  days: ['2025-03-14', '25/12/2025', '12/31/2024'],
  amounts: ['$25.00', '1,250.00', '€ 40'],
  numbers: ['3', '12', '7.5'],
  codes: ['007', '012', '0103'],
  statuses: ['unsubscribed', 'subscribed', 'opted out'],
  refused: ['unsubscribed', 'opted out', 'abgemeldet'],
  links: ['https://a.example.org', 'www.example.com', 'http://b.example.net/x'],
  words: ['blue', 'green', 'n/a'],
  broken: ['@@', '??', '12.3.4'],
  countries: COUNTRIES,
};
const BIRTHS: ReadonlySet<number> = new Set();
const read = (choice: ColumnChoice, cell: string, country: string) =>
  cleanRow([cell], {
    what: 'people',
    columns: [choice],
    country,
    currency: 'USD',
    today: 20_700,
    births: BIRTHS,
  });
const unread = (choice: ColumnChoice, cell: string, country: string) =>
  read(choice, cell, country).faults.length > 0;

test('a guess that is sure never contradicts its values: most of them can be read as what it says', () => {
  const header = fc.constantFrom(...new Set(TABLE.map(([name]) => name)), 'Birthday', 'Notes', 'Amount', 'x');
  const kinds = fc.array(fc.constantFrom(...Object.keys(VALUES)), { minLength: 1, maxLength: 3 });
  const country = fc.constantFrom('US', 'GB', 'DE', 'FR', 'ES');
  fc.assert(
    fc.property(header, kinds, country, fc.nat(3), (name, some, where, blanks) => {
      const cells = some.flatMap((kind) => VALUES[kind]!);
      const profile = profileColumn([...cells, ...Array.from({ length: blanks }, () => '')], where);
      const { choice, confidence } = guessColumn(name, profile, [{ id: 1, name: 'Hours', type: 'number' }]);
      if (confidence < SURE || choice.to === 'leave') return;
      // Slips in addresses are told one by one: a column that is named so stays one, if any cell of it is.
      if (choice.to === 'email' && profile.ats > 0) return;
      const bad = cells.filter((cell) => unread(choice, cell, where));
      expect({ choice, bad: bad.length * 2 <= cells.length }).toEqual({ choice, bad: true });
      // Of those who left nobody is made somebody who agreed.
      if (choice.to === 'consent')
        for (const cell of cells.filter(saysRefused))
          expect(read(choice, cell, where).consent[choice.channel]).not.toBe(true);
    }),
    { numRuns: 3000 },
  );
});
