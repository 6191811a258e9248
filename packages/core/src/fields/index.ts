export { FIELD_TYPE_WORDS, FIELD_TYPES, TEXT_LIMIT, type FieldType, type FieldValue } from './types';
export { dateOrderOf, parseDate, type DateOrder } from './dates';
export { coerce, parseNumber, parseYesNo, type Coerced } from './coerce';
export { formatDay, formatMoney, formatMonthDay, formatValue, type Manner } from './format';
