import type { FormDefinition, FormItem } from '@goodword/core/forms';
import { HONEYPOT, joinPage, privacyPage, thanksPage, type JoinPage } from './join-page';
import { FORM_SCRIPT, FRAME_SCRIPT } from './scripts';

const item = (of: FormItem['of'], more: Partial<FormItem> = {}): FormItem => ({
  of,
  label: `The ${of}`,
  help: '',
  required: false,
  show: 'asked',
  value: '',
  ...more,
});
const FORM: FormDefinition = {
  language: 'en',
  title: 'Ferry <news>',
  intro: 'Two\nlines',
  items: [
    item('firstName', { required: true, help: 'As friends call you' }),
    item('email'),
    item('country'),
    item(1),
    item(2),
    item(3),
    item(4),
    item(5, { show: 'hidden', value: 'poster' }),
    item(6, { show: 'constant', value: 'secret' }),
  ],
  asks: [{ channel: 'email', scope: 'news', words: 'Write to me "often" & well' }],
  button: 'Join',
  thanks: { words: 'Good.', redirect: null },
  confirm: { email: 'rule', subject: 'Confirm', words: 'Please' },
  tagIds: [],
  listIds: [],
  chapterId: 1,
  embedOn: [],
  keyword: null,
};
const PAGE: JoinPage = {
  slug: 'ferry',
  organization: {
    name: 'Lantern <Ferry> Trust',
    country: 'US',
    imprint: 'Lantern <Ferry> Trust, 1 Slip Lane',
    legalName: 'Lantern <Ferry> Trust',
    postalAddress: '1 Slip Lane',
    logo: null,
  },
  form: FORM,
  types: new Map([
    [1, 'choice'],
    [2, 'yesno'],
    [3, 'date'],
    [4, 'money'],
    [5, 'text'],
    [6, 'text'],
  ]),
  choices: new Map([[1, ['dawn', '"fog" run']]]),
  language: 'en',
  framed: false,
};

test('each kind of question has its control, with a name that the server reads', () => {
  const html = joinPage(PAGE);
  expect(html).toContain(
    '<input type="text" name="firstName" required aria-describedby="firstName-help" autocomplete="given-name"',
  );
  expect(html).toContain('<input type="email" name="email"');
  expect(html).toMatch(
    /<select name="field_1" ?><option value=""><\/option><option value="dawn">dawn<\/option><option value="&#34;fog&#34; run">/,
  );
  expect(html).toMatch(/<select name="field_2"/);
  expect(html).toMatch(/<input type="date" name="field_3"/);
  expect(html).toMatch(/name="field_4" inputmode="decimal"/);
  expect(html).toContain('<input type="hidden" name="field_5" value="poster">');
  expect(html).toContain(`name="${HONEYPOT}"`);
});

