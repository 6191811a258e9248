import { parseIsoDay, said, type Said } from '../../common';
import { formatDay, formatMoney } from '../../fields';
import type { Column, EvaluationContext } from '../columns';
import type { LinePlan } from '../plan';
import { spanSaid, type Stretch } from '../windows';
import type { FieldLine } from './field-line';
import { birthdayPlan, dayPlan, numberPlan, textPlan } from './field-plans';
import type { LineKind, Names } from './line-kind';

/** By how the values are kept: as words of a dictionary, numbers, days, or days of any year. */
function fieldPlan(line: FieldLine, column: Column, context: EvaluationContext): LinePlan {
  switch (column.kind) {
    case 'text':
      return textPlan(line, column);
    case 'number':
      return numberPlan(line, column.values);
    case 'day':
      return dayPlan(line, column.values, context);
    case 'monthDay':
      return birthdayPlan(line, column.values, context);
    default:
      throw new Error(`expected a column of values for a field line, got one of ${column.kind}`);
  }
}

function fieldSaid(line: FieldLine, names: Names): Said {
  const { name, type } = names.field(line.field);
  const shown = (value: string | number | undefined) => {
    if (type === 'money') return formatMoney(Number(value), names);
    const day = type === 'date' && typeof value === 'string' ? parseIsoDay(value) : null;
    return day === null ? String(value ?? '') : formatDay(day, names.locale);
  };
  switch (line.op) {
    case 'equals':
      return said('field.is', { field: name, value: shown(line.value) });
    case 'between':
      return said('field.between', { field: name, value: shown(line.value), to: shown(line.to) });
    case 'within-next':
    case 'within-last':
    case 'ahead':
    case 'ago':
    case 'anniversary':
      return said(`field.${line.op}`, { field: name, span: spanSaid(line) });
    case 'during':
      return said('field.during', { field: name, stretch: said(`stretch.${line.value as Stretch}`) });
    case 'within-km':
      return said('field.within-km', { field: name, value: String(line.value), to: String(line.to ?? '?') });
    case 'in-month':
      return said('field.in-month', { field: name, month: said(`month.${Number(line.value) as 1}`) });
    default:
      return said(`field.${line.op}`, { field: name, value: shown(line.value) });
  }
}

/** What such a line reads, asks and says. */
export const fieldLine: LineKind<FieldLine> = {
  kind: 'field',
  column: ({ field }) => `field:${field}`,
  named: () => [],
  plan: fieldPlan,
  said: fieldSaid,
};
