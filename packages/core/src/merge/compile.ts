import { nearest, said } from '../common';
import { formatNames, type FormattedKind } from './formats';
import { MOST_FAULTS, parse, type Piece, type SourceSpan } from './parse';
import type { MergeName, Registry } from './registry';
import type { CompiledTemplate, MergeFault, MergePart, MergeSlot } from './render';

/** Passages within passages: more than these nobody reads. */
const DEEPEST = 6;

/** A passage that is still open, with what was read of it. */
interface Frame {
  /** Null where nobody knows the group: all of it stays as it was typed. */
  when: string | null;
  span: SourceSpan;
  then: MergePart[];
  /** Null before the other wording has begun. */
  otherwise: MergePart[] | null;
  /** The marks as they were typed. */
  typed: string[];
}

class Compiling {
  readonly faults: MergeFault[];
  readonly parts: MergePart[] = [];
  private readonly open: Frame[] = [];

  constructor(
    private readonly source: string,
    private readonly registry: Registry,
    faults: MergeFault[],
  ) {
    this.faults = faults;
  }

  piece(piece: Piece): void {
    switch (piece.kind) {
      case 'text':
        return this.push(piece.text);
      case 'merge':
        return this.field(piece);
      case 'for':
        // A field may be called "For whom".
        return this.registry.find(piece.inside) ? this.asField(piece) : this.begin(piece);
      case 'otherwise':
      case 'end':
        return this.registry.find(piece.inside) ? this.asField(piece) : this.turn(piece);
    }
  }

  finish(): CompiledTemplate {
    for (let frame = this.open.pop(); frame; frame = this.open.pop()) {
      this.fault(frame.span, 'merge.not-ended');
      this.push(...asTyped(frame));
    }
    this.faults.sort((a, b) => a.span.from - b.span.from);
    return { parts: joinLiterals(this.parts), faults: this.faults };
  }

  private asField({ inside, span }: { inside: string; span: SourceSpan }): void {
    this.field({ kind: 'merge', name: inside, as: null, or: null, span });
  }

  private field({ name, as, or, span }: Extract<Piece, { kind: 'merge' }>): void {
    const known = this.registry.find(name);
    if (!known) {
      this.push(this.typed(span));
      return this.unknown(name, span, this.registry.suggest(name));
    }
    const slot: MergeSlot = { key: known.key, name: known.name, or: or ?? known.fallback ?? null };
    if (known.lines) slot.lines = true;
    if (as === null) return this.push(slot);
    const format = formatOf(known, as);
    if (typeof format === 'string') return this.push({ ...slot, ...formatKey(known, format) });
    this.push(this.typed(span));
    this.wrongFormat(known, as, span);
  }

  private begin({ name, span }: Extract<Piece, { kind: 'for' }>): void {
    const when = this.registry.group(name);
    if (when === null) {
      const suggestion = nearest(name, this.registry.groups);
      if (suggestion) this.fault(span, 'merge.no-group-near', { name, nearest: suggestion });
      else this.fault(span, 'merge.no-group', { name });
    }
    if (this.open.length === DEEPEST) {
      this.fault(span, 'merge.deep');
      return this.push(this.typed(span));
    }
    this.open.push({ when, span, then: [], otherwise: null, typed: [this.typed(span)] });
  }

  private turn({ kind, span }: { kind: 'otherwise' | 'end'; span: SourceSpan }): void {
    const frame = this.open.at(-1);
    if (!frame || (kind === 'otherwise' && frame.otherwise !== null)) {
      this.fault(span, kind === 'end' ? 'merge.end' : 'merge.otherwise');
      return this.push(this.typed(span));
    }
    frame.typed.push(this.typed(span));
    if (kind === 'otherwise') {
      frame.otherwise = [];
      return;
    }
    this.open.pop();
    const { when, then, otherwise } = frame;
    if (when === null) this.push(...asTyped(frame));
    else this.push({ when, then: joinLiterals(then), otherwise: joinLiterals(otherwise ?? []) });
  }

  private push(...parts: MergePart[]): void {
    const frame = this.open.at(-1);
    (frame ? (frame.otherwise ?? frame.then) : this.parts).push(...parts);
  }

  private typed({ from, to }: SourceSpan): string {
    return this.source.slice(from, to);
  }

  private unknown(name: string, span: SourceSpan, suggestion: string | null): void {
    if (suggestion) this.fault(span, 'merge.unknown-near', { name, nearest: suggestion }, suggestion);
    else this.fault(span, 'merge.unknown', { name });
  }

  private wrongFormat(known: MergeName, as: string, span: SourceSpan): void {
    const { name, kind } = known;
    if (!kind) return this.fault(span, 'merge.no-format', { name });
    this.fault(span, 'merge.format', { name, as, formats: formatNames(kind).join(', ') });
  }

  private fault(
    span: SourceSpan,
    code: Parameters<typeof said>[0],
    values: Parameters<typeof said>[1] = {},
    suggestion: string | null = null,
  ): void {
    if (this.faults.length < MOST_FAULTS) this.faults.push({ span, said: said(code, values), suggestion });
  }
}

function asTyped({ typed, then, otherwise }: Frame): MergePart[] {
  const [first = '', ...marks] = typed;
  const parts: MergePart[] = [first, ...then];
  if (otherwise !== null) parts.push(marks.shift() ?? '', ...otherwise);
  return [...parts, ...marks];
}

function formatOf({ kind }: MergeName, as: string): string | null {
  return kind && formatNames(kind).includes(as) ? as : null;
}

const formatKey = ({ key, kind }: MergeName, as: string) => ({
  key: `${key}, as ${as}`,
  format: { of: key, kind: kind as FormattedKind, as },
});

/** Joins neighbouring literals, so that filling a letter for one person is a join of few strings. */
export function joinLiterals(parts: readonly MergePart[]): MergePart[] {
  const out: MergePart[] = [];
  for (const part of parts) {
    const last = out.length - 1;
    if (part === '') continue;
    if (typeof part === 'string' && typeof out[last] === 'string') out[last] += part;
    else out.push(part);
  }
  return out;
}

/**
 * Checks every name against the registry. What is unknown stays as typed in the text and is reported. Linear
 * in the text.
 *
 * @example compile('Dear {First name, or "friend"}', registry)
 */
export function compile(source: string, registry: Registry): CompiledTemplate {
  const { pieces, faults } = parse(source);
  const compiling = new Compiling(
    source,
    registry,
    faults.map((fault) => ({ ...fault, suggestion: null })),
  );
  for (const piece of pieces) compiling.piece(piece);
  return compiling.finish();
}
