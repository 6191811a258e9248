/** A part of a guide under its own heading. */
export interface GuideSection {
  /** Where it is found in the address of the page. */
  key: string;
  title: string;
  /** Markdown (CommonMark with tables). */
  text: string;
}

export interface Guide {
  key: string;
  title: string;
  sections: GuideSection[];
}

const keyOf = (title: string) =>
  title
    .toLowerCase()
    .replace(/[^a-z0-9]+/g, '-')
    .replace(/^-|-$/g, '');

/** A guide cut at its headings; what stands before the first of them goes under the guide's own title. */
export function guideSections(key: string, text: string): Guide {
  const [, title = key, rest = text] = /^# (.*)\n([\s\S]*)$/.exec(text) ?? [];
  const [before = '', ...parts] = rest.split(/^## /m);
  const sections = parts.map((part) => {
    const end = part.indexOf('\n');
    const name = (end < 0 ? part : part.slice(0, end)).trim();
    return { key: `${key}-${keyOf(name)}`, title: name, text: end < 0 ? '' : part.slice(end).trim() };
  });
  return {
    key,
    title,
    sections: before.trim() === '' ? sections : [{ key, title, text: before.trim() }, ...sections],
  };
}

/** Sections in which every word that was typed stands, in any order; those with it in their title first. */
export function found(guides: readonly Guide[], typed: string): (GuideSection & { guide: string })[] {
  const words = typed.toLowerCase().split(/\s+/).filter(Boolean);
  const all = guides.flatMap((guide) =>
    guide.sections.map((section) => ({ ...section, guide: guide.title })),
  );
  if (words.length === 0) return all;
  const has = (text: string) => words.every((word) => text.toLowerCase().includes(word));
  const hits = all.filter((section) => has(`${section.title} ${section.text}`));
  return [...hits.filter(({ title }) => has(title)), ...hits.filter(({ title }) => !has(title))];
}

/** The guide that tells of a page, by its address; null where none does. */
export function guideOf(path: string): string | null {
  if (path.startsWith('/gather/feeds') || path === '/setup/sources') return 'feeds';
  if (path.startsWith('/gather')) return 'gather';
  if (path.startsWith('/house') || path === '/setup/answers') return 'permission';
  if (path === '/setup/files') return 'gather';
  if (path === '/setup/fields') return 'sort';
  if (path.startsWith('/hear-back')) return 'hear-back';
  if (path.startsWith('/sort')) return 'sort';
  if (path === '/setup/sender') return 'send-your-sender';
  if (path.startsWith('/write')) return 'write';
  return path.startsWith('/send') ? 'send' : null;
}
