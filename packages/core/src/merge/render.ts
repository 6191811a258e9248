import { said } from '../common';
import { MOST_FAULTS, parse, type MergeSyntaxFault, type SourceSpan } from './parse';
import type { Registry } from './registry';

/** A compiled text: literal strings and slots in turn, ready to be filled for any number of people. */
export interface CompiledTemplate {
  parts: (string | MergeSlot)[];
  faults: MergeFault[];
}

/** A place in a text where a value of a person stands. */
export interface MergeSlot {
  key: string;
  name: string;
  /**
   * What stands where the value is missing: the writer's words, else the field's stage ones, else nothing.
   */
  or: string | null;
}

/** A merge field that nobody knows, with the nearest one that is known. */
export interface MergeFault extends MergeSyntaxFault {
  /** The nearest right name, where the fault is a wrong one. */
  suggestion: string | null;
}

/** Values by key; a missing or empty one is a hole unless the slot has words for it. */
export type MergeValues = Record<string, string | null | undefined>;

/** Checks every name against the registry. An unknown one stays as typed in the text and is reported. */
export function compile(source: string, registry: Registry): CompiledTemplate {
  const { pieces, faults } = parse(source);
  const out: CompiledTemplate = {
    parts: [],
    faults: faults.map((fault) => ({ ...fault, suggestion: null })),
  };
  for (const piece of pieces) {
    if (piece.kind === 'text') {
      out.parts.push(piece.text);
      continue;
    }
    const known = registry.find(piece.name);
    if (known) out.parts.push({ key: known.key, name: known.name, or: piece.or ?? known.fallback ?? null });
    else {
      out.parts.push(source.slice(piece.span.from, piece.span.to));
      if (out.faults.length < MOST_FAULTS) out.faults.push(unknownName(piece.name, piece.span, registry));
    }
  }
  out.faults.sort((a, b) => a.span.from - b.span.from);
  return out;
}

function unknownName(name: string, span: SourceSpan, registry: Registry): MergeFault {
  const suggestion = registry.suggest(name);
  const why = suggestion
    ? said('merge.unknown-near', { name, nearest: suggestion })
    : said('merge.unknown', { name });
  return { span, said: why, suggestion };
}

/** Fills the slots. `escape` is applied to values and "or" words alike, never to the literal text. */
export function render(
  compiled: CompiledTemplate,
  values: MergeValues,
  escape: (value: string) => string = (v) => v,
): string {
  let out = '';
  for (const part of compiled.parts) {
    if (typeof part === 'string') out += part;
    else out += escape(values[part.key] || part.or || '');
  }
  return out;
}

/** The slots that would show a hole for these values. */
export function emptySlots(compiled: CompiledTemplate, values: MergeValues): MergeSlot[] {
  return slotsOf(compiled).filter((slot) => !values[slot.key] && slot.or === null);
}

/** The merge fields of a compiled text, in their order. */
export function slotsOf(compiled: CompiledTemplate): MergeSlot[] {
  return compiled.parts.filter((part): part is MergeSlot => typeof part !== 'string');
}
