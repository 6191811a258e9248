import {
  askName,
  inputName,
  partName,
  type AnswerFault,
  type FormDefinition,
  type FormItem,
  type Language,
} from '@goodword/core/forms';
import type { FieldType } from '@goodword/core/fields';
import { escapeHtml as e } from '@goodword/core/letter';
import { attributesOf, names, tag, type Attributes } from '../platform/pages/markup';
import { lines, supporterPage, type PageLogo } from '../platform/pages/page';
import { phrase, PHRASES } from '../platform/pages/phrases';
import { type Phrases } from '../platform/pages/phrases-en';
import { callingCountries, countries, select } from './controls';
import { FIELD_CONTROLS, type FieldAsked } from './field-controls';

/** Of no use to people; robots fill it in. */
export const HONEYPOT = 'gw_leave_empty';

export interface JoinPage {
  slug: string;
  form: FormDefinition;
  types: ReadonlyMap<number, FieldType>;
  choices: ReadonlyMap<number, string[]>;
  language: Language;
  framed: boolean;
  /** Who asks, and where they live. */
  organization: {
    name: string;
    country: string;
    imprint: string;
    legalName: string;
    postalAddress: string;
    logo: PageLogo | null;
  };
}

type Values = Readonly<Record<string, string | undefined>>;

const FAULT_PHRASES = {
  required: 'required',
  email: 'badEmail',
  mobile: 'badMobile',
  value: 'badValue',
  'address-for-ask': 'addressForAsk',
  'no-address': 'noAddress',
  long: 'tooLong',
} as const satisfies Record<AnswerFault['phrase'], keyof Phrases>;

/**
 * The form as a page: works without script, keeps what was typed, and says at each input what is wrong with
 * it.
 */
export function joinPage(page: JoinPage, values: Values = {}, faults: readonly AnswerFault[] = []): string {
  const { form, language } = page;
  const p = PHRASES[language];
  const top = faults.length > 0 ? `<p class="fault" role="alert">${e(p.mend)}</p>` : '';
  const intro = form.intro ? `<p>${lines(form.intro)}</p>` : '';
  const asked = formHtml(page, `/join/${page.slug}${page.framed ? '?frame=1' : ''}`, values, faults);
  const body = `<h1>${e(form.title)}</h1>${intro}${top}${asked}${footHtml(page)}`;
  return supporterPage(form.title, body, {
    language,
    framed: page.framed,
    script: '/join/form.js',
    logo: page.organization.logo,
  });
}

/**
 * Who asks, where they live, what becomes of it, and how to leave: under every form, so that none can be
 * opened without.
 */
function footHtml({ slug, language, organization }: JoinPage): string {
  const p = PHRASES[language];
  const href = `/join/${slug}/privacy?lang=${language}`;
  const privacy = tag('a', { href, target: '_blank', rel: 'noopener' }, e(p.privacy));
  return `<p class="small">${e(organization.imprint)}. ${e(p.formLeave)} ${privacy}</p>`;
}

/** What becomes of what people type into forms. */
export function privacyPage(organization: JoinPage['organization'], language: Language): string {
  const p = PHRASES[language];
  const body = phrase(p.privacyBody, {
    organization: organization.legalName,
    address: organization.postalAddress,
  });
  return supporterPage(
    p.privacyTitle,
    `<h1>${e(p.privacyTitle)}</h1><p>${e(body)}</p><p>${e(p.privacyRights)}</p>`,
    {
      language,
      logo: organization.logo,
    },
  );
}

/** The bare form, for the page and for pasting into another page. */
export function formHtml(
  page: JoinPage,
  action: string,
  values: Values,
  faults: readonly AnswerFault[],
): string {
  const p = PHRASES[page.language];
  const inputs = page.form.items
    .filter((item) => item.show !== 'constant')
    .map((item) => inputHtml(page, item, values, faults));
  const asks = page.form.asks.map((ask, i) => {
    const checked = Boolean(values[askName(i)]);
    const box = tag('input', { type: 'checkbox', name: askName(i), value: 1, checked });
    return tag('label', { class: 'check' }, box, `<span>${lines(ask.words)}</span>`);
  });
  const trap = tag('input', { name: HONEYPOT, tabindex: -1, autocomplete: 'off' });
  const unseen = { class: 'hp', 'aria-hidden': 'true' };
  return tag(
    'form',
    { method: 'post', action, 'accept-charset': 'utf-8', novalidate: true },
    ...inputs,
    tag('div', unseen, `<label>${e(p.optional)} ${trap}</label>`),
    ...asks,
    `<button>${e(page.form.button)}</button>`,
  );
}

const KINDS: Partial<Record<FormItem['of'], [type: string, autocomplete: string]>> = {
  firstName: ['text', 'given-name'],
  lastName: ['text', 'family-name'],
  email: ['email', 'email'],
  mobile: ['tel', 'tel'],
};

