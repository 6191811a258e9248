import { isNonLatin, isRightToLeft, NAME_DOUBTS, nameDoubts } from './names';

/** Readers that are worth a look before a message leaves, the most awkward kinds first. */
export const PROOF_KINDS = [
  'holes',
  'no-first-name',
  ...NAME_DOUBTS,
  'right-to-left',
  'non-latin',
  'longest-name',
  'longest-subject',
  'shortest-subject',
  'longest-text',
  'shortest-text',
  'most-segments',
  'most-passages',
  'fewest-passages',
  'largest-ask',
  'no-ask',
] as const;
export type ProofKind = (typeof PROOF_KINDS)[number];

/** What one person would read, as far as proofs look at it. */
export interface ReadBySomebody {
  id: number;
  firstName: string;
  lastName: string;
  subject: string;
  text: string;
  /** Merge fields that leave nothing. */
  holes: readonly string[];
  /** Parts that a text is cut into; 0 for a mail. */
  segments: number;
  /** Passages for some people that are for them; null where the message has none. */
  passages: number | null;
  /** Amounts that they are asked for, in hundredths; null where the message asks for none. */
  asked: readonly number[] | null;
}

/** One kind with the people that it was found of. */
export interface FoundProof {
  kind: ProofKind;
  /** How many there are in all. */
  people: number;
  /** The first of them, most extreme first where there is more and less. */
  ids: number[];
  /** How long, how many, how much: of the first of them; null where there is no such. */
  measure: number | null;
}

/** So many of a kind are kept. */
const KEPT = 12;

const letters = new Intl.Segmenter('en', { granularity: 'grapheme' });

/** Letters as people count them. ASCII is quick. */
function lengthOf(text: string): number {
  if (/^[\u0020-\u007e]*$/.test(text)) return text.length;
  let n = 0;
  for (const _one of letters.segment(text)) n += 1;
  return n;
}

/** The most extreme of all, and how many are just as extreme. */
class Extreme {
  private best = -Infinity;
  private people = 0;
  private ids: number[] = [];

  constructor(
    private readonly kind: ProofKind,
    private readonly sign: 1 | -1,
  ) {}

  see(id: number, measure: number): void {
    const weight = this.sign * measure;
    if (weight < this.best) return;
    if (weight > this.best) {
      this.best = weight;
      this.people = 0;
      this.ids = [];
    }
    this.people += 1;
    if (this.ids.length < KEPT) this.ids.push(id);
  }

  found(): FoundProof[] {
    if (this.people === 0) return [];
    return [{ kind: this.kind, people: this.people, ids: this.ids, measure: this.sign * this.best }];
  }
}

/** All of a kind, counted, with the first of them. */
class Counted {
  private people = 0;
  private readonly ids: number[] = [];

  constructor(private readonly kind: ProofKind) {}

  see(id: number): void {
    this.people += 1;
    if (this.ids.length < KEPT) this.ids.push(id);
  }

  found(): FoundProof[] {
    return this.people === 0 ? [] : [{ kind: this.kind, people: this.people, ids: this.ids, measure: null }];
  }
}

/**
 * Looks at everybody who would read a message, one after the other, and keeps those who are worth a look. A
 * few numbers for each kind are kept, however many are seen.
 */
export class ProofFinder {
  /** How many were seen. */
  seen = 0;
  private readonly counted = new Map<ProofKind, Counted>();
  private readonly extremes = new Map<ProofKind, Extreme>();

  see(reader: ReadBySomebody): void {
    const { id, firstName, lastName } = reader;
    this.seen += 1;
    const name = `${firstName} ${lastName}`.trim();
    if (reader.holes.length > 0) this.count('holes', id);
    if (firstName.trim() === '') this.count('no-first-name', id);
    for (const doubt of nameDoubts(firstName)) this.count(doubt, id);
    if (isRightToLeft(name)) this.count('right-to-left', id);
    else if (isNonLatin(name)) this.count('non-latin', id);
    this.measure('longest-name', 1, id, lengthOf(name));
    this.words(reader);
    if (reader.passages !== null) {
      this.measure('most-passages', 1, id, reader.passages);
      this.measure('fewest-passages', -1, id, reader.passages);
    }
    if (reader.asked === null) return;
    const most = Math.max(0, ...reader.asked);
    if (most === 0) this.count('no-ask', id);
    else this.measure('largest-ask', 1, id, most);
  }

  private words({ id, subject, text, segments }: ReadBySomebody): void {
    if (subject !== '') {
      const length = lengthOf(subject);
      this.measure('longest-subject', 1, id, length);
      this.measure('shortest-subject', -1, id, length);
    }
    // Of long letters the code units do: whether one is longer than the other does not hang on a mark.
    this.measure('longest-text', 1, id, text.length);
    this.measure('shortest-text', -1, id, text.length);
    if (segments > 0) this.measure('most-segments', 1, id, segments);
  }

  /** What was found, in the order of the kinds; what is the same of all is no proof. */
  found(): FoundProof[] {
    const all = PROOF_KINDS.flatMap((kind) => [
      ...(this.counted.get(kind)?.found() ?? []),
      ...(this.extremes.get(kind)?.found() ?? []),
    ]);
    return all.filter(({ measure, people }) => measure === null || people < this.seen || this.seen === 1);
  }

  private count(kind: ProofKind, id: number): void {
    const counted = this.counted.get(kind) ?? new Counted(kind);
    this.counted.set(kind, counted);
    counted.see(id);
  }

  private measure(kind: ProofKind, sign: 1 | -1, id: number, measure: number): void {
    const extreme = this.extremes.get(kind) ?? new Extreme(kind, sign);
    this.extremes.set(kind, extreme);
    extreme.see(id, measure);
  }
}
