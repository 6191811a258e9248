import { found, guideOf, guideSections } from './sections';

const GUIDES = [
  guideSections(
    'gather',
    '# Gather\n\nBring people in.\n\n## Likely doubles\n\nA segment of doubles.\n\n## Files\n\nLikely kept.',
  ),
  guideSections('sort', '# Sort\n\n## Segments\n\nA sentence.\n'),
];

test('a guide is cut at its headings, and nothing of it is lost', () => {
  expect(
    guideSections('g', '# Gather: bring in\n\nFirst.\n\n## A file\n\n| a |\n\n## Who said no\nThey.'),
  ).toEqual({
    key: 'g',
    title: 'Gather: bring in',
    sections: [
      { key: 'g', title: 'Gather: bring in', text: 'First.' },
      { key: 'g-a-file', title: 'A file', text: '| a |' },
      { key: 'g-who-said-no', title: 'Who said no', text: 'They.' },
    ],
  });
});

test('words find sections in any order, titles first; no word finds all', () => {
  expect(found(GUIDES, '').map(({ title }) => title)).toEqual([
    'Gather',
    'Likely doubles',
    'Files',
    'Segments',
  ]);
  expect(found(GUIDES, 'DOUBLES likely')[0]!.title).toBe('Likely doubles');
  expect(found(GUIDES, 'segment').map(({ title }) => title)).toEqual(['Segments', 'Likely doubles']);
  expect(found(GUIDES, 'zzz')).toEqual([]);
});

test('a page leads to the guide that tells of it', () => {
  expect(
    [
      '/gather/new',
      '/gather/feeds/3',
      '/sort/segments/3',
      '/hear-back',
      '/house/proof',
      '/send/3',
      '/setup',
      '/setup/fields',
      '/setup/files',
      '/setup/sender',
      '/write/4',
    ].map(guideOf),
  ).toEqual([
    'gather',
    'feeds',
    'sort',
    'hear-back',
    'permission',
    'send',
    null,
    'sort',
    'gather',
    'send-your-sender',
    'write',
  ]);
});
