import { actOf } from './BulkForm';

test.each([
  ['tag', { id: '3', on: 'on' }, { do: 'tag', tagId: 3, on: true }],
  ['tag', { on: 'on' }, null],
  ['list', { id: '3', on: 'off' }, { do: 'list', listId: 3, on: false }],
  ['field', { id: '3' }, { do: 'field', fieldId: 3, text: '' }],
  ['roster', { id: '3', stage: '-' }, { do: 'roster', campaignId: 3, stage: null }],
  ['roster', { id: '3' }, null],
  [
    'permission',
    { channel: 'email', scope: 'news', how: 'paper', on: '2026-01-02', words: ' ', voucher: 'Rosa' },
    null,
  ],
  [
    'permission',
    {
      channel: 'email',
      scope: 'news',
      how: 'paper',
      on: '2026-01-02',
      words: 'Write to me',
      voucher: 'Rosa',
    },
    {
      do: 'permission',
      channel: 'email',
      scopes: ['news'],
      how: 'paper',
      on: '2026-01-02',
      words: 'Write to me',
      voucher: 'Rosa',
    },
  ],
  ['export', { form: 'vcard' }, { do: 'export', form: 'vcard', fields: [] }],
] as const)('%s of %j', (kind, typed, act) => expect(actOf(kind, typed)).toEqual(act));
