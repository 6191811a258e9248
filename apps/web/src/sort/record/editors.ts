import type { RecordView } from '@goodword/core/contract';
import { isoValue, type FieldType } from '@goodword/core/fields';
import { countryChoices } from '../../app/choices';

/** How a value is edited: in a line, in several, from a choice, or by what the browser has for it. */
export type Editor =
  | { as: 'line'; type: 'text' | 'date' | 'url'; inputMode?: 'decimal' }
  | { as: 'lines' }
  | { as: 'region' }
  | { as: 'choose'; options: readonly (readonly [value: string, words: string])[]; open: boolean };

type Field = Pick<RecordView['fields'][number], 'type' | 'choices' | 'value'>;

const LINE: Editor = { as: 'line', type: 'text' };
const DECIMAL: Editor = { as: 'line', type: 'text', inputMode: 'decimal' };

const EDITORS: Record<FieldType, (field: Field) => Editor> = {
  text: () => LINE,
  longtext: () => ({ as: 'lines' }),
  number: () => DECIMAL,
  money: () => DECIMAL,
  date: () => ({ as: 'line', type: 'date' }),
  datetime: () => LINE,
  birthday: () => LINE,
  yesno: () => chosenFrom(['yes', 'no']),
  choice: ({ choices, value }) => (choices?.length ? chosenFrom(withOwn(choices, value?.text)) : LINE),
  choices: () => LINE,
  country: () => ({ as: 'choose', open: false, options: countryChoices() }),
  region: () => ({ as: 'region' }),
  place: () => LINE,
  link: () => ({ as: 'line', type: 'url' }),
  file: () => LINE,
};

/** The editor of a field. A choice field without given choices takes what is typed. */
export const editorOf = (field: Field): Editor => EDITORS[field.type](field);

function chosenFrom(values: readonly string[]): Editor {
  return { as: 'choose', open: false, options: values.map((value) => [value, value]) };
}

/** What somebody has already stays choosable, though it is offered no more. */
function withOwn(choices: readonly string[], own: string | undefined): readonly string[] {
  return own && !choices.includes(own) ? [own, ...choices] : choices;
}

/** The value as its editor takes it, as it is read again. */
export function plainValue({ type, value }: Field): string {
  return value ? isoValue(type, value) : '';
}
