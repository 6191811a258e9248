import { plural, t } from '@lingui/core/macro';
import type { LastLook } from '@goodword/core/contract';
import type { Note } from '../ui/margin';

/** What a text comes to over all who get it: segments, what they cost, and what makes them more. */
export function textNotes(
  total: number,
  texts: NonNullable<LastLook['texts']>,
  price: (units: number) => string,
  write: () => void,
): Note[] {
  const { byParts, costly, saved, cost } = texts;
  const each = byParts.map(({ parts, people }) => {
    const segments = plural(parts, { one: '# segment', other: '# segments' });
    return plural(people, { one: `# person gets ${segments}`, other: `# people get ${segments}` });
  });
  const notes: Note[] = [
    {
      key: 'parts',
      tone: byParts.length > 1 ? 'doubt' : 'good',
      title:
        cost === null
          ? t`${total} text ${plural(total, { one: 'segment', other: 'segments' })} in all`
          : t`${total} text ${plural(total, { one: 'segment', other: 'segments' })}, ${price(cost)}`,
      body: [...each, cost === null ? t`what one costs is said in Setup` : ''].filter(Boolean).join('; '),
    },
  ];
  // Where each text is one segment whatever its letters, they cost nothing.
  if (costly.length > 0 && byParts.some(({ parts }) => parts > 1))
    notes.push({
      key: 'costly',
      tone: 'doubt',
      title: t`Values with letters that cost more`,
      body: [
        ...costly.slice(0, 4).map(({ name, people }) => `${name}: ${people}`),
        ...(saved > 0 ? [t`written plainly, ${saved} fewer segments`] : []),
      ].join('; '),
      remedy: saved > 0 ? { words: t`Write them plainly`, act: write } : undefined,
    });
  return notes;
}
