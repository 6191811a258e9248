import juice from 'juice';
import { sanitizeOwn, takenOut, type TakenOut } from './sanitize';

/*
 * Takes the styles of a page to its elements and takes out what no mail may carry, in a process of its own
 * with a cap on its memory and its time: a page can be made so that this takes for ever. Nothing is fetched.
 */
export type CleanedPage = { html: string; taken: TakenOut };

/** The body of a page, as an element of its own with the body's look. */
function bodyOf(html: string): string {
  const found = /<body\b([^>]{0,2000})>([\s\S]*?)(?:<\/body\s*>|$)/i.exec(html);
  if (!found) return html;
  const styles = (html.slice(0, found.index).match(/<style\b[^>]{0,200}>[^<]*<\/style\s*>/gi) ?? []).join('');
  return `${styles}<div${found[1]}>${found[2]}</div>`;
}

function cleaned(html: string): CleanedPage {
  const inlined = juice(html, {
    preserveMediaQueries: true,
    removeStyleTags: true,
    applyAttributesTableElements: false,
    preserveImportant: true,
  });
  return { html: sanitizeOwn(bodyOf(inlined)), taken: takenOut(html) };
}

const pieces: Buffer[] = [];
process.stdin
  .on('data', (piece: Buffer) => pieces.push(piece))
  .on('end', () => {
    process.stdout.write(JSON.stringify(cleaned(Buffer.concat(pieces).toString('utf8'))));
  });
