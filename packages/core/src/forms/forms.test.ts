import fc from 'fast-check';
import type { FieldType } from '../fields';
import { textAskFaults } from '../text';
import { askName, formFaults, inputName, readAnswer, type FormDefinition, type FormItem } from '.';
import { standardTextAsk, speak, spoken } from '../words';

const TRUST = 'Lantern Ferry Trust';
const item = (of: FormItem['of'], more: Partial<FormItem> = {}): FormItem => ({
  of,
  label: String(of),
  help: '',
  required: false,
  show: 'asked',
  value: '',
  ...more,
});
const form = (more: Partial<FormDefinition> = {}): FormDefinition => ({
  language: 'en',
  title: 'Ferry news',
  intro: '',
  items: [item('firstName', { required: true }), item('email'), item('mobile')],
  asks: [
    { channel: 'email', scope: 'list:1', words: 'You may send me Ferry news by email.' },
    { channel: 'text', scope: 'list:1', words: standardTextAsk(TRUST, 2) },
  ],
  button: 'Join',
  thanks: { words: '', redirect: null },
  confirm: { email: 'rule', subject: 'Confirm', words: 'Please' },
  tagIds: [],
  listIds: [],
  chapterId: 1,
  embedOn: [],
  keyword: null,
  ...more,
});
const KNOWN = {
  organization: TRUST,
  fields: new Set([5, 7, 8]),
  required: new Set([7]),
  unaskable: new Set([8]),
  openLists: new Set([1]),
};
const AROUND = {
  country: 'US',
  types: new Map([
    [5, 'date' as const],
    [6, 'text' as const],
  ]),
};
const read = (posted: Record<string, string>, of = form()) => readAnswer(of, posted, AROUND);
const faultsOf = (posted: Record<string, string>, of = form()) => {
  const answer = read(posted, of);
  return answer.ok ? [] : answer.faults.map((fault) => `${fault.input} ${fault.phrase}`);
};

describe('what keeps a form from being opened', () => {
  test('a sound form has no faults', () => {
    expect(formFaults(form(), KNOWN)).toEqual([]);
  });

  const rows: [string, Partial<FormDefinition>, string][] = [
    ['no address', { items: [item('firstName')], asks: [] }, 'asks for no address'],
    ['the same thing twice', { items: [item('email'), item('email')] }, 'asked twice'],
    ['no permission', { asks: [] }, 'asks for no permission'],
    ['a box about email and no email', { items: [item('mobile')] }, 'does not ask for an email'],
    ['a box about texts and no number', { items: [item('email')] }, 'does not ask for a number'],
    [
      'a list that may not be joined',
      { asks: [{ channel: 'email', scope: 'list:9', words: 'Send me the board notes.' }] },
      'may not be joined by a form',
    ],
    [
      'a box without words',
      { asks: [{ channel: 'email', scope: 'news', words: 'Yes' }] },
      'they are the evidence',
    ],
    [
      'a field that has to be answered, asked as if it had not',
      { items: [item('email'), item(7)] },
      'has to be answered wherever it is asked',
    ],
    ['a file', { items: [item('email'), item(8)] }, "a form can't ask for"],
    ['a field since deleted', { items: [item('email'), item('mobile'), item(77)] }, 'is not there any more'],
    [
      'something hidden and required',
      { items: [item('email'), item('mobile'), item(5, { show: 'hidden', required: true })] },
      "can't be required",
    ],
    [
      'a hidden address',
      { items: [item('email', { show: 'hidden' }), item('mobile')] },
      'An address must be asked for',
    ],
    [
      'a constant without a value',
      { items: [item('email'), item('mobile'), item(5, { show: 'constant' })] },
      'Give the constant value',
    ],
    [
      'a box for post',
      { asks: [{ channel: 'post', scope: 'news', words: 'Write me letters, please.' }] },
      'nobody can confirm a postal address',
    ],
    [
      'a keyword without a box for texts',
      { keyword: 'LAUNCH', asks: [{ channel: 'email', scope: 'news', words: 'Send me the news, please.' }] },
      'A keyword needs a box',
    ],
  ];
  test.each(rows)('%s', (_name, change, words) => {
    expect(
      formFaults(form(change), KNOWN)
        .map((fault) => speak(fault.said))
        .join(' '),
    ).toContain(words);
  });

  test('the words for texts carry organization, frequency, cost, HELP and STOP, and each that is missing is named', () => {
    expect(spoken(textAskFaults(standardTextAsk(TRUST, 4), TRUST))).toEqual([]);
    expect(spoken(textAskFaults('Yes, text me.', TRUST))).toHaveLength(5);
    expect(spoken(textAskFaults(standardTextAsk(TRUST, 4).replace('STOP', 'a word'), TRUST))).toEqual([
      'that STOP ends it',
    ]);
    expect(spoken(textAskFaults(standardTextAsk('Somebody else', 4), TRUST))).toEqual([
      `who writes (${TRUST})`,
    ]);
    expect(
      spoken(
        textAskFaults(
          'Lantern Ferry Trust: 2 SMS im Monat, Kosten wie im Tarif. HILFE für Hilfe, STOP zum Abmelden.',
          TRUST,
        ),
      ),
    ).toEqual([]);
  });
});

