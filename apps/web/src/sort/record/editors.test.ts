import { coerce, FIELD_TYPES, type FieldType, type FieldValue } from '@goodword/core/fields';
import { editorOf, plainValue } from './editors';

const field = (type: FieldType, value: FieldValue | null = null, choices: string[] | null = null) => ({
  type,
  value,
  choices,
});

test.each(FIELD_TYPES)('a field of the type %s has an editor', (type) =>
  expect(editorOf(field(type))).toBeDefined(),
);

test.each<[FieldType, FieldValue]>([
  ['date', { date: 20_881 }],
  ['datetime', { date: 20_881, number: 1110 }],
  ['money', { number: 4050 }],
  ['yesno', { number: 0 }],
  ['birthday', { monthDay: 229 }],
  ['longtext', { text: 'One\nTwo' }],
  ['region', { text: 'US-WA' }],
])('what the editor of %s is given reads as the same value again', (type, value) => {
  expect(coerce(type, plainValue(field(type, value)), { order: 'month-first' })).toEqual({ ok: true, value });
});

test('a choice that is offered no more can stay', () => {
  expect(editorOf(field('choice', { text: 'XS' }, ['S', 'M']))).toMatchObject({
    options: [
      ['XS', 'XS'],
      ['S', 'S'],
      ['M', 'M'],
    ],
  });
  expect(editorOf(field('choice', { text: 'S' }, ['S', 'M']))).toMatchObject({
    options: [
      ['S', 'S'],
      ['M', 'M'],
    ],
  });
  expect(editorOf(field('choice'))).toMatchObject({ as: 'line' });
});
