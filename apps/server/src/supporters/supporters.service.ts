import { Inject, Injectable } from '@nestjs/common';
import { isoDay, parseIsoDay } from '@goodword/core/common';
import type { Page, RecordView, SupporterRow, UndoStep } from '@goodword/core/contract';
import { coerce, formatMoney, formatValue, type Manner } from '@goodword/core/fields';
import { isBirth } from '@goodword/core/intake';
import { speak } from '@goodword/core/words';
import { audit } from '../platform/audit';
import { Database, type ReadAt } from '../platform/database';
import { Invalid, NotFound } from '../platform/errors';
import { decodeCursor, encodeCursor } from '../platform/paging';
import type { AccessScope } from '../platform/scope';
import { stillAs } from '../platform/versions';
import { TeamRepository, typedIn } from '../team/team.repository';
import { FieldsRepository, valueOf } from './fields.repository';
import { GroupsRepository } from './groups.repository';
import { PersonLedger } from './person-ledger.service';
import { SupporterRows } from './rows.service';
import { SupportersRepository } from './supporters.repository';
import { type PostalParts } from './contact-points.repository';
import { sentence } from '../platform/words';
import { ContactPointsRepository } from './contact-points.repository';

export interface SupporterQuery {
  after?: string;
  limit: number;
  search?: string;
  tag?: number;
  list?: number;
  batch?: number;
  hold?: boolean;
}

/**
 * What is known of a person themselves; groups that come of rules, rosters, and whom they live with, join it
 * where the record is shown.
 */
export type KnownOf = Omit<RecordView, 'segments' | 'rosters' | 'household' | 'greeting' | 'mergedFrom'>;

@Injectable()
export class SupportersService {
  constructor(
    @Inject(Database) private readonly database: Database,
    @Inject(SupportersRepository) private readonly supporters: SupportersRepository,
    @Inject(SupporterRows) private readonly rows: SupporterRows,
    @Inject(FieldsRepository) private readonly fields: FieldsRepository,
    @Inject(GroupsRepository) private readonly groups: GroupsRepository,
    @Inject(PersonLedger) private readonly ledger: PersonLedger,
    @Inject(TeamRepository) private readonly team: TeamRepository,
    @Inject(ContactPointsRepository) private readonly contacts: ContactPointsRepository,
  ) {}

  async page(scope: AccessScope, query: SupporterQuery): Promise<Page<SupporterRow>> {
    const db = this.database.read(scope);
    const { rows, total } = await this.supporters.page(db, query, decodeCursor(query.after, 3), query.limit);
    const last = rows.length === query.limit ? rows.at(-1)! : null;
    return {
      rows: await this.rows.of(db, rows),
      total,
      next: last ? encodeCursor([last.last_name, last.first_name, last.id]) : null,
    };
  }

  async record(scope: AccessScope, id: number): Promise<KnownOf> {
    const db = this.database.read(scope);
    const person = await this.supporters.need(db, id);
    const [points, sharers, fields, values, tags, lists, gifts, { consent, entries, rulesOf }, organization] =
      await Promise.all([
        this.contacts.pointsWithParts(db, [id]),
        this.contacts.sharers(db, id),
        this.fields.all(db),
        this.fields.valuesOf(db, [id]),
        this.groups.of(db, 'tag', id),
        this.groups.of(db, 'list', id),
        this.supporters.gifts(db, [id]),
        this.ledger.of(db, person),
        this.team.organization(scope),
      ]);
    return {
      id,
      firstName: person.first_name,
      lastName: person.last_name,
      chapter: { id: person.chapter_id, name: person.chapter },
      createdAt: person.created_at.toISOString(),
      place: { country: person.country, region: person.region, rulesOf },
      contactPoints: points.map((point) => ({
        id: point.id,
        kind: point.kind,
        shown: point.shown,
        line: point.line,
        parts: point.parts && partsOf(point.parts),
        onHold: point.on_hold === 1,
        holdReason: point.hold_reason,
        sharedWith: sharers
          .filter((sharer) => sharer.contact_point_id === point.id)
          .map(({ id: other, name }) => ({ id: other, name })),
      })),
      fields: fields.map((field) => {
        const row = values.find((value) => value.field_id === field.id);
        const value = row ? valueOf(row) : null;
        return { ...field, value, shown: value ? formatValue(field.type, value, organization) : '' };
      }),
      tags: tags.map(({ id: tagId, name, since, how }) => ({ id: tagId, name, since, how })),
      lists,
      gifts: gifts.map((gift) => ({
        id: gift.id,
        amount: Number(gift.amount),
        on: isoDay(gift.given_on),
        note: gift.note,
      })),
      consent,
      entries,
    };
  }

