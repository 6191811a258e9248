import { Inject, Injectable } from '@nestjs/common';
import type { Cause, CauseKind, CauseOf, Occurrence } from '@goodword/core/automations';
import { dayInZone, isoDay, startOfDay } from '@goodword/core/common';
import { HouseRulesRepository } from '../permission/house-rules.repository';
import { FactsRepository } from '../permission/ledger/facts.repository';
import { Database } from '../platform/database';
import type { AccessScope } from '../platform/scope';
import { SegmentsService } from '../segments/segments.service';
import { clickSource, keywordSource } from './sources/answering';
import { dateSource, quietSource } from './sources/days';
import { giftSource } from './sources/giving';
import { formSource, listSource } from './sources/joining';
import { stageSource, tagSource } from './sources/sorting';
import type { CauseSource, LookWindow, Standing } from './sources/source';

const SOURCES: { [K in Exclude<CauseKind, 'lapses'>]: CauseSource<K> } = {
  list: listSource,
  form: formSource,
  gift: giftSource,
  tag: tagSource,
  date: dateSource,
  stage: stageSource,
  quiet: quietSource,
  keyword: keywordSource,
  click: clickSource,
};

/** What happened, for causes of every kind. */
@Injectable()
export class SourcesService {
  constructor(
    @Inject(Database) private readonly database: Database,
    @Inject(SegmentsService) private readonly segments: SegmentsService,
    @Inject(FactsRepository) private readonly facts: FactsRepository,
    @Inject(HouseRulesRepository) private readonly houseRules: HouseRulesRepository,
  ) {}

  async found(scope: AccessScope, cause: Cause, window: LookWindow): Promise<Occurrence[]> {
    if (cause.kind === 'lapses') return this.lapsing(scope, cause, window);
    const source = SOURCES[cause.kind] as CauseSource<CauseKind>;
    return source.found(this.database.read(scope), cause, window);
  }

  /** The visits of which what set them going is still so. */
  async standing(scope: AccessScope, cause: Cause, some: readonly Standing[]): Promise<Set<number>> {
    if (some.length === 0) return new Set();
    if (cause.kind === 'lapses') return this.stillLapsing(scope, cause, some);
    const source = SOURCES[cause.kind] as CauseSource<CauseKind>;
    if (!source.standing) return new Set(some.map(({ id }) => id));
    return source.standing(this.database.read(scope), cause, some);
  }

  /**
   * Whose implied permission lapses within so many days, by the day on which that began to be so. When it
   * lapses the core says; the columns say of whom to ask.
   */
  private async lapsing(
    scope: AccessScope,
    cause: CauseOf<'lapses'>,
    window: LookWindow,
  ): Promise<Occurrence[]> {
    const { channel, scope: of, days } = cause;
    const ids = await this.segments.members(scope, { kind: 'lapses', channel, scope: of, days });
    const found: Occurrence[] = [];
    for (const [supporterId, until] of await this.untilOf(scope, cause, ids)) {
      const lapsesOn = dayInZone(until, window.zone);
      const on = lapsesOn - days;
      if (on >= window.days.from && on <= window.days.to)
        found.push({ supporterId, key: `lapse:${isoDay(lapsesOn)}`, at: startOfDay(on, window.zone) });
    }
    return found;
  }

  /** A permission that was given anew, or taken back, lapses on no such day. */
  private async stillLapsing(
    scope: AccessScope,
    cause: CauseOf<'lapses'>,
    some: readonly Standing[],
  ): Promise<Set<number>> {
    const { kind, channel, scope: of, days } = cause;
    const people = some.map(({ supporterId }) => supporterId);
    const [still] = await this.segments.among(scope, [{ kind, channel, scope: of, days }], people);
    return new Set(some.filter(({ supporterId }) => still!.has(supporterId)).map(({ id }) => id));
  }

  private async untilOf(
    scope: AccessScope,
    { channel, scope: of }: CauseOf<'lapses'>,
    ids: readonly number[],
  ): Promise<[number, number][]> {
    const db = this.database.read(scope);
    const rules = await this.houseRules.rules(db);
    const decided = await this.facts.decide(db, ids, { channel, scope: of, rules, now: new Date() });
    return [...decided].flatMap(([id, { until }]): [number, number][] =>
      until === null ? [] : [[id, until]],
    );
  }
}
