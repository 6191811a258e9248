import type { FormDefinition, FormItem } from '@goodword/core/forms';
import { FORM_SCRIPT, FRAME_SCRIPT, HONEYPOT, joinPage, privacyPage, thanksPage, type JoinPage } from './join-page';

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
  expect(html).toContain('<input type="text" name="firstName" required aria-describedby="firstName-help" autocomplete="given-name"');
  expect(html).toContain('<input type="email" name="email"');
  expect(html).toMatch(/<select name="field_1" ?><option value=""><\/option><option value="dawn">dawn<\/option><option value="&#34;fog&#34; run">/);
  expect(html).toMatch(/<select name="field_2"/);
  expect(html).toMatch(/<input type="date" name="field_3"/);
  expect(html).toMatch(/inputmode="decimal" name="field_4"/);
  expect(html).toContain('<input type="hidden" name="field_5" value="poster">');
  expect(html).toContain(`name="${HONEYPOT}"`);
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
    for (const piece of ['Lantern &#60;Ferry&#62; Trust, 1 Slip Lane', 'STOP', `/join/ferry/privacy?lang=${language}`]) expect(html).toContain(piece);
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
    [...joinPage({ ...PAGE, language }).matchAll(/<option value="([A-Z]{2})">([^<]+)</g)].map((found) => `${found[1]} ${found[2]}`);
  expect(names('en').slice(0, 2)).toEqual(['AF Afghanistan', expect.stringContaining('Åland')]);
  expect(names('de')).toContain('DE Deutschland');
  expect(names('en').length).toBeGreaterThan(240);
  expect(names('en').join()).not.toMatch(/EU European Union|ZZ|UN United Nations/);
});

test('thanks say what may come by the channels that the form asks for, and never who is known', () => {
  const email = thanksPage(PAGE, '+12065550100');
  expect(email).toContain('look into your mailbox');
  expect(email).not.toContain('YES');
  const both = thanksPage({ ...PAGE, form: { ...FORM, asks: [...FORM.asks, { channel: 'text', scope: 'news', words: 'Text me' }] } }, '+12065550100');
  expect(both).toContain('answer the text we sent with YES');
  expect(both).toContain('START to +12065550100');
});

test('the small scripts are sound JavaScript and name no other place', () => {
  for (const script of [FORM_SCRIPT, FRAME_SCRIPT]) {
    expect(() => new Function(script)).not.toThrow();
    expect(script).not.toMatch(/https?:/);
  }
});
