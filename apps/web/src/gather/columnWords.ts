import { FIELD_TYPE_WORDS, type FieldType } from '@goodword/core/fields';
import type { ColumnChoice, KnownField } from '@goodword/core/intake';

/** What a column becomes, in two short lines. */
export function columnWords(choice: ColumnChoice, fields: readonly KnownField[], country: string): [string, string] {
  switch (choice.to) {
    case 'leave':
      return ['Leave out', 'not brought in'];
    case 'email':
      return ['Email', 'address'];
    case 'mobile':
      return ['Mobile', `phone, ${country}`];
    case 'firstName':
      return ['First name', 'text'];
    case 'lastName':
      return ['Last name', 'text'];
    case 'consent':
      return [choice.channel === 'email' ? 'Email permission' : 'Text permission', 'yes or no'];
    case 'field':
      return [fields.find((field) => field.id === choice.fieldId)?.name ?? 'A field', FIELD_TYPE_WORDS[choice.type]];
    case 'newField':
      return [`Make a field: ${choice.name}`, FIELD_TYPE_WORDS[choice.type]];
  }
}

export interface Offer {
  key: string;
  words: string;
  choice: ColumnChoice;
}

const NEW_TYPES: FieldType[] = ['text', 'choice', 'date', 'birthday', 'number', 'money', 'yesno'];

/** Everything that a column can be matched to. */
export function offersFor(header: string, fields: readonly KnownField[]): { known: Offer[]; make: Offer[] } {
  const plain: Offer[] = (['email', 'mobile', 'firstName', 'lastName', 'leave'] as const).map((to) => ({
    key: to,
    words: columnWords({ to }, fields, '')[0],
    choice: { to },
  }));
  const consent: Offer[] = (['email', 'text'] as const).map((channel) => ({
    key: `consent:${channel}`,
    words: channel === 'email' ? 'Email permission' : 'Text permission',
    choice: { to: 'consent', channel },
  }));
  const own: Offer[] = fields.map((field) => ({
    key: `field:${field.id}`,
    words: field.name,
    choice: { to: 'field', fieldId: field.id, type: field.type },
  }));
  const name = header.trim().slice(0, 60) || 'Unnamed';
  const make: Offer[] = NEW_TYPES.map((type) => ({ key: `new:${type}`, words: FIELD_TYPE_WORDS[type], choice: { to: 'newField', name, type } }));
  return { known: [...plain, ...consent, ...own], make };
}
