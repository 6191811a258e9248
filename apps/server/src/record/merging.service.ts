import { Inject, Injectable } from '@nestjs/common';
import type { FieldView, MergeLine, MergePreview, UndoStep } from '@goodword/core/contract';
import { formatValue, type Manner } from '@goodword/core/fields';
import { isOptedOut } from '@goodword/core/permission';
import { placeWords } from '@goodword/core/words';
import { HouseRulesRepository } from '../permission/house-rules.repository';
import { PersonCellsRepository, type PersonCells } from '../permission/ledger/facts.repository';
import type { NewEntry } from '../permission/ledger/entries';
import { LedgerRepository } from '../permission/ledger/ledger.repository';
import { audit } from '../platform/audit';
import { Database } from '../platform/database';
import { type Bound, type Scoped } from '../platform/scoped';
import { Conflict, NotFound } from '../platform/errors';
import type { AccessScope } from '../platform/scope';
import { FieldsRepository, valueOf, type ValueRow } from '../supporters/fields.repository';
import { SupportersRepository, type PersonRow } from '../supporters/supporters.repository';
import { TeamRepository } from '../team/team.repository';
import { HouseholdsRepository } from './households.repository';
import { MergingRepository } from './merging.repository';
import { sentence } from '../platform/words';
import { EntriesRepository } from '../permission/ledger/entries.repository';
import { FoldingRepository } from '../permission/ledger/folding.repository';
import { ContactPointsRepository } from '../supporters/contact-points.repository';

type Choice = 'kept' | 'gone';
type Own = Awaited<ReturnType<MergingRepository['own']>>;

interface Side {
  person: PersonRow;
  own: Own;
  values: Map<number, ValueRow>;
}

const COMES: [table: string, one: string, many: string][] = [
  ['supporter_contact', 'address', 'addresses'],
  ['gift', 'gift', 'gifts'],
  ['entries', 'entry of the permission ledger', 'entries of the permission ledger'],
  ['delivery', 'message', 'messages'],
  ['reply', 'reply', 'replies'],
  ['note', 'note', 'notes'],
  ['supporter_tag', 'tag', 'tags'],
  ['supporter_list', 'list', 'lists'],
  ['roster', 'place on a roster', 'places on rosters'],
];

/**
 * Two records of one person become one, choice by choice; what came over is kept apart, so that they can be
 * parted again.
 */
@Injectable()
export class MergingService {
  constructor(
    @Inject(Database) private readonly database: Database,
    @Inject(MergingRepository) private readonly mergings: MergingRepository,
    @Inject(SupportersRepository) private readonly supporters: SupportersRepository,
    @Inject(FieldsRepository) private readonly fields: FieldsRepository,
    @Inject(HouseholdsRepository) private readonly households: HouseholdsRepository,
    @Inject(LedgerRepository) private readonly ledger: LedgerRepository,
    @Inject(PersonCellsRepository) private readonly cells: PersonCellsRepository,
    @Inject(HouseRulesRepository) private readonly houseRules: HouseRulesRepository,
    @Inject(TeamRepository) private readonly team: TeamRepository,
    @Inject(EntriesRepository) private readonly entries: EntriesRepository,
    @Inject(FoldingRepository) private readonly folding: FoldingRepository,
    @Inject(ContactPointsRepository) private readonly contacts: ContactPointsRepository,
  ) {}

  /** Both side by side, in what they differ, and what would come over. */
  async preview(scope: AccessScope, keptId: number, goneId: number): Promise<MergePreview> {
    const db = this.database.read(scope);
    const [kept, gone] = await this.sides(db, keptId, goneId);
    const counts = await this.mergings.counts(db, goneId);
    const naming = ({ person, own }: Side) => ({
      id: person.id,
      name: nameOf(person),
      since: own.created_at.toISOString(),
    });
    return {
      kept: naming(kept),
      gone: naming(gone),
      lines: this.lines(kept, gone, await this.fields.all(db), await this.team.organization(scope)),
      comesOver: COMES.flatMap(([table, one, many]) => {
        const n = counts[table] ?? 0;
        return n === 0 ? [] : [`${n} ${n === 1 ? one : many}`];
      }),
    };
  }

