import { guessAll, guessKind } from './guess';
import { RecordReader } from './records';
import { profileColumn } from './testing';

/*
 * Sheets as clubs and small charities keep them in four languages (common practice, no source; made up after
 * such). Of each the kind of file, and what its columns become by themselves: "?" stands for what is asked.
 */
const SURE = 0.65;
const FILES: [
  name: string,
  country: string,
  header: string,
  rows: string[],
  kind: string,
  targets: string,
][] = [
  [
    'members of a German club',
    'DE',
    'Mitgl.-Nr.;Anrede;Vorname;Name;Straße;PLZ;Ort;Telefon privat;E-Mail;Geburtsdatum;Austritt',
    [
      '17;Frau;Zoë;Müller;Hafenweg 3;01067;Dresden;0351 4956 010;zoe@example.org;03.04.1962;',
      '18;Herr;Jörg;von der Düne;Kai 7;24103;Kiel;0431 5302 011;j@example.org;29.02.1964;31.12.2025',
    ],
    'people',
    'externalId ? firstName lastName street postcode city mobile email ? ?',
  ],
  [
    'readers of a German newsletter, some of whom have left: days with dots are days, and no telephone numbers',
    'DE',
    'E-Mail-Adresse;Vorname;Angemeldet am;Abgemeldet am;Einwilligung',
    ['a@example.org;Ann;02.03.2025;;ja', 'b@example.org;Bo;05.06.2024;07.08.2025;nein'],
    'people',
    'email firstName signedOn refusal:email consent:email',
  ],
  [
    'payments of a German bank',
    'DE',
    'Buchungstag;Betrag;Spender;E-Mail;Zweck',
    ['15.03.2026;1.250,50;Ann Müller;ann@example.org;Hafen', '24.12.2026;25,00;Bo Özil;bo@example.org;Hafen'],
    'gifts',
    'givenOn amount fullName email appeal',
  ],
  [
    'French consents, one of them turned round',
    'FR',
    "Adresse mail;Prénom;J'accepte de recevoir la newsletter;Ne souhaite pas être appelé",
    ['a@example.org;Ana;Oui;Non', 'b@example.org;Bea;Non;Oui'],
    'people',
    'email firstName consent:email refusal:call',
  ],
  [
    'French gifts',
    'FR',
    'Date du don;Montant du don;Donateur;Courriel',
    ['01/02/2026;50;Ana Quai;a@example.org', '13/02/2026;1 200,00;Bea Port;b@example.org'],
    'gifts',
    'givenOn amount fullName email',
  ],
  [
    'Spanish members, some of whom have left',
    'ES',
    'Nº socio;Nombre;Apellidos;Correo electrónico;Móvil;C.P.;Población;Baja',
    [
      '1;Ana;García Muelle;ana@example.org;612 34 56 78;28001;Madrid;',
      '2;Beto;Núñez;beto@example.org;611 22 33 44;08001;Barcelona;30/06/2025',
    ],
    'people',
    '? firstName lastName email mobile postcode city refusal:every',
  ],
  [
    'a sheet in two languages',
    'CA',
    'Prénom / First name;Nom / Last name;Courriel / Email;Infolettre / Newsletter',
    ['Ana;Quai;a@example.org;Oui', 'Bob;Pier;b@example.org;No'],
    'people',
    'firstName lastName email consent:email',
  ],
  [
    'an export with an opt-out and an opt-in',
    'US',
    'EMAIL;FNAME;LNAME;EMAIL_OPT_OUT;SMS_OPT_IN;ST',
    ['a@example.org;Al;Bo;TRUE;FALSE;WA', 'b@example.org;Cy;Di;FALSE;TRUE;OR'],
    'people',
    'email firstName lastName refusal:email consent:text region',
  ],
  [
    'names in one piece beside first names stay whole',
    'US',
    'First name;Name;Email',
    ['Ann;Ann Quay;a@example.org', 'Bo;Bo van der Reef;b@example.org'],
    'people',
    'firstName fullName email',
  ],
  [
    'whether they agreed, in sentences, is asked',
    'US',
    'Email;Consent',
    ['a@example.org;I agree', 'b@example.org;I do not agree', 'c@example.org;I agree'],
    'people',
    'email ?',
  ],
];

test.each(FILES)('%s', (_name, country, head, rows, kind, targets) => {
  const header = head.split(';');
  const cells = rows.map((row) => row.split(';'));
  const profiles = header.map((_one, i) =>
    profileColumn(
      cells.map((row) => row[i]!),
      country,
    ),
  );
  const what = guessKind(header, profiles);
  const told = guessAll(header, profiles, [], what).map(({ choice, confidence }) =>
    confidence < SURE ? '?' : 'channel' in choice ? `${choice.to}:${choice.channel}` : choice.to,
  );
  expect([what, told.join(' ')]).toEqual([kind, targets]);
});

// RFC 5322, 3.4: a name with a comma in it stands in quotes before the address.
test('an address book, one mailbox a line, is a column of names with addresses, however it comes in pieces', () => {
  const text = '"Quay, Ann" <ann@example.org>,\r\nBob Reef <bob@example.org>;\r\n"Li" <li@example.org>\r\n';
  const lines = [
    ['"Quay, Ann" <ann@example.org>'],
    ['Bob Reef <bob@example.org>'],
    ['"Li" <li@example.org>'],
  ];
  for (const cut of [text.length, 40]) {
    const reader = new RecordReader({ encoding: 'utf-8', delimiter: ',' });
    const bytes = new TextEncoder().encode(text);
    expect([
      ...reader.push(bytes.subarray(0, cut)),
      ...reader.push(bytes.subarray(cut)),
      ...reader.end(),
    ]).toEqual(lines);
  }
  const { choice } = guessAll(['Column 1'], [profileColumn(lines.flat(), 'US')], [])[0]!;
  expect(choice).toEqual({ to: 'nameEmail' });
  // A table whose first cell is quoted stays a table.
  const table = new RecordReader({ encoding: 'utf-8', delimiter: ',' });
  expect([...table.push(new TextEncoder().encode('"a, b",<c@d.example>\n')), ...table.end()]).toEqual([
    ['a, b', '<c@d.example>'],
  ]);
});
