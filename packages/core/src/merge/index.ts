export {
  groupsNamed,
  parse,
  type MergeSyntaxFault,
  type ParsedTemplate,
  type Piece,
  type SourceSpan,
} from './parse';
export {
  isLinkKey,
  nameKey,
  registryOf,
  STANDARD_NAMES,
  type MergeGroup,
  type MergeName,
  type Registry,
} from './registry';
export { compile, joinLiterals } from './compile';
export { formatNames, formatted, rawKey, type FormattedKind, type ValueManner } from './formats';
export {
  conditionsOf,
  emptySlots,
  isChoice,
  passageFor,
  render,
  shownSlots,
  slotsOf,
  valueIn,
  type CompiledTemplate,
  type MergeChoice,
  type MergeCondition,
  type MergeFault,
  type MergePart,
  type MergeSlot,
  type MergeValues,
} from './render';
export { withFormats } from './with-formats';