describe('what takes more than one control', () => {
  const items = [
    item('mobile'),
    item('email'),
    item('post', { required: true, help: 'For the harbor map' }),
    item(7),
    item(8),
    item(9),
  ];
  const types: JoinPage['types'] = new Map([
    [7, 'birthday'],
    [8, 'choices'],
    [9, 'region'],
  ]);
  const page = (more: Partial<JoinPage> = {}): JoinPage => ({
    ...PAGE,
    form: { ...FORM, items },
    types,
    choices: new Map([[8, ['dawn', 'dusk <3']]]),
    ...more,
  });

  test('is a group with its question, each with a label and a name of its own', () => {
    const html = joinPage(page());
    for (const part of ['street', 'postcode', 'city', 'region', 'country'])
      expect(html).toContain(`name="post.${part}" required`);
    expect(html).toMatch(
      /<fieldset class="field"><legend>The post <span class="small">\(required\)<\/span><\/legend>/,
    );
    expect(html).toContain('<input type="checkbox" name="field_8.1" value="dusk &#60;3">');
    expect(html).toMatch(/<select name="field_7.month"><option value=""><\/option><option value="1">January/);
    expect(html).toContain('<option value="31">31</option></select>');
    expect(html).toContain(
      '<input type="text" name="field_9" maxlength="200" list="regions-9" value=""><datalist id="regions-9">',
    );
    expect(html).toContain('<option value="Washington">');
    // Every label holds a control or text beside one: nothing is asked without a name.
    expect([...html.matchAll(/<(input|select|textarea)(?![^>]*type="hidden")/g)].length).toBeLessThanOrEqual(
      [...html.matchAll(/<label/g)].length + 1,
    );
  });

  test('says the country of a number beside it, that of the house where nobody chose another', () => {
    expect(joinPage(page())).toContain('<option value="US" selected>United States +1</option>');
    const german = joinPage(page({ language: 'de' }), { 'mobile.country': 'FR', mobile: '06 12' });
    expect(german).toContain('<option value="FR" selected>Frankreich +33</option>');
    expect(german).toContain(
      '<input type="tel" name="mobile" autocomplete="tel" maxlength="254" value="06 12">',
    );
  });

  test('keeps what was given when something else needs mending', () => {
    const html = joinPage(
      page(),
      { 'field_7.month': '2', 'field_7.day': '29', 'field_8.1': 'dusk <3', 'post.city': 'Se"attle' },
      [{ input: 'post', phrase: 'required', detail: '' }],
    );
    expect(html).toContain('<option value="2" selected>February</option>');
    expect(html).toContain('<option value="29" selected>29</option>');
    expect(html).toContain('name="field_8.1" value="dusk &#60;3" checked');
    expect(html).not.toContain('value="dawn" checked');
    expect(html).toContain('value="Se&#34;attle"');
    expect(html).toContain('<small class="fault" id="post-fault">Please fill this in.</small>');
    expect(html).toContain(
      'name="post.street" required aria-invalid="true" aria-describedby="post-help post-fault"',
    );
  });

  test('is a line to type in where nothing is there to be chosen', () => {
    expect(joinPage(page({ choices: new Map() }))).toContain(
      '<input type="text" name="field_8" maxlength="500"',
    );
  });
});

test('a constant never leaves the server, and nothing is ticked', () => {
  const html = joinPage(PAGE);
  expect(html).not.toContain('secret');
  expect(html).not.toContain('field_6');
  expect(html).not.toContain(' checked');
});

test('who asks, where they are, how to leave and what becomes of it stand under every form', () => {
  for (const language of ['en', 'es', 'fr', 'de'] as const) {
    const html = joinPage({ ...PAGE, language });
    for (const piece of [
      'Lantern &#60;Ferry&#62; Trust, 1 Slip Lane',
      'STOP',
      `/join/ferry/privacy?lang=${language}`,
    ])
      expect(html).toContain(piece);
    expect(privacyPage(PAGE.organization, language)).toContain('Lantern &#60;Ferry&#62; Trust, 1 Slip Lane');
  }
});

test('what people wrote is escaped wherever it stands', () => {
  const html = joinPage(PAGE, { firstName: '"><script>', field_1: '<' });
  expect(html).toContain('Ferry &#60;news&#62;');
  expect(html).toContain('Two<br>lines');
  expect(html).toContain('Write to me &#34;often&#34; &#38; well');
  expect(html).not.toContain('"><script>');
});

test('countries are named in the language of the page, in its order, without what is no country', () => {
  const names = (language: 'en' | 'de') =>
    [...joinPage({ ...PAGE, language }).matchAll(/<option value="([A-Z]{2})">([^<]+)</g)].map(
      (found) => `${found[1]} ${found[2]}`,
    );
  expect(names('en').slice(0, 2)).toEqual(['AF Afghanistan', expect.stringContaining('Åland')]);
  expect(names('de')).toContain('DE Deutschland');
  expect(names('en').length).toBeGreaterThan(240);
  expect(names('en').join()).not.toMatch(/EU European Union|ZZ|UN United Nations/);
});

test('thanks say what may come by the channels that the form asks for, and never who is known', () => {
  const email = thanksPage(PAGE, '+12065550100');
  expect(email).toContain('look into your mailbox');
  expect(email).not.toContain('YES');
  const both = thanksPage(
    {
      ...PAGE,
      form: { ...FORM, asks: [...FORM.asks, { channel: 'text', scope: 'news', words: 'Text me' }] },
    },
    '+12065550100',
  );
  expect(both).toContain('answer the text we sent with YES');
  expect(both).toContain('START to +12065550100');
});

test('the small scripts are sound JavaScript and name no other place', () => {
  for (const script of [FORM_SCRIPT, FRAME_SCRIPT]) {
    expect(() => new Function(script)).not.toThrow();
    expect(script).not.toMatch(/https?:/);
  }
});