describe('what somebody sent in', () => {
  test('is cleaned, and a box counts only when ticked', () => {
    const answer = read({
      firstName: ' ANN ',
      email: 'Ann@Example.ORG',
      mobile: '206 555 0144',
      [askName(0)]: '1',
    });
    expect(answer).toEqual({
      ok: true,
      answer: {
        firstName: 'ANN',
        lastName: '',
        email: { normal: 'ann@example.org', shown: 'Ann@Example.ORG' },
        mobile: { normal: '+12065550144', shown: '+1 206 555 0144', country: 'US' },
        country: null,
        post: null,
        values: [],
        agreed: [form().asks[0]],
      },
    });
  });

  test('email is not needed where only texts are asked for', () => {
    expect(faultsOf({ firstName: 'Bo', mobile: '2065550144', [askName(1)]: '1' })).toEqual([]);
  });

  test('a number of another country is read by its own code, or by the country given before it', () => {
    const abroad = read({ firstName: 'Bo', mobile: '+33 6 12 34 56 78' });
    expect(abroad.ok && abroad.answer.mobile).toMatchObject({ normal: '+33612345678', country: 'FR' });
    const given = read(
      { country: 'fr', mobile: '06 12 34 56 78' },
      form({ items: [item('country'), item('mobile')] }),
    );
    expect(given.ok && given.answer.mobile?.normal).toBe('+33612345678');
  });

  const rows: [string, Record<string, string>, string[]][] = [
    ['a required name left out', { email: 'a@example.org' }, ['firstName required']],
    ['no address at all', { firstName: 'Bo' }, ['email no-address']],
    [
      'a ticked box without its address',
      { firstName: 'Bo', email: 'a@example.org', [askName(1)]: '1' },
      ['mobile address-for-ask'],
    ],
    ['a broken email', { firstName: 'Bo', email: 'a@b' }, ['email email']],
    [
      'one fault for a broken address whose box is ticked',
      { firstName: 'Bo', email: 'a@b', [askName(0)]: '1' },
      ['email email'],
    ],
    ['a broken number', { firstName: 'Bo', mobile: '12' }, ['mobile mobile']],
    ['more than anybody types', { firstName: 'x'.repeat(501), email: 'a@example.org' }, ['firstName long']],
  ];
  test.each(rows)('%s', (_name, posted, faults) => {
    expect(faultsOf(posted)).toEqual(faults);
  });

  test('a constant is never taken from the browser, a hidden value is, and what is not asked is not there', () => {
    const of = form({
      items: [
        item('email'),
        item(5, { show: 'constant', value: '2026-05-01' }),
        item(6, { show: 'hidden', value: 'poster' }),
      ],
      asks: [],
    });
    const answer = read(
      { email: 'a@example.org', field_5: '1999-01-01', field_6: 'banner', field_7: 'x', lastName: 'Quay' },
      of,
    );
    expect(answer.ok && answer.answer.values).toEqual([
      { fieldId: 5, value: { date: 20574 } },
      { fieldId: 6, value: { text: 'banner' } },
    ]);
    expect(answer.ok && answer.answer.lastName).toBe('');
  });

  test('a hidden value that can not be read is nobody’s mistake', () => {
    const of = form({ items: [item('email'), item(5, { show: 'hidden' })] });
    expect(faultsOf({ email: 'a@example.org', field_5: 'someday' }, of)).toEqual([]);
    expect(
      faultsOf({ email: 'a@example.org', field_5: 'someday' }, form({ items: [item('email'), item(5)] })),
    ).toEqual(['field_5 value']);
  });

  test('whatever is posted, the answer holds no permission that was not ticked and no address that was not read', () => {
    const key = fc.constantFrom(
      ...form().items.map(inputName),
      askName(0),
      askName(1),
      'agree_9',
      '__proto__',
      'constructor',
    );
    fc.assert(
      fc.property(fc.dictionary(key, fc.string({ maxLength: 40 })), (posted) => {
        const answer = read(posted);
        if (!answer.ok) return expect(answer.faults.length).toBeGreaterThan(0);
        for (const ask of answer.answer.agreed)
          expect(posted[askName(form().asks.findIndex((one) => one.words === ask.words))]).toBeTruthy();
        expect(Boolean(answer.answer.email ?? answer.answer.mobile)).toBe(true);
      }),
    );
  });
});

