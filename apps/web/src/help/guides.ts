import { guideSections, type Guide } from './sections';

const files = import.meta.glob<string>('../../../../docs/guide/*.md', {
  query: '?raw',
  import: 'default',
  eager: true,
});

/** The guides of the repository, in the order of the work. */
const ORDER = ['gather', 'feeds', 'sort', 'write', 'send', 'hear-back', 'permission'];

export const GUIDES: readonly Guide[] = Object.entries(files)
  .map(([path, text]) => guideSections(path.slice(path.lastIndexOf('/') + 1, -'.md'.length), text))
  .sort((a, b) => ORDER.indexOf(a.key) - ORDER.indexOf(b.key));
