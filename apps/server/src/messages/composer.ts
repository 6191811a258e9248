import {
  compileLetter,
  escapeLines,
  hrefsIn,
  letterTexts,
  wrapLetter,
  type LetterDoc,
  type LetterFrame,
  type LetterSurroundings,
  type WrittenWords,
} from '@goodword/core/letter';
import { aroundText, markLinks, partsOfMarked, straighten, type ShiftLanguage } from '@goodword/core/text';
import {
  conditionsOf,
  compile,
  isLinkKey,
  joinLiterals,
  render,
  slotsOf,
  type MergeFault,
  type MergePart,
  type MergeValues,
  type Registry,
  type MergeSlot,
} from '@goodword/core/merge';
import { SAMPLE_LINK } from '../platform/short-links';
import { fillMail, mailSkeleton, type MailSkeleton } from '@goodword/core/mail';
import type { Rule } from '@goodword/core/segment';

/** A message ready to be filled for any number of people. */
export interface Composed {
  subject: MergePart[];
  preheader: MergePart[];
  html: MergePart[];
  text: MergePart[];
  /** Addresses behind the links as typed: they may have merge fields in them. */
  links: string[];
  /** Likewise, ready to be filled. */
  hrefs: MergePart[][];
  /** What the writer wrote, without what stands around it: what people's values fill, in all parts. */
  own: MergePart[];
  /** The sentences of personal blocks: `fits:0` is the first. */
  rules: Rule[];
  /** What passages in the words ask of people, by their keys. */
  conditions: string[];
  /** Values are written in the letters that cost least: a text whose writer wants it so. */
  plainly: boolean;
  /** A short link as each will have one, where links are short; null where they are not. */
  short: string | null;
  /** Languages whose national tables the gateway takes. */
  shiftTables: readonly ShiftLanguage[];
}

/** The key of a value that is there for whom how to end texts is left out. */
export const NO_END = 'noEnd';

export interface EmailSource {
  subject: string;
  preheader: string;
  letter: LetterDoc;
}

export interface EmailAround extends LetterSurroundings {
  organization: string;
  imprint: string;
  why: string;
  leaveWords: string;
  /** BCP 47. */
  language: string;
}

const isOwn = ({ key }: MergeSlot) => !/^(link:|link\.preferences$|ask\.|sender\.picture$)/.test(key);

/** Parts without the slots that are not people's. */
function ownParts(parts: readonly MergePart[]): MergePart[] {
  return parts.flatMap((part): MergePart[] => {
    if (typeof part === 'string') return [];
    if (!('when' in part)) return isOwn(part) ? [part] : [];
    return [{ when: part.when, then: ownParts(part.then), otherwise: ownParts(part.otherwise) }];
  });
}

function composed(
  parts: Pick<Composed, 'text'> & Partial<Pick<Composed, 'subject' | 'preheader' | 'html'>>,
  written: readonly MergePart[],
  registry: Registry,
  { links = [], rules = [] }: { links?: string[]; rules?: Rule[] } = {},
): Composed {
  const hrefs = links.map((href) => compile(href, registry).parts);
  return {
    subject: parts.subject ?? [],
    preheader: parts.preheader ?? [],
    html: parts.html ?? [],
    text: parts.text,
    links,
    hrefs,
    own: ownParts([...written, ...hrefs.flat()]),
    rules,
    conditions: conditionsOf({ parts: [...written] }),
    plainly: false,
    short: null,
    shiftTables: [],
  };
}

export function composeEmail(source: EmailSource, around: EmailAround): Composed {
  const { registry } = around;
  const letter = compileLetter(source.letter, around);
  const { subject, preheader } = source;
  const frame: LetterFrame = { ...around, subject, preheader };
  const { html, plain } = wrapLetter(letter, source.letter, frame, around);
  const heads = { subject: compile(subject, registry).parts, preheader: compile(preheader, registry).parts };
  const written = [...heads.subject, ...heads.preheader, ...letter.html];
  return composed({ ...heads, html, text: plain }, written, registry, letter);
}

/**
 * A text with who sends it and how to end it; the end is a slot, empty for whom the house's rule leaves it
 * out.
 */
export function composeText(
  body: string,
  around: {
    registry: Registry;
    organization: string;
    locale: string;
    plainly?: boolean;
    /** The host of short links. */
    linkUrl: string;
    shiftTables: readonly ShiftLanguage[];
  },
): Composed {
  const { lead, end } = aroundText(body, around.organization, around.locale);
  const { marked, links } = markLinks(body);
  const own = withLinks(compile(marked, around.registry).parts);
  // Where the house's rule leaves the way out away, their values say so.
  const ending: MergePart[] = end ? [{ when: NO_END, then: [], otherwise: [end] }] : [];
  const text = joinLiterals([lead, ...own, ...ending]);
  return {
    ...composed({ text }, own, around.registry, { links }),
    plainly: around.plainly ?? false,
    short: `${around.linkUrl}/${SAMPLE_LINK}`,
    shiftTables: around.shiftTables,
  };
}

