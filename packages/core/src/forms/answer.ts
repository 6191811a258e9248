import { coerce, LONG_TEXT_LIMIT, TEXT_LIMIT, usualOrder, type FieldType, type FieldValue } from '../fields';
import { cleanEmail, cleanMobile, cleanName, type Cleaned } from '../intake';
import { askName, inputName, type FormAsk, type FormDefinition, type FormItem } from './definition';

/** What a person sent in, cleaned. */
export interface FormAnswer {
  firstName: string;
  lastName: string;
  email: { normal: string; shown: string } | null;
  mobile: { normal: string; shown: string; country?: string } | null;
  country: string | null;
  values: { fieldId: number; value: FieldValue }[];
  agreed: FormAsk[];
}

/** Why an answer can't be taken: about which input, and which of the page's phrases says so. */
export interface AnswerFault {
  input: string;
  phrase: 'required' | 'email' | 'mobile' | 'value' | 'address-for-ask' | 'no-address' | 'long';
  detail: string;
}

/**
 * Reads what a browser posted. A value counts only for an item that the form asks or hides; a constant is never taken
 * from outside; a box counts only when it was ticked.
 */
export function readAnswer(
  form: FormDefinition,
  posted: Readonly<Record<string, string | undefined>>,
  around: { country: string; types: ReadonlyMap<number, FieldType> },
): { ok: true; answer: FormAnswer } | { ok: false; faults: AnswerFault[] } {
  const faults: AnswerFault[] = [];
  const answer: FormAnswer = { firstName: '', lastName: '', email: null, mobile: null, country: null, values: [], agreed: [] };
  for (const item of form.items) readItem(item, posted, around, answer, faults);
  form.asks.forEach((ask, i) => {
    if (!posted[askName(i)]) return;
    const reachable = ask.channel === 'email' ? answer.email : ask.channel === 'post' ? true : answer.mobile;
    if (reachable) answer.agreed.push(ask);
    else if (!faults.some((fault) => fault.input === (ask.channel === 'email' ? 'email' : 'mobile')))
      faults.push({ input: ask.channel === 'email' ? 'email' : 'mobile', phrase: 'address-for-ask', detail: '' });
  });
  if (!answer.email && !answer.mobile && faults.length === 0) faults.push({ input: firstAddress(form), phrase: 'no-address', detail: '' });
  return faults.length > 0 ? { ok: false, faults } : { ok: true, answer };
}

function firstAddress(form: FormDefinition): string {
  return form.items.some((item) => item.of === 'email') ? 'email' : 'mobile';
}

function readItem(
  item: FormItem,
  posted: Readonly<Record<string, string | undefined>>,
  around: { country: string; types: ReadonlyMap<number, FieldType> },
  answer: FormAnswer,
  faults: AnswerFault[],
): void {
  const input = inputName(item);
  const text = (item.show === 'constant' ? item.value : (posted[input] ?? (item.show === 'hidden' ? item.value : ''))).trim();
  const fault = (phrase: AnswerFault['phrase'], detail = '') => faults.push({ input, phrase, detail });
  const longest = typeof item.of === 'number' && around.types.get(item.of) === 'longtext' ? LONG_TEXT_LIMIT : TEXT_LIMIT;
  if (text.length > longest) return void fault('long');
  if (text === '') return void (item.required && fault('required'));
  const address = (cleaned: Cleaned, phrase: 'email' | 'mobile') => {
    if (cleaned.ok) return { normal: cleaned.normal, shown: cleaned.shown, ...(cleaned.country ? { country: cleaned.country } : {}) };
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
      answer.mobile = address(cleanMobile(text, answer.country ?? around.country), 'mobile');
      return;
    case 'country':
      if (/^[A-Za-z]{2}$/.test(text)) answer.country = text.toUpperCase();
      else fault('value', text.slice(0, 60));
      return;
    default: {
      const coerced = coerce(around.types.get(item.of) ?? 'text', text, { order: usualOrder(around.country) });
      if (coerced.ok) answer.values.push({ fieldId: item.of, value: coerced.value });
      // A hidden item is nobody's mistake: what can't be read is left out.
      else if (item.show === 'asked') fault('value', text.slice(0, 60));
    }
  }
}
