import type { FormDefinition } from '@goodword/core/forms';
import { textAskFaults } from '@goodword/core/text';
import { askable, changeItem, embedCode, moveItem, withAsk, withItem } from './draft';

const item = (of: 'firstName' | 'email' | 'mobile' | number, more = {}) => ({
  of,
  label: `The ${of}`,
  help: '',
  required: false,
  show: 'asked' as const,
  value: '',
  ...more,
});
const FORM: FormDefinition = {
  language: 'en',
  title: 'Ferry news',
  intro: '',
  items: [item('firstName', { required: true }), item('email'), item('mobile')],
  asks: [],
  button: 'Join',
  thanks: { words: '', redirect: null },
  confirm: { email: 'rule', subject: 'Confirm', words: 'Please' },
  tagIds: [],
  listIds: [],
  chapterId: 1,
  embedOn: [],
  keyword: null,
};
const of = (form: FormDefinition) => form.items.map((one) => one.of);

test('what is asked already is not offered again', () => {
  const field = {
    id: 7,
    name: 'Shirt size',
    type: 'choice' as const,
    section: 'More',
    fallback: null,
    choices: null,
    help: '',
    sensitive: false,
    required: false,
  };
  expect(askable(FORM, [field]).map((one) => one.words)).toEqual([
    'Last name',
    'Country',
    'Postal address',
    'Shirt size',
  ]);
  expect(askable(withItem(FORM, 7, 'Shirt size'), [field]).map((one) => one.words)).toEqual([
    'Last name',
    'Country',
    'Postal address',
  ]);
});

test('items move, change and go, and the others stay in order', () => {
  expect(of(moveItem(FORM, 2, 0))).toEqual(['mobile', 'firstName', 'email']);
  expect(of(moveItem(FORM, 0, 2))).toEqual(['email', 'mobile', 'firstName']);
  expect(of(moveItem(FORM, 9, 0))).toEqual(of(FORM));
  expect(changeItem(FORM, 1, { label: 'Your email' }).items[1]!.label).toBe('Your email');
  expect(of(changeItem(FORM, 1, null))).toEqual(['firstName', 'mobile']);
});

test('a new box for texts begins with words that say all they must', () => {
  const [ask] = withAsk(FORM, 'text', 'Lantern Ferry Trust').asks;
  expect(textAskFaults(ask!.words, 'Lantern Ferry Trust')).toEqual([]);
});

test('what is pasted elsewhere names the form, leaves constants out and escapes what people wrote', () => {
  expect(embedCode('frame', 'https://gw.test/join/ferry', FORM, 'A "title"')).toBe(
    '<script src="https://gw.test/join/frame.js" data-form="ferry" data-title="A &quot;title&quot;"></script>',
  );
  const form = withAsk(
    {
      ...FORM,
      items: [
        ...FORM.items,
        item(7, { show: 'constant', value: 'x' }),
        item(8, { show: 'hidden', value: '<b>' }),
      ],
    },
    'email',
    'A & B',
  );
  const html = embedCode('plain', 'https://gw.test/join/ferry', form, '');
  expect(html).toContain('action="https://gw.test/join/ferry"');
  expect(html).toContain('<input type="text" name="firstName" required>');
  expect(html).toContain('name="field_8" value="&lt;b>"');
  expect(html).not.toContain('field_7');
  expect(html).toContain('A &amp; B may email me');
  expect(html).not.toContain('checked');
});
