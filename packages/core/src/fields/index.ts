export { asksOf, coerce, FIELD_KINDS, FIELD_TYPES, formatValue, isoValue, type FieldType } from './types';
export {
  LONG_TEXT_LIMIT,
  TEXT_LIMIT,
  type Coerced,
  type FieldKind,
  type FieldValue,
  type WrittenAs,
} from './field-kind';
export { FIELD_OPS, type FieldOp } from './ops';
export { dateOrderOf, parseDate, usualOrder, type DateOrder } from './dates';
export { parseDayWords } from './day-words';
export { parseClock } from './clock';
export { countryCodes, countryName, readCountry } from './countries';
export { readRegion, readRegionIn, regionName, regionsOf, type Region } from './regions';
export { fileOf, fileText } from './files';
export { CHOICE_SEPARATOR, choicesOf } from './kinds/choices';
export { parseYesNo } from './kinds/yesno';
export { readMoney } from './money';
export { parseNumber } from './numbers';
export { formatDay, formatMoney, formatMonthDay, type Manner } from './format';
