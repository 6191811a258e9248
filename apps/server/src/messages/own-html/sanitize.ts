import { Parser } from 'htmlparser2';
import sanitizeHtml from 'sanitize-html';
import { imageIdOf, isSafeLink } from '@goodword/core/letter';

/** What was taken out of a page, by kind; of what is not here nothing was. */
export interface TakenOut {
  /** Elements that do something or fetch something: script, form, iframe. */
  active: number;
  /** Attributes that run something. */
  handlers: number;
  /** Pictures that lie elsewhere, or can't be shown. */
  pictures: number;
  /** Links that lead nowhere safe. */
  links: number;
  /** Styles that fetch something, or that no mail reader may be given. */
  styles: number;
}

const TAGS = (
  'a abbr address article aside b big blockquote br caption center cite code col colgroup dd del div dl dt em ' +
  'figure figcaption font footer h1 h2 h3 h4 h5 h6 header hr i img ins li main mark ol p pre q s section small ' +
  'span strike strong sub sup table tbody td tfoot th thead time tr u ul wbr'
).split(' ');

/** Words alone in the document's head, or what a parser adds: nothing is lost with them. */
const HARMLESS = new Set(['html', 'head', 'body', 'title', 'meta', 'style', '!doctype']);

const EVERYWHERE = (
  'align valign bgcolor border cellpadding cellspacing class color dir face height id lang role size style ' +
  'title width aria-hidden aria-label'
).split(' ');

const PROPERTIES = (
  'background background-color border border-bottom border-bottom-color border-bottom-style ' +
  'border-bottom-width border-collapse border-color border-left border-left-color border-left-style ' +
  'border-left-width border-radius border-right border-right-color border-right-style border-right-width ' +
  'border-spacing border-style border-top border-top-color border-top-style border-top-width border-width ' +
  'box-sizing clear color direction display empty-cells float font font-family font-size font-style ' +
  'font-variant font-weight height hyphens letter-spacing line-height list-style list-style-type margin ' +
  'margin-bottom margin-left margin-right margin-top max-height max-width min-height min-width opacity ' +
  'overflow overflow-wrap padding padding-bottom padding-left padding-right padding-top table-layout ' +
  'text-align text-decoration text-indent text-transform unicode-bidi vertical-align visibility white-space ' +
  'width word-break word-spacing word-wrap mso-line-height-rule mso-table-lspace mso-table-rspace ' +
  '-webkit-text-size-adjust -ms-text-size-adjust'
).split(' ');

/** A value that fetches nothing and runs nothing; an escape could hide either. */
const SAFE_VALUE = /^(?!.*(?:url\s*\(|expression|script|@import|\\|<|&#))[^;{}]{1,300}$/i;
const STYLES = Object.fromEntries(PROPERTIES.map((property) => [property, [SAFE_VALUE]]));

/** CSS of a whole element: queries of the screen and plain rules, that fetch nothing and run nothing. */
const HOSTILE_CSS =
  /@import|@font-face|@namespace|url\s*\(|expression|behaviou?r|-moz-binding|script|\\|<|&#/i;
const STYLE_ELEMENT = /<style\b[^>]{0,200}>([^<]*)<\/style\s*>/gi;

const OPTIONS: sanitizeHtml.IOptions = {
  allowedTags: TAGS,
  allowedAttributes: {
    '*': EVERYWHERE,
    a: ['href', 'name'],
    img: ['src', 'alt'],
    td: ['colspan', 'rowspan', 'headers', 'scope'],
    th: ['colspan', 'rowspan', 'headers', 'scope'],
    col: ['span'],
    colgroup: ['span'],
    ol: ['start', 'type'],
    li: ['value'],
    time: ['datetime'],
  },
  allowedStyles: { '*': STYLES },
  // Addresses are judged once more below, by the rule of letters.
  allowedSchemes: ['http', 'https', 'mailto', 'tel'],
  allowProtocolRelative: false,
  nonTextTags: ['script', 'style', 'textarea', 'option', 'noscript', 'title', 'template', 'iframe', 'object'],
  enforceHtmlBoundary: false,
  transformTags: {
    a: (tagName, { href, ...attribs }) => ({
      tagName,
      attribs: href !== undefined && isSafeLink(href) ? { href, ...attribs } : attribs,
    }),
  },
  exclusiveFilter: ({ tag, attribs }) => tag === 'img' && imageIdOf(attribs.src ?? '') === null,
};

const inOneGo = (html: string): string => {
  const kept: string[] = [];
  const rest = html.replace(STYLE_ELEMENT, (_all, css: string) => {
    if (css.trim() !== '' && !HOSTILE_CSS.test(css)) kept.push(css.trim());
    return '';
  });
  const styles = kept.map((css) => `<style>${css}</style>`).join('');
  return styles + sanitizeHtml(rest, OPTIONS).trim();
};

/**
 * A page without all that runs, fetches or leads astray: by lists of what may stay, never of what may not.
 * What comes out goes in again unchanged.
 */
export function sanitizeOwn(html: string): string {
  let [before, now] = [html, inOneGo(html)];
  // A part that was taken out can leave two others side by side: gone over until nothing changes.
  for (let i = 0; i < 5 && now !== before; i++) [before, now] = [now, inOneGo(now)];
  return now === before ? now : '';
}

/** What sanitizing takes out of a page, counted. */
export function takenOut(html: string): TakenOut {
  const out: TakenOut = { active: 0, handlers: 0, pictures: 0, links: 0, styles: 0 };
  const parser = new Parser({
    onopentag(name, attributes) {
      if (!TAGS.includes(name) && !HARMLESS.has(name)) out.active += 1;
      if (name === 'img' && imageIdOf(attributes.src ?? '') === null) out.pictures += 1;
      if (name === 'a' && attributes.href !== undefined && !isSafeLink(attributes.href)) out.links += 1;
      for (const [key, value] of Object.entries(attributes)) {
        if (/^on/i.test(key)) out.handlers += 1;
        if (key === 'background' || (key === 'style' && HOSTILE_CSS.test(value))) out.styles += 1;
      }
    },
  });
  parser.end(html);
  for (const [, css = ''] of html.matchAll(STYLE_ELEMENT)) if (HOSTILE_CSS.test(css)) out.styles += 1;
  return out;
}
