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
  const body = `<h1>${e(form.title)}</h1>${form.intro ? `<p>${lines(form.intro)}</p>` : ''}${top}${formHtml(page, `/join/${page.slug}${page.framed ? '?frame=1' : ''}`, values, faults)}${footHtml(page)}`;
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
  const privacy = `<a href="/join/${e(slug)}/privacy?lang=${language}" target="_blank" rel="noopener">${e(p.privacy)}</a>`;
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
  const asks = page.form.asks.map(
    (ask, i) =>
      `<label class="check"><input type="checkbox" name="${askName(i)}" value="1"${values[askName(i)] ? ' checked' : ''}><span>${lines(ask.words)}</span></label>`,
  );
  return `<form method="post" action="${e(action)}" accept-charset="utf-8" novalidate>${inputs.join('')}
<div class="hp" aria-hidden="true"><label>${e(p.optional)} <input name="${HONEYPOT}" tabindex="-1" autocomplete="off"></label></div>${asks.join('')}<button>${e(page.form.button)}</button></form>`;
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
  const described = [item.help && `${name}-help`, fault && `${name}-fault`].filter(Boolean).join(' ');
  const attributes = `${item.required ? ' required' : ''}${fault ? ' aria-invalid="true"' : ''}${described ? ` aria-describedby="${described}"` : ''}`;
  const said = fault
    ? `<small class="fault" id="${name}-fault">${e(phrase(p[FAULT_PHRASES[fault.phrase]], { value: fault.detail }))}</small>`
    : '';
  const help = item.help ? `<small id="${name}-help">${e(item.help)}</small>` : '';
  const label = `${e(item.label)} <span class="small">(${item.required ? e(p.required_mark) : e(p.optional)})</span>`;
  const several = severalControls(page, item, attributes, values);
  if (several) return `<fieldset class="field"><legend>${label}</legend>${several}${help}${said}</fieldset>`;
  return `<label class="field">${label}${control(page, item, `name="${name}"${attributes}`, value)}${help}${said}</label>`;
}

/**
 * What is answered by more than one control, each with a name of its own; null for what is answered by one.
 */
function severalControls(page: JoinPage, item: FormItem, attributes: string, values: Values): string | null {
  const p = PHRASES[page.language];
  const named = (part: string) => `name="${partName(item, part)}"${attributes}`;
  const value = (part: string) => values[partName(item, part)] ?? '';
  const text = (part: string, words: string, autocomplete: string) =>
    `<label class="part">${e(words)}<input type="text" ${named(part)} autocomplete="${autocomplete}" maxlength="200" value="${e(value(part))}"></label>`;
  if (item.of === 'mobile') {
    const chosen = value('country') || page.organization.country;
    const countries = `<label class="part">${e(p.numberCountry)}${select(named('country'), chosen, callingCountries(page.language))}</label>`;
    const number = `<input type="tel" name="${inputName(item)}"${attributes} autocomplete="tel" maxlength="254" value="${e(values[inputName(item)] ?? '')}">`;
    return `<div class="two">${countries}<label class="part">${e(p.number)}${number}</label></div>`;
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
      `<div class="two">${text('postcode', p.postcode, 'postal-code')}${text('city', p.town, 'address-level2')}</div>` +
      `<div class="two">${text('region', p.region, 'address-level1')}<label class="part">${e(p.land)}${country}</label></div>`
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
    return `<input type="${type}" ${attributes} autocomplete="${autocomplete}" maxlength="254" value="${e(value)}">`;
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
  const body = `<h1>${e(p.thanks)}</h1>${page.form.thanks.words ? `<p class="done">${lines(page.form.thanks.words)}</p>` : ''}${notes
    .filter((note): note is string => Boolean(note))
    .map((note) => `<p>${e(note)}</p>`)
    .join('')}`;
  return supporterPage(p.thanks, body, {
    language: page.language,
    framed: page.framed,
    script: page.framed ? '/join/form.js' : undefined,
  });
}

/**
 * Counts who began, and tells a framing page how high the form is. Without it the form works all the same.
 */
export const FORM_SCRIPT = `(function(){var f=document.querySelector('form'),h=0;
if(f)f.addEventListener('input',function(){var u=f.action.split('?')[0]+'/begun';if(navigator.sendBeacon)navigator.sendBeacon(u)},{once:true});
if(parent!==window){var b=document.body,t=function(){var n=b.offsetHeight;if(n!==h){h=n;parent.postMessage({goodWordForm:location.pathname,height:n},'*')}};t();new ResizeObserver(t).observe(b)}})();`;

/** For the page that embeds: puts the frame where the script stands and keeps it as high as the form. */
export const FRAME_SCRIPT = `(function(){var s=document.currentScript,u=new URL(s.src),i=document.createElement('iframe');
i.src=u.origin+'/join/'+s.dataset.form+'?frame=1';i.title=s.dataset.title||'Sign up';i.style.cssText='width:100%;border:0;min-height:420px';
s.parentNode.insertBefore(i,s);addEventListener('message',function(m){if(m.origin===u.origin&&m.source===i.contentWindow&&m.data&&m.data.goodWordForm)i.style.height=m.data.height+'px'})})();`;
