import type { Day } from '@goodword/core/common';
import {
  type RowVerdict,
  allColumns,
  cleanRow,
  looseEmail,
  matchRow,
  menderOf,
  normalPostcode,
  placeOfRow,
  withConstants,
  type Aside,
  type BatchKind,
  type Candidate,
  type ChapterFinder,
  type CleanRow,
  type IntakePlan,
  type TextLine,
  type DoubtKind,
  type Match,
  type PersonName,
  type RowPlace,
  type RowRules,
  type Scored,
} from '@goodword/core/intake';
import { said, type Said } from '@goodword/core/common';
import { say, speak, spoken } from '@goodword/core/words';
import type { StagedRow } from '../batches.repository';
import { EarlierRows, type MatchClue } from '../doubles/earlier-rows';

/** Who on file is at a clue, for a row of this name. */
export type OnFileCandidates = (clue: MatchClue, name: PersonName) => readonly Candidate[];

/** A decision that a person made about a row on an earlier check of the same file. */
export interface SettledRow {
  as: 'merge' | 'new' | 'skip';
  withId: number | null;
}

/** What a row becomes that a person has settled. Into a file of people who are here nobody new comes. */
export function settledVerdict(what: BatchKind, as: SettledRow['as']): RowVerdict {
  if (as === 'skip' || (as === 'new' && what === 'here')) return 'skipped';
  if (as === 'new') return 'shares';
  return what === 'gifts' ? 'gift' : 'update';
}

const ASIDE_WORDS: Record<Aside, string> = {
  blank: 'skipped: blank line',
  header: 'skipped: the header once more',
  total: 'skipped: total row',
};

/** Row of the file to cell row: mended, with the batch's constants behind. */
export interface FileRow {
  rowNo: number;
  clean: CleanRow | null;
  aside: Aside | null;
  clues: readonly MatchClue[];
}

/**
 * Turns the lines of a file into staged rows, one after the other: each is mended, cleaned, matched against
 * the people on file and against the rows before it, and given its verdict. Every line gets exactly one.
 */
export class Stager {
  private readonly earlier = new EarlierRows();
  private readonly mend;
  private readonly rules: RowRules;

  constructor(
    private readonly plan: IntakePlan,
    private readonly organization: { country: string; currency: string },
    about: { today: Day; births: ReadonlySet<number> },
    private readonly decided: ReadonlyMap<number, SettledRow> = new Map(),
    private readonly stages: readonly string[] | null = null,
    /** Where new people may go beside the batch's own chapter; null where the plan says one for all. */
    private readonly chapters: ChapterFinder | null = null,
  ) {
    const country = plan.phoneCountry ?? organization.country;
    this.rules = {
      what: plan.what,
      columns: allColumns(plan),
      country,
      currency: organization.currency,
      noIsEverything: plan.feed?.no === 'everything',
      ...about,
    };
    this.mend = menderOf(plan.mends, plan.columns, country);
  }

  clean(line: TextLine, rowNo: number): FileRow {
    if (line.aside) return { rowNo, clean: null, aside: line.aside, clues: [] };
    const clean = cleanRow(withConstants(this.mend(line.cells, rowNo - 1), this.plan), this.rules);
    this.checkStanding(clean);
    this.checkChapter(clean);
    return { rowNo, clean, aside: null, clues: this.clues(clean) };
  }

  /** A stage is one of the campaign's own, in any case; another is told and the one for all is taken. */
  private checkStanding(clean: CleanRow): void {
    if (clean.stage === null) return;
    const known = this.stages?.find((one) => one.toLowerCase() === clean.stage!.toLowerCase());
    if (!known && this.stages) {
      const column = this.rules.columns.findIndex(({ to }) => to === 'stage');
      clean.faults.push({ column, reason: said('row.stage', { stages: this.stages, got: clean.stage }) });
    }
    clean.stage = known ?? null;
  }

  /** A chapter that there is none of is told; the row goes where it would go without one. */
  private checkChapter(clean: CleanRow): void {
    if (clean.chapter === null || !this.chapters || this.chapters.named(clean.chapter) !== null) return;
    const column = this.rules.columns.findIndex(({ to }) => to === 'chapter');
    clean.faults.push({
      column,
      reason: said('row.chapter', { chapters: this.chapters.names(), got: clean.chapter }),
    });
    clean.chapter = null;
  }

  /** As the row names it, else by where the person is, where the plan asks for that. */
  private chapterOf(clean: CleanRow, place: RowPlace): number | null {
    if (!this.chapters) return null;
    const named = clean.chapter === null ? null : this.chapters.named(clean.chapter);
    return named ?? (this.plan.byPlace ? this.chapters.at(place, clean.post?.postcode ?? '') : null);
  }

  /**
   * Everything by which a row can find people, in exact and in loose ways; nothing where it can't come in.
   */
  clues(row: CleanRow): MatchClue[] {
    if (row.fatal) return [];
    const order = this.plan.matching;
    const clues: MatchClue[] = [];
    for (const email of [row.email, ...row.moreEmails]) {
      if (!email) continue;
      if (order.includes('email')) clues.push({ by: 'email', key: email.normal });
      const loose = looseEmail(email.normal);
      clues.push({ by: 'looseEmail', key: loose });
    }
    if (order.includes('mobile'))
      for (const mobile of [row.mobile, ...row.moreMobiles])
        if (mobile) clues.push({ by: 'mobile', key: mobile.normal });
    if (row.externalId && order.includes('externalId')) clues.push({ by: 'externalId', key: row.externalId });
    const postcode = normalPostcode(row.post?.postcode ?? '');
    if (postcode && (row.firstName || row.lastName))
      clues.push(...blockKeys(postcode, row).map((key) => ({ by: 'nearby' as const, key })));
    return clues;
  }

