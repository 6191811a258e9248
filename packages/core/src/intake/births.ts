import type { FieldType } from '../fields';
import type { ColumnChoice } from './columns';

/**
 * Headers, and names of fields, of the day on which somebody was born, in four languages (common practice, no
 * source).
 */
export const BIRTH = /birth|\bdob\b|geburt|naissance|nacimiento|cumple/i;

/** Whether a field holds the whole day on which somebody was born. */
export function isBirth({ name, type }: { name: string; type: FieldType }): boolean {
  return type === 'date' && BIRTH.test(name);
}

/** Columns of whole dates on which people were born, by the names of the fields that they go into. */
export function birthColumns(
  columns: readonly ColumnChoice[],
  fields: readonly { id: number; name: string }[],
): Set<number> {
  const born = (choice: ColumnChoice) => {
    if (choice.to !== 'field' && choice.to !== 'newField') return false;
    const name =
      choice.to === 'newField' ? choice.name : (fields.find(({ id }) => id === choice.fieldId)?.name ?? '');
    return isBirth({ name, type: choice.type });
  };
  return new Set([...columns.keys()].filter((column) => born(columns[column]!)));
}
