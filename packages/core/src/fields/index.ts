export { FIELD_TYPE_WORDS, FIELD_TYPES, LONG_TEXT_LIMIT, TEXT_LIMIT, type FieldType, type FieldValue } from './types';
export { dateOrderOf, parseDate, usualOrder, type DateOrder } from './dates';
export { parseClock } from './clock';
export { countryCodes, countryName, readCountry } from './countries';
export { readRegion, regionName, regionsOf, type Region } from './regions';
export { fileOf, fileText } from './files';
export { CHOICE_SEPARATOR, choicesOf, coerce, parseNumber, parseYesNo, type Coerced } from './coerce';
export { formatDay, formatMoney, formatMonthDay, formatValue, isoValue, type Manner } from './format';
