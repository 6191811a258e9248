import { t } from '@lingui/core/macro';

const SEVERAL = (n: number, one: string, many: string) => (n === 0 ? [] : [n === 1 ? one : `${n} ${many}`]);

/**
 * What of pasted HTML does not come along into a letter, in words; nothing where all of it does. Words
 * themselves always come: of a table they stand line by line, of a quotation as paragraphs.
 */
export function droppedFrom(html: string): string[] {
  const page = new DOMParser().parseFromString(html, 'text/html');
  const all = (selector: string) => [...page.body.querySelectorAll<HTMLElement>(selector)];
  const styled = all('[style], font, [bgcolor]').some(
    (one) =>
      one.tagName === 'FONT' ||
      one.hasAttribute('bgcolor') ||
      /(^|[;\s])(color|background|font-(family|size))/i.test(one.getAttribute('style') ?? ''),
  );
  return [
    ...SEVERAL(
      all('img').filter((one) => !one.getAttribute('src')?.startsWith('/media/')).length,
      t`a picture from elsewhere`,
      t`pictures from elsewhere`,
    ),
    ...SEVERAL(all('table').length, t`the columns of a table`, t`tables, of which the words stay`),
    ...(all('u, s, del, strike, code, pre, sub, sup').length > 0 ? [t`underlines and the like`] : []),
    ...(all('video, audio, iframe, object, embed, form, input, button, select, textarea, svg, canvas')
      .length > 0
      ? [t`films, forms and the like`]
      : []),
    ...(styled ? [t`colours and fonts`] : []),
  ];
}

/** "Pasted without a picture from elsewhere, colours and fonts." */
export function droppedWords(dropped: readonly string[]): string {
  return dropped.length === 0
    ? ''
    : t`Pasted without ${new Intl.ListFormat('en', { type: 'conjunction' }).format(dropped)}. The words are all here.`;
}