  async merge(
    scope: AccessScope,
    keptId: number,
    goneId: number,
    keep: Record<string, Choice>,
  ): Promise<void> {
    await this.database.write(scope, async (tx) => {
      await this.supporters.holdBoth(tx, keptId, goneId);
      const [kept, gone] = await this.sides(tx, keptId, goneId);
      const lines = this.lines(kept, gone, await this.fields.all(tx), await this.team.organization(tx));
      const chosen = (key: string) => keep[key] ?? lines.find((line) => line.key === key)?.usual ?? 'kept';
      const points = await this.contacts.points(tx, [keptId, goneId]);
      const rules = await this.houseRules.rules(tx);
      const before = await this.cells.of(tx, [keptId, goneId], rules);
      const fields = [...kept.values.keys()].filter(
        (id) => gone.values.has(id) && chosen(`field:${id}`) === 'gone',
      );
      const was = await this.mergings.bringTogether(
        tx,
        keptId,
        goneId,
        fields,
        ownOf(kept.own, gone.own, chosen),
      );
      await this.households.move(tx, goneId, null);
      const pointIds = points.map(({ id }) => id);
      await this.folding.refold(tx, pointIds, [keptId, goneId]);
      was.closed = await this.keepClosed(tx, keptId, pointIds, [...before.values()]);
      was.placeBefore = await this.placesDiffer(tx, keptId, kept.own, gone.own);
      const mergingId = await this.mergings.keep(tx, keptId, goneId, was);
      const undo: UndoStep = { kind: 'merging', mergingId };
      await audit(
        tx,
        'merge',
        { supporter: keptId },
        `The record of ${nameOf(gone.person)} was brought into this one`,
        { undo },
      );
    });
  }

  /**
   * A merge opens nothing: where one of the two stood at no and the two together would not, since the other
   * had agreed later, a refusal is written down for the record that is kept.
   */
  private async keepClosed(
    tx: Scoped,
    keptId: number,
    pointIds: readonly number[],
    before: readonly PersonCells[],
  ): Promise<number[]> {
    const rules = await this.houseRules.rules(tx);
    const together = await this.cells.one(tx, keptId, rules);
    const asked = new Map(
      before
        .flatMap(({ cells }) => cells)
        .map(({ channel, scope }) => [`${channel}:${scope}`, { channel, scope }]),
    );
    const entries = [...asked.values()].flatMap(({ channel, scope }): NewEntry[] => {
      const opened = pointIds.some((contactPointId) => {
        const at = { contactPointId, channel, scope };
        return before.some((person) => isOptedOut(person.marksAt(at))) && !isOptedOut(together.marksAt(at));
      });
      if (!opened) return [];
      const words = 'One of the two records stood at no when they were brought together';
      const no = {
        contactPointId: null,
        supporterId: keptId,
        channel,
        scope,
        state: 'no',
        saidAt: new Date(),
        byPerson: false,
      } as const;
      return [{ ...no, how: 'hand', words, source: 'Bringing records together' }];
    });
    return this.ledger.recordAll(tx, entries);
  }

  /** What began where the other record was needs the rule of that place too. */
  private async placesDiffer(tx: Scoped, keptId: number, kept: Own, gone: Own): Promise<number | null> {
    const now = await this.mergings.own(tx, keptId);
    const other = [kept, gone].find(
      (own) => own.country && (own.country !== now.country || own.region !== now.region),
    );
    if (!other || !now.country) return null;
    return tx.insert('place_before', {
      supporter_id: keptId,
      country: other.country ?? null,
      region: other.region ?? null,
      changed_by: tx.scope.actorId,
    });
  }

  /** Parts two records again; the history of both tells of it. */
  async unmerge(scope: AccessScope, keptId: number, mergingId: number): Promise<void> {
    await this.database.write(scope, (tx) => this.part(tx, keptId, mergingId));
  }