  async rename(
    scope: AccessScope,
    id: number,
    { was, ...names }: { firstName: string; lastName: string; was?: string },
  ): Promise<void> {
    await this.database.write(scope, async (tx) => {
      const person = await this.supporters.lockForUpdate(tx, id);
      const full = (first: string, last: string) => `${first} ${last}`.trim();
      const [before, after] = [
        full(person.first_name, person.last_name),
        full(names.firstName, names.lastName),
      ];
      if (was !== undefined) stillAs(was, before, 'the name', before);
      await this.supporters.rename(tx, id, names.firstName, names.lastName);
      const undo: UndoStep = {
        kind: 'name',
        before: { firstName: person.first_name, lastName: person.last_name },
        after: names,
      };
      if (before !== after)
        await audit(tx, 'rename', { supporter: id }, `Name changed to ${after || 'none'}`, {
          before,
          after,
          undo,
        });
    });
  }

  /** `seen`: what stood there when whoever saves began; null where they don't say. */
  async setField(
    scope: AccessScope,
    id: number,
    fieldId: number,
    text: string,
    seen: string | null = null,
  ): Promise<void> {
    await this.database.write(scope, async (tx) => {
      await this.supporters.lockForUpdate(tx, id);
      const field = (await this.fields.all(tx)).find((one) => one.id === fieldId);
      if (!field) throw new NotFound('field');
      const own = await this.team.organization(tx);
      const coerced =
        text.trim() === '' ? null : coerce(field.type, text, { ...typedIn(own), born: isBirth(field) });
      if (coerced && !coerced.ok)
        throw new Invalid([
          { field: 'text', code: 'type', message: `${field.name}: ${speak(coerced.reason)}.` },
        ]);
      const manner = { locale: own.locale, currency: own.currency };
      const row = (await this.fields.valuesOf(tx, [id])).find((value) => value.field_id === fieldId);
      const before = row ? formatValue(field.type, valueOf(row), manner) : '';
      const after = coerced?.ok ? formatValue(field.type, coerced.value, manner) : '';
      const [was, is] = [row ? valueOf(row) : null, coerced?.ok ? coerced.value : null];
      if (JSON.stringify(was) === JSON.stringify(is)) return tx.unchanged();
      if (seen !== null) stillAs(seen, before, field.name, before);
      await this.fields.set(tx, id, fieldId, is);
      const undo: UndoStep = { kind: 'field', fieldId, before: was, after: is };
      await audit(tx, 'field', { supporter: id }, `${field.name} ${after ? `set to ${after}` : 'emptied'}`, {
        before,
        after,
        undo,
      });
    });
  }

  async addGift(
    scope: AccessScope,
    id: number,
    gift: { amount: number; on: string; note: string },
  ): Promise<void> {
    const on = parseIsoDay(gift.on);
    if (on === null || on > Math.floor(Date.now() / 86_400_000) + 1)
      throw new Invalid([{ field: 'on', code: 'day', message: sentence('gift.day') }]);
    const manner = await this.manner(scope);
    await this.database.write(scope, async (tx) => {
      await this.supporters.lockForUpdate(tx, id);
      await this.supporters.addGift(tx, { supporterId: id, amount: gift.amount, on, note: gift.note });
      await this.ledger.relate(
        tx,
        id,
        'gift',
        new Date(on * 86_400_000 + 43_200_000),
        formatMoney(gift.amount, manner),
      );
      await audit(
        tx,
        'gift',
        { supporter: id },
        `Gift of ${formatMoney(gift.amount, manner)} entered by hand`,
      );
    });
  }

  private async manner(at: ReadAt): Promise<Manner> {
    const { locale, currency } = await this.team.organization(at);
    return { locale, currency };
  }
}

/** The parts of a postal address; how it was shown in a file is kept beside them and is nobody's business. */
const partsOf = ({ street, city, region, postcode, country }: PostalParts): PostalParts => ({
  street,
  city,
  region,
  postcode,
  country,
});
