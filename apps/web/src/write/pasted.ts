const SEVERAL = (n: number, one: string, many: string) => (n === 0 ? [] : [n === 1 ? one : `${n} ${many}`]);

/**
 * What of pasted HTML does not come along into a letter, in words; nothing where all of it does. Words themselves always
 * come: of a table they stand line by line, of a quotation as paragraphs.
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
      'a picture from elsewhere',
      'pictures from elsewhere',
    ),
    ...SEVERAL(all('table').length, 'the columns of a table', 'tables, of which the words stay'),
    ...(all('u, s, del, strike, code, pre, sub, sup').length > 0 ? ['underlines and the like'] : []),
    ...(all('blockquote').length > 0 ? ['the bar of a quotation'] : []),
    ...(all('hr').length > 0 ? ['rules across the page'] : []),
    ...(all('video, audio, iframe, object, embed, form, input, button, select, textarea, svg, canvas').length > 0
      ? ['films, forms and the like']
      : []),
    ...(styled ? ['colours and fonts'] : []),
  ];
}

/** "Pasted without a picture from elsewhere, colours and fonts." */
export function droppedWords(dropped: readonly string[]): string {
  return dropped.length === 0 ? '' : `Pasted without ${new Intl.ListFormat('en', { type: 'conjunction' }).format(dropped)}. The words are all here.`;
}
