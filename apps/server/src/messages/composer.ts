import { htmlToText } from 'html-to-text';
import {
  compileLetter,
  escapeHtml,
  hrefsIn,
  letterTexts,
  wrapLetter,
  type LetterDoc,
  type WrittenWords,
} from '@goodword/core/letter';
import { aroundText } from '@goodword/core/text';
import {
  compile,
  render,
  slotsOf,
  type CompiledTemplate,
  type MergeFault,
  type MergeValues,
  type Registry,
  type MergeSlot,
} from '@goodword/core/merge';
import { said } from '@goodword/core/common';

/** A message ready to be filled for any number of people. */
export interface Composed {
  subject: CompiledTemplate;
  html: CompiledTemplate;
  text: CompiledTemplate;
  links: string[];
  /** The slots that people's values fill, in all parts. */
  slots: MergeSlot[];
}

export interface EmailSource {
  subject: string;
  preheader: string;
  letter: LetterDoc;
}

export interface EmailAround {
  registry: Registry;
  imprint: string;
  why: string;
  publicUrl: string;
}

const MARK = /\uE000(\d+)\uE001/;

/**
 * Makes the plain text from the HTML, once for all people: slots go through the converter as marks that mean
 * nothing to it and are slots again behind it.
 */
function plainTextOf(html: CompiledTemplate): CompiledTemplate {
  const slots: MergeSlot[] = [];
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
  const letter = compileLetter(source.letter, {
    registry: around.registry,
    imageUrl: (src) => `${around.publicUrl}${src}`,
  });
  const preheader = compile(source.preheader, around.registry);
  const wrapped = wrapLetter(letter, { imprint: around.imprint, why: around.why }, preheader);
  const subject = compile(source.subject, around.registry);
  const own = [...slotsOf(subject), ...slotsOf(preheader), ...slotsOf(letter.html)].filter(
    (slot) => !slot.key.startsWith('link:'),
  );
  return { subject, html: wrapped.html, text: plainTextOf(wrapped.html), links: letter.links, slots: own };
}

/**
 * A text with who sends it and how to end it; the end is a slot, empty for whom the house's rule leaves it
 * out.
 */
export function composeText(
  body: string,
  around: { registry: Registry; organization: string; locale: string },
): Composed {
  const { lead, end } = aroundText(body, around.organization, around.locale);
  const own = compile(body, around.registry);
  const parts = [
    ...(lead ? [lead] : []),
    ...own.parts,
    ...(end ? [{ key: 'end', name: 'end', or: end }] : []),
  ];
  const text: CompiledTemplate = { parts, faults: own.faults };
  const none: CompiledTemplate = { parts: [], faults: [] };
  return { subject: none, html: none, text, links: [], slots: slotsOf(own) };
}

/** A letter on paper: its words alone, without the way out that a mail has under it. */
export function composePost(letter: LetterDoc, around: EmailAround): Composed {
  const none: CompiledTemplate = { parts: [], faults: [] };
  const { html, links } = compileLetter(letter, {
    registry: around.registry,
    imageUrl: (src) => `${around.publicUrl}${src}`,
  });
  return { subject: none, html, text: plainTextOf(html), links, slots: slotsOf(html) };
}

/** Words to be read out: as they stand. */
export function composeScript(body: string, registry: Registry): Composed {
  const none: CompiledTemplate = { parts: [], faults: [] };
  const text = compile(body, registry);
  return { subject: none, html: none, text, links: [], slots: slotsOf(text) };
}

/** Every fault of the merge language in a message, with where it is. */
export function mergeFaults(
  source: WrittenWords,
  registry: Registry,
): { where: 'subject' | 'preheader' | 'letter' | 'text'; fault: MergeFault; excerpt: string }[] {
  const faultsIn = (where: 'subject' | 'preheader' | 'letter' | 'text', text: string) =>
    compile(text, registry).faults.map((fault) => ({
      where,
      fault,
      excerpt: text.slice(fault.span.from, fault.span.to),
    }));
  return [
    ...faultsIn('subject', source.subject),
    ...faultsIn('preheader', source.preheader),
    ...faultsIn('text', source.text),
    ...letterTexts(source.letter).flatMap((text) => faultsIn('letter', text)),
    ...hrefsIn(source.letter)
      .filter((href) => slotsOf(compile(href, registry)).length > 0)
      .map((href) => ({
        where: 'letter' as const,
        fault: {
          span: { from: 0, to: href.length },
          said: said('merge.in-link'),
          suggestion: null,
        },
        excerpt: href,
      })),
  ];
}

export interface FilledText {
  subject: string;
  html: string;
  text: string;
}

/**
 * One person's message. Values are escaped in the HTML and stand as they are elsewhere; a subject is one
 * line.
 */
export function filledText(composed: Composed, values: MergeValues): FilledText {
  const { pixel, ...visible } = values;
  const html = render(
    {
      parts: composed.html.parts.map((part) =>
        typeof part !== 'string' && part.key === 'pixel' ? (pixel ?? '') : part,
      ),
      faults: [],
    },
    visible,
    escapeHtml,
  );
  // Where the house's rule leaves the way out of a text away, its value is there and empty.
  const body =
    visible.end === ''
      ? composed.text.parts.filter((part) => typeof part === 'string' || part.key !== 'end')
      : composed.text.parts;
  const text = render({ parts: body, faults: [] }, visible);
  return { subject: render(composed.subject, visible).replace(/\s+/g, ' ').trim(), html, text };
}
