import {
  choicesOf,
  coerce,
  LONG_TEXT_LIMIT,
  readCountry,
  readRegionIn,
  TEXT_LIMIT,
  usualOrder,
  type FieldType,
  type FieldValue,
} from '../fields';
import { cleanEmail, cleanMobile, cleanName, LONGEST, type Cleaned, type PostalAddress } from '../intake';
import { askName, inputName, type FormAsk, type FormDefinition, type FormItem } from './definition';
import { numberCountry, partName, POSTAL_INPUTS, postedAddress, postedText, type Posted } from './posted';

/** What a person sent in, cleaned. */
export interface FormAnswer {
  firstName: string;
  lastName: string;
  email: { normal: string; shown: string } | null;
  mobile: { normal: string; shown: string; country?: string } | null;
  country: string | null;
  post: PostalAddress | null;
  values: { fieldId: number; value: FieldValue }[];
  agreed: FormAsk[];
}

/** Where a form is: the country of the house, and what is known of the fields that it asks. */
export interface AroundForm {
  country: string;
  types: ReadonlyMap<number, FieldType>;
  /** What may be chosen; a field that is not named here, or that offers nothing, takes any words. */
  choices?: ReadonlyMap<number, readonly string[]>;
}

/** Why an answer can't be taken: about which input, and which of the page's phrases says so. */
export interface AnswerFault {
  input: string;
  phrase: 'required' | 'email' | 'mobile' | 'value' | 'address-for-ask' | 'no-address' | 'long';
  detail: string;
}

/**
 * Reads what a browser posted. A value counts only for an item that the form asks or hides; a constant is
 * never taken from outside; a box counts only when it was ticked.
 */
export function readAnswer(
  form: FormDefinition,
  posted: Posted,
  around: AroundForm,
): { ok: true; answer: FormAnswer } | { ok: false; faults: AnswerFault[] } {
  const faults: AnswerFault[] = [];
  const answer: FormAnswer = {
    firstName: '',
    lastName: '',
    email: null,
    mobile: null,
    country: null,
    post: null,
    values: [],
    agreed: [],
  };
  for (const item of form.items) readItem(item, posted, around, answer, faults);
  form.asks.forEach((ask, i) => {
    if (!posted[askName(i)]) return;
    const reachable = ask.channel === 'email' ? answer.email : ask.channel === 'post' ? true : answer.mobile;
    if (reachable) answer.agreed.push(ask);
    else if (!faults.some((fault) => fault.input === (ask.channel === 'email' ? 'email' : 'mobile')))
      faults.push({
        input: ask.channel === 'email' ? 'email' : 'mobile',
        phrase: 'address-for-ask',
        detail: '',
      });
  });
  if (!answer.email && !answer.mobile && faults.length === 0)
    faults.push({ input: firstAddress(form), phrase: 'no-address', detail: '' });
  return faults.length > 0 ? { ok: false, faults } : { ok: true, answer };
}

function firstAddress(form: FormDefinition): string {
  return form.items.some((item) => item.of === 'email') ? 'email' : 'mobile';
}

function readItem(
  item: FormItem,
  posted: Posted,
  around: AroundForm,
  answer: FormAnswer,
  faults: AnswerFault[],
): void {
  const input = inputName(item);
  const fault = (phrase: AnswerFault['phrase'], detail = '') => faults.push({ input, phrase, detail });
  if (item.of === 'post') return readPost(item, posted, answer, fault);
  const type = typeof item.of === 'number' ? (around.types.get(item.of) ?? 'text') : undefined;
  const given = item.show === 'constant' ? item.value : postedText(item, type, posted);
  const text = item.show === 'hidden' && posted[input] === undefined ? item.value.trim() : given.trim();
  const longest = type === 'longtext' ? LONG_TEXT_LIMIT : TEXT_LIMIT;
  if (text.length > longest) return void fault('long');
  if (text === '') return void (item.required && fault('required'));
  const address = (cleaned: Cleaned, phrase: 'email' | 'mobile') => {
    if (cleaned.ok)
      return {
        normal: cleaned.normal,
        shown: cleaned.shown,
        ...(cleaned.country ? { country: cleaned.country } : {}),
      };
    fault(phrase, text.slice(0, 60));
    return null;
  };
  switch (item.of) {
    case 'firstName':
    case 'lastName':
      answer[item.of] = cleanName(text);
      return;
    case 'email':
      answer.email = address(cleanEmail(text), 'email');
      return;
    case 'mobile':
      answer.mobile = address(
        cleanMobile(text, numberCountry(item, posted) ?? answer.country ?? around.country),
        'mobile',
      );
      return;
    case 'country':
      if (/^[A-Za-z]{2}$/.test(text)) answer.country = text.toUpperCase();
      else fault('value', text.slice(0, 60));
      return;
    default: {
      const coerced = coerceAnswer(item.of, type ?? 'text', text, around);
      if (coerced?.ok) answer.values.push({ fieldId: item.of, value: coerced.value });
      // A hidden item is nobody's mistake: what can't be read is left out.
      else if (item.show === 'asked') fault('value', text.slice(0, 60));
    }
  }
}

/**
 * As a cell of a file; a region may be of the house's own country, and what is chosen must be there to be
 * chosen.
 */
function coerceAnswer(
  field: number,
  type: FieldType,
  text: string,
  { country, choices }: AroundForm,
): ReturnType<typeof coerce> | null {
  const offered = choices?.get(field) ?? [];
  const chosen = type === 'choice' ? [text] : type === 'choices' ? choicesOf(text) : [];
  if (offered.length > 0 && chosen.some((one) => !offered.includes(one))) return null;
  return coerce(type, type === 'region' ? (readRegionIn(country, text) ?? text) : text, {
    order: usualOrder(country),
  });
}

type Fault = (phrase: AnswerFault['phrase'], detail?: string) => void;

function readPost(item: FormItem, posted: Posted, answer: FormAnswer, fault: Fault): void {
  const post = postedAddress(item, posted);
  if (post === null)
    return item.required || POSTAL_INPUTS.some((part) => part !== 'country' && posted[partName(item, part)])
      ? fault('required')
      : undefined;
  if (POSTAL_INPUTS.some((part) => post[part].length > (part === 'country' ? 2 : LONGEST[part])))
    return fault('long');
  if (post.country !== '' && readCountry(post.country) === null)
    return fault('value', post.country.slice(0, 60));
  answer.post = { ...post, country: post.country.toUpperCase() };
}