/** Marks of links as slots: what stands there is known when it leaves. */
function withLinks(parts: readonly MergePart[]): MergePart[] {
  return parts.flatMap((part): MergePart[] => {
    if (typeof part !== 'string')
      return 'when' in part
        ? [{ when: part.when, then: withLinks(part.then), otherwise: withLinks(part.otherwise) }]
        : [part];
    return partsOfMarked(part).map((one) =>
      typeof one === 'number' ? { key: `link:${one}`, name: 'Link', or: '' } : one,
    );
  });
}

/** A letter on paper: its words alone, without the way out that a mail has under it. */
export function composePost(letter: LetterDoc, around: EmailAround): Composed {
  const { html, plain, links, rules } = compileLetter(letter, around);
  return composed({ html, text: plain }, html, around.registry, { links, rules });
}

/** Words to be read out: as they stand. */
export function composeScript(body: string, registry: Registry): Composed {
  const text = compile(body, registry).parts;
  return composed({ text }, text, registry);
}

/** All slots of a message, those of its addresses among them. */
export const slotsIn = ({ subject, html, text, hrefs }: Composed): MergeSlot[] =>
  slotsOf({ parts: [...subject, ...html, ...text, ...hrefs.flat()] });

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
    ...hrefsIn(source.letter).flatMap((href) => faultsIn('letter', href)),
  ];
}

export interface FilledText {
  subject: string;
  preheader: string;
  html: string;
  text: string;
}

/**
 * The address behind each link of a message for one person: values stand in it as parts of an address, but
 * for those that are addresses themselves.
 */
export function filledLinks({ hrefs }: Composed, values: MergeValues): string[] {
  return hrefs.map((parts) => {
    const href = render({ parts }, values, (value, { key }) =>
      isLinkKey(key) ? value : encodeURIComponent(value),
    );
    // What is asked behind a page that asks something already goes on with it.
    const [first] = parts;
    if (!first || typeof first === 'string' || 'when' in first || !isLinkKey(first.key)) return href;
    const page = values[first.key] ?? '';
    return page.includes('?') ? page + href.slice(page.length).replace('?', '&') : href;
  });
}

/** As it stands before it leaves: a short link for each that has one. */
function shownLinks(composed: Composed, values: MergeValues): string[] {
  const { short } = composed;
  const hrefs = filledLinks(composed, values);
  return short === null ? hrefs : hrefs.map((href) => (/^https?:/i.test(href) ? short : href));
}

/**
 * One person's message. Values are escaped in the HTML and stand as they are elsewhere; a subject is one
 * line. Links lead where `links` says, by their numbers: where they were written to lead, where nothing is
 * said.
 */
export function filledText(composed: Composed, values: MergeValues, links?: readonly string[]): FilledText {
  const all = withHrefs(values, links ?? shownLinks(composed, values));
  return {
    subject: filledSubject(composed, all),
    preheader: render({ parts: composed.preheader }, all).trim(),
    html: render({ parts: composed.html }, all, escapeLines),
    text: render({ parts: composed.text }, all, composed.plainly ? straighten : undefined),
  };
}

const filledSubject = ({ subject }: Composed, all: MergeValues): string =>
  render({ parts: subject }, all).replace(/\s+/g, ' ').trim();

function withHrefs(values: MergeValues, hrefs: readonly string[]): MergeValues {
  const all: MergeValues = { ...values };
  for (const [at, href] of hrefs.entries()) all[`link:${at}`] = href;
  return all;
}

const skeletons = new WeakMap<Composed, MailSkeleton>();

/** One person's mail as it goes over the wire: what is the same for everybody is encoded once. */
export function filledMail(
  composed: Composed,
  values: MergeValues,
  links: readonly string[],
): { subject: string; body: string } {
  let skeleton = skeletons.get(composed);
  if (!skeleton) skeletons.set(composed, (skeleton = mailSkeleton(composed)));
  const all = withHrefs(values, links);
  return { subject: filledSubject(composed, all), body: fillMail(skeleton, all, escapeLines) };
}

/** All words of a message, those of every passage, without anybody's values: what is ours in a reply. */
export function everyWording(composed: Composed): string {
  const all = (parts: readonly MergePart[]): string =>
    parts
      .map((part) =>
        typeof part === 'string'
          ? part
          : 'when' in part
            ? all(part.then) + all(part.otherwise)
            : (part.or ?? ''),
      )
      .join('');
  return all(composed.text);
}