  async part(tx: Scoped, keptId: number, mergingId: number): Promise<void> {
    await this.supporters.lockForUpdate(tx, keptId);
    const merging = (await this.mergings.into(tx, keptId, true)).find((one) => one.id === mergingId);
    if (!merging) throw new Conflict(sentence('merge.parted'));
    const points = await this.pointsOf(tx, [keptId]);
    const { closed = [], placeBefore = null } = merging.was;
    await this.ledger.takeBack(tx, closed, 'as the records were parted');
    // What was refused in the time together stays with both.
    const refused = (await this.entries.refusalsSince(tx, keptId, merging.made_at)).map((entry) => ({
      ...entry,
      supporterId: merging.gone_id,
    }));
    await this.mergings.part(tx, merging);
    await this.mergings.undone(tx, mergingId);
    if (placeBefore !== null)
      await tx.execute('DELETE FROM place_before WHERE organization_id = :org AND id = :placeBefore', {
        placeBefore,
      });
    await this.folding.refold(
      tx,
      [...points, ...(await this.pointsOf(tx, [merging.gone_id]))],
      [keptId, merging.gone_id],
    );
    await this.ledger.recordAll(tx, refused);
    const home = merging.was.gone.householdId;
    if (home !== null && (await this.households.exists(tx, home)))
      await this.households.move(tx, merging.gone_id, home);
    for (const id of [keptId, merging.gone_id])
      await audit(
        tx,
        'unmerge',
        { supporter: id },
        `Parted again from the record of ${id === keptId ? merging.name : 'the one it was brought into'}`,
      );
  }

  private async pointsOf(db: Scoped, ids: number[]): Promise<number[]> {
    return [...new Set((await this.contacts.points(db, ids)).map((point) => point.id))];
  }

  private async sides(db: Scoped, keptId: number, goneId: number): Promise<[Side, Side]> {
    if (keptId === goneId) throw new Conflict(sentence('merge.itself'));
    const people = await this.supporters.byIds(db, [keptId, goneId]);
    if (people.length < 2) throw new NotFound('supporter');
    const values = await this.fields.valuesOf(db, [keptId, goneId]);
    const side = async (person: PersonRow): Promise<Side> => ({
      person,
      own: await this.mergings.own(db, person.id),
      values: new Map(
        values.filter((row) => row.supporter_id === person.id).map((row) => [row.field_id, row]),
      ),
    });
    return [await side(people[0]!), await side(people[1]!)];
  }

  private lines(kept: Side, gone: Side, fields: readonly FieldView[], manner: Manner): MergeLine[] {
    const line = (key: string, label: string, of: (side: Side) => string): MergeLine => {
      const [one, other] = [of(kept), of(gone)];
      return { key, label, kept: one, gone: other, usual: one === '' ? 'gone' : 'kept' };
    };
    const shown = (side: Side, field: FieldView) => {
      const row = side.values.get(field.id);
      return row ? formatValue(field.type, valueOf(row), manner) : '';
    };
    return [
      line('name', 'Name', ({ person }) => nameOf(person)),
      line('place', 'Place', ({ person }) =>
        person.country
          ? placeWords(person.region ? `${person.country}-${person.region}` : person.country)
          : '',
      ),
      line('externalId', 'Own id', ({ own }) => String(own.external_id ?? '')),
      ...fields.map((field) => line(`field:${field.id}`, field.name, (side) => shown(side, field))),
    ].filter((one) => one.kept !== '' || one.gone !== '');
  }
}

const nameOf = (person: PersonRow) => `${person.first_name} ${person.last_name}`.trim() || 'No name';

/** What the kept row becomes. A postcode and a language are taken over only where there was none. */
function ownOf(kept: Own, gone: Own, chosen: (key: string) => Choice): Record<string, Bound> {
  const from = (key: string) => (chosen(key) === 'gone' ? gone : kept);
  const [name, place, id] = [from('name'), from('place'), from('externalId')];
  return {
    first_name: name.first_name!,
    last_name: name.last_name!,
    country: place.country ?? null,
    region: place.region ?? null,
    external_id: id.external_id ?? null,
    language: kept.language ?? gone.language ?? null,
    postcode: kept.postcode ?? gone.postcode ?? null,
  };
}
