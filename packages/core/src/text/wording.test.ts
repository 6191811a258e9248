import { textAskFaults } from './wording';
import { spoken, standardTextAsk } from '../words';

const HOUSE = 'Lantern Ferry Trust';
const [OFTEN, COST, HELP, STOP] = [
  'how often texts come',
  'what texts may cost',
  'that HELP gets help',
  'that STOP ends it',
];

test('our own words say all of it, for any house', () => {
  expect(spoken(textAskFaults(standardTextAsk(HOUSE, 4), HOUSE))).toEqual([]);
  expect(standardTextAsk(HOUSE, 4)).toContain('about 4 times a month');
});

test('what is missing is named, in the order in which it is asked', () => {
  expect(spoken(textAskFaults('Yes, text me.', HOUSE))).toEqual([
    `who writes (${HOUSE})`,
    OFTEN,
    COST,
    HELP,
    STOP,
  ]);
  expect(spoken(textAskFaults('', HOUSE))).toHaveLength(5);
});

test.each(['LANTERN FERRY TRUST may text me', 'texts of the Lantern  Ferry-Trust', '“Lantern Ferry Trust”'])(
  '%s names the house',
  (words) => expect(spoken(textAskFaults(words, `${HOUSE}.`))).not.toContain(`who writes (${HOUSE}.)`),
);
test('a house of another name, or letters run together, do not', () => {
  expect(spoken(textAskFaults('Ferry Trust of the Lantern', HOUSE))[0]).toContain('who writes');
  expect(spoken(textAskFaults('LanternFerryTrust', HOUSE))[0]).toContain('who writes');
  expect(spoken(textAskFaults('Lantern 4 Ferry Trust', 'Lantern 5 Ferry Trust'))[0]).toContain('who writes');
});

test.each([
  '4 times a month',
  '12 texts each month',
  'several a week',
  'uno al mes',
  'une fois par semaine',
  'un par mois',
  'zwei im Monat',
  'vier Texte in der Woche',
  'two a year',
  'recurring',
  'frequency varies',
  'weekly',
  'envoi mensuel',
  'wöchentlich',
])('“%s” says how often', (words) => expect(spoken(textAskFaults(words, HOUSE))).not.toContain(OFTEN));
test.each(['a month', 'often', 'texts from time to time', '4 texts'])('“%s” does not', (words) =>
  expect(spoken(textAskFaults(words, HOUSE))).toContain(OFTEN),
);

test.each([
  'rates may apply',
  'at your rate',
  'it costs',
  'no charge',
  'fees apply',
  'a fee',
  'free',
  'selon le tarif',
  'selon les tarifs',
  'le coût',
  'les coûts',
  'sin coste',
  'los costes',
  'Kosten fallen an',
  'kostenlos',
  'Gebühr',
  'Gebühren',
  'gratis',
  'gratuit',
  'gratuite',
  'sans frais',
])('“%s” says what they cost', (words) => expect(spoken(textAskFaults(words, HOUSE))).not.toContain(COST));
test.each(['separate', 'coffee', 'carefree days'])('“%s” does not', (words) =>
  expect(spoken(textAskFaults(words, HOUSE))).toContain(COST),
);

test.each([
  ['Reply HELP', [STOP]],
  ['AIDE, ARRET', []],
  ['AYUDA y STOP', []],
  ['HILFE', [STOP]],
  ['help and stop', [HELP, STOP]],
  ['ARRÊT', [HELP]],
])('%s', (words, missing) =>
  expect(spoken(textAskFaults(words, HOUSE)).filter((one) => one === HELP || one === STOP)).toEqual(missing),
);
