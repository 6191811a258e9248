/** So many letters of a subject stand in a telephone's list of mails; common practice (no source). */
export const SUBJECT_SHOWN = 40;
/** So many of the line after it, from the preview line on; common practice (no source). */
export const LINE_SHOWN = 90;

const letters = new Intl.Segmenter(undefined, { granularity: 'grapheme' });

function cut(text: string, most: number): string {
  const all = [...letters.segment(text)];
  if (all.length <= most) return text;
  const shown = all.slice(0, most - 1).map(({ segment }) => segment);
  return `${shown.join('').trimEnd()}…`;
}

/**
 * What a telephone's list shows of a mail before it is opened: the beginning of the subject, and of the
 * words, the preview line before them. The numbers of links in the plain text are left out, as mail readers
 * take the line from the HTML.
 *
 * @example onTelephone('Planks', 'Two to go.', 'Dear Ada,').line // 'Two to go. Dear Ada,'
 */
export function onTelephone(
  subject: string,
  preheader: string,
  text: string,
): { subject: string; line: string } {
  const line = `${preheader} ${text}`
    .replace(/ \[\d+\]/g, '')
    .replace(/\s+/g, ' ')
    .trim();
  return { subject: cut(subject, SUBJECT_SHOWN), line: cut(line, LINE_SHOWN) };
}
