import type { RecordView } from '@goodword/core/contract';
import { isoValue } from '@goodword/core/fields';
import { countryChoices } from '../../app/choices';

/** How a value is edited: in a line, in several, from a choice, or by what the browser has for it. */
export type Editor =
  | { as: 'line'; type: 'text' | 'date' | 'url'; inputMode?: 'decimal' }
  | { as: 'lines' }
  | { as: 'region' }
  | { as: 'choose'; options: readonly (readonly [value: string, words: string])[]; open: boolean };

type Field = Pick<RecordView['fields'][number], 'type' | 'choices' | 'value'>;

/** The editor of a field. A choice field without given choices takes what is typed. */
export function editorOf(field: Field): Editor {
  switch (field.type) {
    case 'text':
    case 'choices':
    case 'place':
    case 'birthday':
    case 'file':
      return { as: 'line', type: 'text' };
    case 'longtext':
      return { as: 'lines' };
    case 'number':
    case 'money':
      return { as: 'line', type: 'text', inputMode: 'decimal' };
    case 'date':
      return { as: 'line', type: 'date' };
    case 'datetime':
      return { as: 'line', type: 'text' };
    case 'link':
      return { as: 'line', type: 'url' };
    case 'region':
      return { as: 'region' };
    case 'yesno':
      return {
        as: 'choose',
        open: false,
        options: [
          ['yes', 'yes'],
          ['no', 'no'],
        ],
      };
    case 'country':
      return { as: 'choose', open: false, options: countryChoices() };
    case 'choice':
      if (!field.choices?.length) return { as: 'line', type: 'text' };
      return {
        as: 'choose',
        open: false,
        options: withOwn(field.choices, field.value?.text).map((choice) => [choice, choice]),
      };
  }
}

/** What somebody has already stays choosable, though it is offered no more. */
function withOwn(choices: readonly string[], own: string | undefined): readonly string[] {
  return own && !choices.includes(own) ? [own, ...choices] : choices;
}

/** The value as its editor takes it, as it is read again. */
export function plainValue({ type, value }: Field): string {
  return value ? isoValue(type, value) : '';
}
