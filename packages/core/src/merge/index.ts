export { parse, type Fault, type Parsed, type Piece, type Span } from './parse';
export { nameKey, registryOf, STANDARD_NAMES, type MergeName, type Registry } from './registry';
export { compile, holes, render, slotsOf, type Compiled, type MergeFault, type MergeValues, type Slot } from './render';
