export { parse, type MergeSyntaxFault, type ParsedTemplate, type Piece, type SourceSpan } from './parse';
export { nameKey, registryOf, STANDARD_NAMES, type MergeName, type Registry } from './registry';
export {
  compile,
  emptySlots,
  render,
  slotsOf,
  type CompiledTemplate,
  type MergeFault,
  type MergeValues,
  type MergeSlot,
} from './render';
