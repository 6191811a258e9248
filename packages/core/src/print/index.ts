export { doorOrder, parseStreet, walks, type Door, type Walk } from './doors';
export {
  LABEL_SHEETS,
  labelAt,
  LABEL_KINDS,
  PAPERS,
  type LabelKind,
  type LabelSheet,
  type Paper,
} from './labels';
export {
  addressLineHeight,
  addressTop,
  LETTER_FORMS,
  LETTER_SHEETS,
  letterFormOf,
  paperIn,
  paperOf,
  type LetterForm,
  type LetterSheet,
} from './letter-forms';
export { PRINT_FORMS, SHEET_COLUMNS, type PrintForm, type SheetColumn } from './forms';