function inputHtml(page: JoinPage, item: FormItem, values: Values, faults: readonly AnswerFault[]): string {
  const name = inputName(item);
  const value = values[name] ?? (item.show === 'hidden' ? item.value : '');
  if (item.show === 'hidden') return `<input type="hidden" name="${name}" value="${e(value)}">`;
  const p = PHRASES[page.language];
  const fault = faults.find((one) => one.input === name);
  const attributes = attributesOf({
    required: item.required,
    'aria-invalid': fault && 'true',
    'aria-describedby': names(item.help && `${name}-help`, fault && `${name}-fault`),
  });
  const said = fault ? faultHtml(p, name, fault) : '';
  const help = item.help ? `<small id="${name}-help">${e(item.help)}</small>` : '';
  const mark = item.required ? p.required_mark : p.optional;
  const label = `${e(item.label)} <span class="small">(${e(mark)})</span>`;
  const several = severalControls(page, item, attributes, values);
  if (several) return `<fieldset class="field"><legend>${label}</legend>${several}${help}${said}</fieldset>`;
  const one = control(page, item, `name="${name}"${attributes}`, value);
  return `<label class="field">${label}${one}${help}${said}</label>`;
}

function faultHtml(p: Phrases, name: string, fault: AnswerFault): string {
  const words = phrase(p[FAULT_PHRASES[fault.phrase]], { value: fault.detail });
  return tag('small', { class: 'fault', id: `${name}-fault` }, e(words));
}

/**
 * What is answered by more than one control, each with a name of its own; null for what is answered by one.
 */
function severalControls(page: JoinPage, item: FormItem, attributes: string, values: Values): string | null {
  const p = PHRASES[page.language];
  const named = (part: string) => `name="${partName(item, part)}"${attributes}`;
  const value = (part: string) => values[partName(item, part)] ?? '';
  const partOf = (words: string, control: string) => `<label class="part">${e(words)}${control}</label>`;
  const text = (part: string, words: string, autocomplete: string) =>
    partOf(words, line('text', named(part), { autocomplete, maxlength: 200, value: value(part) }));
  if (item.of === 'mobile') {
    const chosen = value('country') || page.organization.country;
    const codes = select(named('country'), chosen, callingCountries(page.language));
    const name = inputName(item);
    const typed = { autocomplete: 'tel', maxlength: 254, value: values[name] ?? '' };
    const number = line('tel', `name="${name}"${attributes}`, typed);
    return two(partOf(p.numberCountry, codes), partOf(p.number, number));
  }
  if (item.of === 'post') {
    const country = select(
      named('country'),
      value('country') || page.organization.country,
      countries(page.language),
      p.country,
    );
    return (
      text('street', p.street, 'street-address') +
      two(text('postcode', p.postcode, 'postal-code'), text('city', p.town, 'address-level2')) +
      two(text('region', p.region, 'address-level1'), partOf(p.land, country))
    );
  }
  if (typeof item.of !== 'number') return null;
  const part = (of: string | number) => ({
    name: `name="${partName(item, of)}"`,
    attributes,
    value: values[partName(item, of)] ?? '',
  });
  return FIELD_CONTROLS[typeOf(page, item.of)].several?.(fieldAsked(page, item.of), part) ?? null;
}

const two = (left: string, right: string) => `<div class="two">${left}${right}</div>`;

const line = (type: string, named: string, more: Attributes) =>
  `<input type="${type}" ${named}${attributesOf(more)}>`;

const typeOf = (page: JoinPage, fieldId: number): FieldType => page.types.get(fieldId) ?? 'text';

const fieldAsked = (page: JoinPage, fieldId: number): FieldAsked => ({
  id: fieldId,
  language: page.language,
  country: page.organization.country,
  choices: page.choices.get(fieldId) ?? [],
});

function control(page: JoinPage, item: FormItem, attributes: string, value: string): string {
  if (item.of === 'country')
    return select(attributes, value, countries(page.language), PHRASES[page.language].country);
  if (typeof item.of !== 'number') {
    const [type, autocomplete] = KINDS[item.of]!;
    return line(type, attributes, { autocomplete, maxlength: 254, value });
  }
  return FIELD_CONTROLS[typeOf(page, item.of)].one(fieldAsked(page, item.of), attributes, value);
}

/** The same words for everybody: whether somebody is known is nobody else's business. */
export function thanksPage(page: JoinPage, textFrom: string): string {
  const p = PHRASES[page.language];
  const channels = new Set(page.form.asks.map((ask) => ask.channel));
  const notes = [
    channels.has('email') && p.confirmMail,
    channels.has('text') && p.confirmText,
    channels.has('text') && phrase(p.stoppedTexts, { number: textFrom }),
  ];
  const { words } = page.form.thanks;
  const own = words ? `<p class="done">${lines(words)}</p>` : '';
  const said = notes.flatMap((note) => (note ? [`<p>${e(note)}</p>`] : []));
  const body = `<h1>${e(p.thanks)}</h1>${own}${said.join('')}`;
  return supporterPage(p.thanks, body, {
    language: page.language,
    framed: page.framed,
    script: page.framed ? '/join/form.js' : undefined,
  });
}