describe('an answer by several controls', () => {
  const types = new Map<number, FieldType>([
    [5, 'birthday'],
    [6, 'choices'],
    [7, 'region'],
    [8, 'choice'],
  ]);
  const around = {
    country: 'US',
    types,
    choices: new Map([
      [6, ['dawn', 'dusk']],
      [8, ['bow', 'stern']],
    ]),
  };
  const of = (items: FormItem[]) => form({ items: [item('email'), ...items], asks: [] });
  const answered = (items: FormItem[], posted: Record<string, string>) =>
    readAnswer(of(items), { email: 'a@example.org', ...posted }, around);
  const valueOf = (items: FormItem[], posted: Record<string, string>) => {
    const read = answered(items, posted);
    return read.ok
      ? read.answer.values.map(({ value }) => value)
      : read.faults.map(({ input, phrase }) => `${input} ${phrase}`);
  };

  // RFC 6350, 4.3.1: a date without its year is --MMDD or, in ISO 8601:2000, --MM-DD; 29 February is a
  // birthday.
  test('a birthday is a month and a day, both or none', () => {
    expect(valueOf([item(5)], { 'field_5.month': '2', 'field_5.day': '29' })).toEqual([{ monthDay: 229 }]);
    expect(valueOf([item(5)], { 'field_5.month': '12', 'field_5.day': '3' })).toEqual([{ monthDay: 1203 }]);
    expect(valueOf([item(5)], { 'field_5.month': '', 'field_5.day': '' })).toEqual([]);
    for (const half of [
      { 'field_5.month': '2' },
      { 'field_5.day': '3' },
      { 'field_5.month': '2', 'field_5.day': '30' },
    ])
      expect(valueOf([item(5)], half as Record<string, string>)).toEqual(['field_5 value']);
    expect(valueOf([item(5, { required: true })], {})).toEqual(['field_5 required']);
    // As it was posted by an older page that is still open somewhere.
    expect(valueOf([item(5)], { field_5: '29 February' })).toEqual([{ monthDay: 229 }]);
  });

  test('several choices are those ticked, in the order offered, and nothing else', () => {
    expect(valueOf([item(6)], { 'field_6.1': 'dusk', 'field_6.0': 'dawn' })).toEqual([
      { text: 'dawn; dusk' },
    ]);
    expect(valueOf([item(6)], { 'field_6.1': 'dusk', 'field_6.x': 'noon', 'field_60.0': 'noon' })).toEqual([
      { text: 'dusk' },
    ]);
    expect(valueOf([item(6)], { 'field_6.0': 'noon' })).toEqual(['field_6 value']);
    expect(valueOf([item(8)], { field_8: 'keel' })).toEqual(['field_8 value']);
    expect(valueOf([item(6, { required: true })], {})).toEqual(['field_6 required']);
  });

  test('a region of the house’s country is read by its name or code alone, another with its country', () => {
    expect(valueOf([item(7)], { field_7: 'Washington' })).toEqual([{ text: 'US-WA' }]);
    expect(valueOf([item(7)], { field_7: 'wa' })).toEqual([{ text: 'US-WA' }]);
    expect(valueOf([item(7)], { field_7: 'Victoria, Australia' })).toEqual([{ text: 'AU-VIC' }]);
    expect(valueOf([item(7)], { field_7: 'Atlantis' })).toEqual(['field_7 value']);
  });

  test('a number without its code is of the country chosen beside it', () => {
    const read = answered([item('mobile')], { mobile: '06 12 34 56 78', 'mobile.country': 'FR' });
    expect(read.ok && read.answer.mobile?.normal).toBe('+33612345678');
    const forged = answered([item('mobile')], { mobile: '206 555 0144', 'mobile.country': 'XX' });
    expect(forged.ok && forged.answer.mobile?.normal).toBe('+12065550144');
  });

  test('a postal address is kept in its parts; a country alone is none', () => {
    const posted = {
      'post.street': ' 12 Quay Street ',
      'post.city': 'Seattle',
      'post.postcode': '98101',
      'post.region': 'WA',
      'post.country': 'us',
    };
    const read = answered([item('post')], posted);
    expect(read.ok && read.answer.post).toEqual({
      street: '12 Quay Street',
      city: 'Seattle',
      postcode: '98101',
      region: 'WA',
      country: 'US',
    });
    const none = answered([item('post')], { 'post.country': 'US' });
    expect(none.ok && none.answer.post).toBeNull();
    expect(valueOf([item('post', { required: true })], { 'post.country': 'US' })).toEqual(['post required']);
    // A postcode alone was meant as an address.
    expect(valueOf([item('post')], { 'post.postcode': '98101' })).toEqual(['post required']);
    expect(valueOf([item('post')], { ...posted, 'post.country': 'Atlantis' })).toEqual(['post long']);
    expect(valueOf([item('post')], { ...posted, 'post.country': 'ZZ' })).toEqual(['post value']);
    expect(valueOf([item('post')], { ...posted, 'post.street': 'x'.repeat(201) })).toEqual(['post long']);
  });
});
