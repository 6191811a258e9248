import { htmlToText } from 'html-to-text';
import { compileLetter, escapeHtml, wrapLetter, type LetterDoc } from '@goodword/core/letter';
import { compile, render, slotsOf, type Compiled, type MergeFault, type MergeValues, type Registry, type Slot } from '@goodword/core/merge';

/** A message ready to be filled for any number of people. */
export interface Composed {
  subject: Compiled;
  html: Compiled;
  text: Compiled;
  links: string[];
  /** The slots that people's values fill, in all parts. */
  slots: Slot[];
}

export interface EmailSource {
  subject: string;
  preheader: string;
  letter: LetterDoc;
}

export interface EmailAround {
  registry: Registry;
  organization: string;
  postalAddress: string;
  why: string;
  publicUrl: string;
}

const MARK = /\uE000(\d+)\uE001/;

/**
 * Makes the plain text from the HTML, once for all people: slots go through the converter as marks that mean nothing to
 * it and are slots again behind it.
 */
function plainTextOf(html: Compiled): Compiled {
  const slots: Slot[] = [];
  const marked = html.parts
    .map((part) => {
      if (typeof part === 'string') return part;
      slots.push(part);
      return part.key === 'pixel' ? '' : `\uE000${slots.length - 1}\uE001`;
    })
    .join('');
  const text = htmlToText(marked, {
    wordwrap: false,
    selectors: [
      { selector: 'img', format: 'skip' },
      { selector: 'a', options: { hideLinkHrefIfSameAsText: true, linkBrackets: ['<', '>'] } },
      ...['h1', 'h2', 'h3'].map((selector) => ({ selector, options: { uppercase: false } })),
    ],
  });
  const parts = text.split(MARK).map((piece, i) => (i % 2 === 0 ? piece : slots[Number(piece)]!));
  return { parts: parts.filter((part) => part !== ''), faults: [] };
}

export function composeEmail(source: EmailSource, around: EmailAround): Composed {
  const letter = compileLetter(source.letter, { registry: around.registry, imageUrl: (src) => `${around.publicUrl}${src}` });
  const wrapped = wrapLetter(letter, { organization: around.organization, postalAddress: around.postalAddress, why: around.why }, source.preheader);
  const subject = compile(source.subject, around.registry);
  const own = [...slotsOf(subject), ...slotsOf(letter.html)].filter((slot) => !slot.key.startsWith('link:'));
  return { subject, html: wrapped.html, text: plainTextOf(wrapped.html), links: letter.links, slots: own };
}

export function composeText(body: string, registry: Registry): Composed {
  const text = compile(body, registry);
  const none: Compiled = { parts: [], faults: [] };
  return { subject: none, html: none, text, links: [], slots: slotsOf(text) };
}

/** Every fault of the merge language in a message, with where it is. */
export function mergeFaults(
  source: { subject: string; letter: LetterDoc | null; text: string },
  registry: Registry,
): { where: 'subject' | 'letter' | 'text'; fault: MergeFault; excerpt: string }[] {
  const faultsIn = (where: 'subject' | 'letter' | 'text', text: string) =>
    compile(text, registry).faults.map((fault) => ({ where, fault, excerpt: text.slice(fault.span.from, fault.span.to) }));
  return [
    ...faultsIn('subject', source.subject),
    ...faultsIn('text', source.text),
    ...textsOf(source.letter).flatMap((text) => faultsIn('letter', text)),
  ];
}

function textsOf(node: unknown): string[] {
  const { text, attrs, content } = (node ?? {}) as { text?: string; attrs?: { label?: string }; content?: unknown[] };
  return [...(text ? [text] : []), ...(attrs?.label ? [attrs.label] : []), ...(content ?? []).flatMap(textsOf)];
}

export interface Filled {
  subject: string;
  html: string;
  text: string;
}

/** One person's message. Values are escaped in the HTML and stand as they are elsewhere; a subject is one line. */
export function fill(composed: Composed, values: MergeValues): Filled {
  const { pixel, ...visible } = values;
  const html = render(
    { parts: composed.html.parts.map((part) => (typeof part !== 'string' && part.key === 'pixel' ? (pixel ?? '') : part)), faults: [] },
    visible,
    escapeHtml,
  );
  return { subject: render(composed.subject, visible).replace(/\s+/g, ' ').trim(), html, text: render(composed.text, visible) };
}
