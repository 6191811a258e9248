import { regionsOf, type FieldType } from '@goodword/core/fields';
import type { Language } from '@goodword/core/forms';
import { escapeHtml as e } from '@goodword/core/letter';
import { PHRASES } from '../platform/pages/phrases';
import { countries, select } from './controls';

/** A field that a form asks for. */
export interface FieldAsked {
  id: number;
  language: Language;
  /** The house's own country (ISO 3166-1). */
  country: string;
  choices: readonly string[];
}

/** A part of an answer: its control's name and other attributes, and what was answered before. */
type Part = (part: string | number) => { name: string; attributes: string; value: string };

/** How a field is answered: by one control, or by several, each with a name of its own. */
interface FieldControl {
  one(field: FieldAsked, attributes: string, value: string): string;
  /** Null where one control does for this field. */
  several?(field: FieldAsked, part: Part): string | null;
}

const input = (type: string, more = ''): FieldControl => ({
  one: (_field, attributes, value) => `<input type="${type}" ${attributes}${more} value="${e(value)}">`,
});

const LINE = input('text', ' maxlength="500"');
const DECIMAL = input('text', ' inputmode="decimal" maxlength="40"');

const same = (words: string): [string, string] => [words, words];

const upTo = (n: number) => Array.from({ length: n }, (_none, i) => i + 1);

function monthName(month: number, language: Language): string {
  const middle = new Date(Date.UTC(2024, month - 1, 15));
  return new Intl.DateTimeFormat(language, { month: 'long', timeZone: 'UTC' }).format(middle);
}

/** Any region of the world may be written; those of the house's own country are offered. */
function region({ id, country }: FieldAsked, attributes: string, value: string): string {
  const own = regionsOf(country).map(({ name }) => `<option value="${e(name)}">`);
  const list = `regions-${id}`;
  const line = `<input type="text" ${attributes} maxlength="200" list="${list}" value="${e(value)}">`;
  return `${line}<datalist id="${list}">${own.join('')}</datalist>`;
}

function monthAndDay({ language }: FieldAsked, part: Part): string {
  const p = PHRASES[language];
  const of = (key: string, words: string, options: [string, string][]) => {
    const { name, attributes, value } = part(key);
    return `<label class="part">${e(words)}${select(name + attributes, value, options, '')}</label>`;
  };
  const months = upTo(12).map((month): [string, string] => [String(month), monthName(month, language)]);
  const days = upTo(31).map((day) => same(String(day)));
  return `<div class="two">${of('month', p.month, months)}${of('day', p.day, days)}</div>`;
}

/** No single box has to be ticked, so that one has to be is said by the page when it comes back. */
function boxes({ choices }: FieldAsked, part: Part): string | null {
  if (choices.length === 0) return null;
  const all = choices.map((choice, i) => {
    const { name, value } = part(i);
    const ticked = value === choice ? ' checked' : '';
    const box = `<input type="checkbox" ${name} value="${e(choice)}"${ticked}>`;
    return `<label class="check">${box}<span>${e(choice)}</span></label>`;
  });
  return all.join('');
}

/** How the answer to a field of each type is asked for. */
export const FIELD_CONTROLS: Record<FieldType, FieldControl> = {
  text: LINE,
  longtext: {
    one: (_field, attributes, value) =>
      `<textarea ${attributes} maxlength="4000" rows="4">${e(value)}</textarea>`,
  },
  number: DECIMAL,
  money: DECIMAL,
  date: input('date'),
  datetime: input('datetime-local'),
  birthday: { ...LINE, several: monthAndDay },
  yesno: {
    one: ({ language }, attributes, value) => {
      const { stateYes, stateNo } = PHRASES[language];
      return select(
        attributes,
        value,
        [
          ['yes', stateYes],
          ['no', stateNo],
        ],
        '',
      );
    },
  },
  choice: {
    one: ({ choices }, attributes, value) => select(attributes, value, choices.map(same), ''),
  },
  choices: { ...LINE, several: boxes },
  country: {
    one: ({ language }, attributes, value) =>
      select(attributes, value, countries(language), PHRASES[language].country),
  },
  region: { one: region },
  place: LINE,
  link: input('url', ' maxlength="500"'),
  file: LINE,
};
