import { oneLine, seen } from '../common';
import type { MergeSyntaxFault } from './parse';
import type { FormattedKind } from './formats';

/** A compiled text: literal strings, slots and choices, ready to be filled for any number of people. */
export interface CompiledTemplate {
  parts: MergePart[];
  faults: MergeFault[];
}

/** A literal, a place for a value, or a passage for some people. */
export type MergePart = string | MergeSlot | MergeChoice;

/** A place in a text where a value of a person stands. */
export interface MergeSlot {
  key: string;
  name: string;
  /**
   * What stands where the value is missing: the writer's words, else the field's standing ones, else nothing.
   */
  or: string | null;
  /** How the value of another key is written here. */
  format?: { of: string; kind: FormattedKind; as: string };
  /** A value of several lines keeps them; all others are one line. */
  lines?: boolean;
}

/**
 * What a passage asks of a person's values: that there is one under a key; or any of several lines, in each
 * of which all keys have one, those with a `!` before them none.
 */
export type MergeCondition = string | readonly (readonly string[])[];

/** One passage for those whose values meet a condition, another for the rest. */
export interface MergeChoice {
  when: MergeCondition;
  then: MergePart[];
  otherwise: MergePart[];
}

/** A merge field that nobody knows, with the nearest one that is known. */
export interface MergeFault extends MergeSyntaxFault {
  /** The nearest right name, where the fault is a wrong one. */
  suggestion: string | null;
}

/** Values by key; a missing or empty one is a hole unless the slot has words for it. */
export type MergeValues = Record<string, string | null | undefined>;

/** Whether a part is a passage for some people. */
export const isChoice = (part: MergePart): part is MergeChoice => typeof part !== 'string' && 'when' in part;

const meets = (key: string, values: MergeValues): boolean =>
  key.startsWith('!') ? !values[key.slice(1)] : Boolean(values[key]);

/** The wording that somebody with these values reads. */
export function passageFor({ when, then, otherwise }: MergeChoice, values: MergeValues): MergePart[] {
  const holds =
    typeof when === 'string'
      ? Boolean(values[when])
      : when.some((all) => all.every((key) => meets(key, values)));
  return holds ? then : otherwise;
}

/** What stands in a place: one line without characters that nobody sees, unless its slot keeps lines. */
export function valueIn(slot: MergeSlot, values: MergeValues): string {
  const value = values[slot.key] || slot.or || '';
  return slot.lines ? seen(value) : oneLine(value);
}

/**
 * Fills the slots. `escape` is applied to values and "or" words alike, never to the literal text.
 */
export function render(
  compiled: Pick<CompiledTemplate, 'parts'>,
  values: MergeValues,
  escape: (value: string, slot: MergeSlot) => string = (v) => v,
): string {
  return filledParts(compiled.parts, values, escape);
}

function filledParts(
  parts: readonly MergePart[],
  values: MergeValues,
  escape: (value: string, slot: MergeSlot) => string,
): string {
  let out = '';
  for (const part of parts) {
    if (typeof part === 'string') out += part;
    else if ('when' in part) out += filledParts(passageFor(part, values), values, escape);
    else out += escape(valueIn(part, values), part);
  }
  return out;
}

/** The slots that would show a hole for these values. */
export function emptySlots(compiled: Pick<CompiledTemplate, 'parts'>, values: MergeValues): MergeSlot[] {
  return shownSlots(compiled.parts, values).filter((slot) => !values[slot.key] && slot.or === null);
}

/** The slots that somebody with these values reads. */
export function shownSlots(parts: readonly MergePart[], values: MergeValues): MergeSlot[] {
  return parts.flatMap((part): MergeSlot[] => {
    if (typeof part === 'string') return [];
    if (isChoice(part)) return shownSlots(passageFor(part, values), values);
    return [part];
  });
}

/** The merge fields of a compiled text, in their order, those of all passages among them. */
export function slotsOf({ parts }: Pick<CompiledTemplate, 'parts'>): MergeSlot[] {
  return parts.flatMap((part): MergeSlot[] => {
    if (typeof part === 'string') return [];
    return isChoice(part)
      ? [...slotsOf({ parts: part.then }), ...slotsOf({ parts: part.otherwise })]
      : [part];
  });
}

const keysOf = ({ when }: MergeChoice): string[] =>
  typeof when === 'string' ? [when] : when.flat().map((key) => key.replace(/^!/, ''));

/** The keys of values that passages ask for, each once. */
export function conditionsOf({ parts }: Pick<CompiledTemplate, 'parts'>): string[] {
  const all = parts.flatMap((part): string[] =>
    isChoice(part)
      ? [...keysOf(part), ...conditionsOf({ parts: part.then }), ...conditionsOf({ parts: part.otherwise })]
      : [],
  );
  return [...new Set(all)];
}