  stage({ rowNo, clean, aside, clues }: FileRow, onFile: OnFileCandidates): StagedRow {
    if (!clean) return emptyStaged(rowNo, 'aside', ASIDE_WORDS[aside!]);
    const candidates = clean.fatal ? [] : this.candidates(clean, clues, onFile);
    const match = clean.fatal ? null : matchRow(clean, candidates, this.plan.matching);
    const settled = match?.kind === 'look' ? this.settledAs(rowNo, match.candidates) : null;
    const verdict = settled?.verdict ?? this.verdict(clean, match);
    const sameId = settled ? settled.withId : match?.kind === 'same' ? match.id : null;
    const place = placeOfRow(clean, this.organization.country);
    if (['new', 'shares', 'update'].includes(verdict)) this.earlier.add(clues, sameId ?? -rowNo, clean);
    return {
      ...emptyStaged(rowNo, verdict, this.reason(clean, match, verdict)),
      sameAsRow: sameId !== null && sameId < 0 ? -sameId : null,
      supporterId: sameId !== null && sameId > 0 ? sameId : null,
      clean,
      place,
      chapterId: this.chapterOf(clean, place),
      metBy: match?.kind === 'same' ? match.by : null,
      why: match?.kind === 'look' ? match.why : null,
      candidates: match?.kind === 'look' ? spoken(match.candidates) : [],
      hint: notesOf(clean.hints.map(({ reason }) => reason)),
      stranger: this.plan.what === 'gifts' && match !== null && match.kind !== 'same',
      values: clean.values.map(({ column, value }) => ({ fieldId: this.fieldId(column), value })),
    };
  }

  /** What a person decided stands as long as whom they decided on is still among the likely ones. */
  private settledAs(
    rowNo: number,
    candidates: readonly Scored[],
  ): { verdict: RowVerdict; withId: number | null } | null {
    const decided = this.decided.get(rowNo);
    if (!decided) return null;
    const verdict = settledVerdict(this.plan.what, decided.as);
    if (decided.as !== 'merge') return { verdict, withId: null };
    return candidates.some((one) => one.id === decided.withId) ? { verdict, withId: decided.withId } : null;
  }

  private fieldId(column: number): number {
    const choice = this.rules.columns[column]!;
    return choice.to === 'field' ? choice.fieldId : -(column + 1);
  }

  private candidates(row: CleanRow, clues: readonly MatchClue[], onFile: OnFileCandidates): Candidate[] {
    const found: Candidate[] = [];
    for (const clue of clues) {
      found.push(...onFile(clue, row), ...this.earlier.at(clue, row));
    }
    return found;
  }

  private verdict(row: CleanRow, match: Match | null): RowVerdict {
    if (!match) return 'failed';
    if (this.plan.what === 'refusals') return this.refused(row);
    if (match.kind === 'look') return 'look';
    if (this.plan.what === 'gifts') return this.given(match);
    if (this.plan.what === 'here') return match.kind === 'same' ? 'update' : 'failed';
    if (match.kind === 'same') return this.plan.existing === 'leave' ? 'here' : 'update';
    return match.kind;
  }

  private refused(row: CleanRow): RowVerdict {
    const status = row.status ?? this.plan.refusal;
    if (status === null) return 'failed';
    return status === 'fine' ? 'aside' : status === 'bounced' ? 'hold' : 'no';
  }

  private given(match: Match): RowVerdict {
    if (match.kind === 'same') return 'gift';
    return this.plan.strangers === 'bring-in' ? (match.kind === 'shares' ? 'shares' : 'new') : 'failed';
  }

  private reason(row: CleanRow, match: Match | null, verdict: RowVerdict): string {
    if (row.fatal) return speak(row.fatal);
    if (verdict === 'aside') return say('row.no-refusal');
    if (verdict === 'failed') return say(this.plan.what === 'refusals' ? 'row.refused-what' : 'row.stranger');
    const two = match?.kind === 'look' && match.why === 'two-people' && verdict === 'look';
    const left = row.faults.map(({ reason }) => said('row.left-out', { reason }));
    return notesOf([...(two ? [said('row.two-people')] : []), ...left]);
  }
}

/** Of nearly every row there is nothing to say, and a million of them are staged. */
const notesOf = (notes: readonly Said[]) => (notes.length === 0 ? '' : say('row.notes', { notes }));

/**
 * The blocks of a postcode in which a person is looked for: by the start of either name, since they may have
 * changed places.
 */
export function blockKeys(
  postcode: string,
  { firstName, lastName }: { firstName: string; lastName: string },
): string[] {
  const start = (name: string) => `${postcode}|${plainStart(name)}`;
  return [...new Set([lastName, firstName].filter((name) => name !== '').map(start))];
}

/** As the database compares: without case and marks. */
export function plainStart(name: string): string {
  return [...name.normalize('NFD').replace(/\p{M}/gu, '').toLowerCase()].slice(0, 3).join('');
}

export function emptyStaged(rowNo: number, verdict: RowVerdict, reason: string): StagedRow {
  const nothing = {
    sameAsRow: null,
    supporterId: null,
    metBy: null,
    chapterId: null,
    clean: null,
    place: null,
    why: null as DoubtKind | null,
    candidates: [],
    hint: '',
    stranger: false,
    values: [],
  };
  return { rowNo, verdict, reason, ...nothing };
}
