import { Inject, Injectable } from '@nestjs/common';
import { isoDay } from '@goodword/core/common';
import type { SupporterRow } from '@goodword/core/contract';
import { formatValue, type Manner } from '@goodword/core/fields';
import { HouseRulesRepository } from '../permission/house-rules.repository';
import { PersonCellsRepository } from '../permission/ledger/facts.repository';
import { channelWord, statusByScope } from '../permission/consent-status';
import type { Scoped } from '../platform/scoped';
import { FieldsRepository, valueOf } from './fields.repository';
import { SupportersRepository, type PersonRow } from './supporters.repository';
import { ContactPointsRepository } from './contact-points.repository';

/** Fills what a table shows of people: a handful of set-based reads for the whole page. */
@Injectable()
export class SupporterRows {
  constructor(
    @Inject(SupportersRepository) private readonly supporters: SupportersRepository,
    @Inject(PersonCellsRepository) private readonly cells: PersonCellsRepository,
    @Inject(HouseRulesRepository) private readonly houseRules: HouseRulesRepository,
    @Inject(FieldsRepository) private readonly fields: FieldsRepository,
    @Inject(ContactPointsRepository) private readonly contacts: ContactPointsRepository,
  ) {}

  /** `fieldIds` are custom fields that are shown beside. */
  async of(
    db: Scoped,
    people: readonly PersonRow[],
    fieldIds: readonly number[] = [],
  ): Promise<SupporterRow[]> {
    const ids = people.map((person) => person.id);
    const rules = await this.houseRules.rules(db);
    const [points, gifts, tags, cells, values] = await Promise.all([
      this.contacts.points(db, ids),
      this.supporters.gifts(db, ids),
      this.supporters.tagCounts(db, ids),
      this.cells.of(db, ids, rules),
      this.valuesOf(db, ids, fieldIds),
    ]);
    const now = Date.now();
    return people.map((person) => {
      const own = points.filter((point) => point.supporter_id === person.id);
      const consent = statusByScope(cells.get(person.id)!, own, now);
      const gift = gifts.find((one) => one.supporter_id === person.id);
      const shown = (kind: string) =>
        points.find((point) => point.supporter_id === person.id && point.kind === kind)?.shown ?? null;
      return {
        id: person.id,
        firstName: person.first_name,
        lastName: person.last_name,
        chapter: person.chapter,
        email: shown('email'),
        mobile: shown('mobile'),
        tags: tags.get(person.id) ?? 0,
        lastGift: gift ? { amount: Number(gift.amount), on: isoDay(gift.given_on) } : null,
        values: Object.fromEntries(
          fieldIds.map((fieldId) => [fieldId, values.get(`${person.id}:${fieldId}`) ?? '']),
        ),
        may: { email: channelWord(consent, 'email'), text: channelWord(consent, 'text') },
      };
    });
  }

  private async valuesOf(
    db: Scoped,
    ids: readonly number[],
    fieldIds: readonly number[],
  ): Promise<Map<string, string>> {
    const out = new Map<string, string>();
    if (fieldIds.length === 0) return out;
    const [manner] = await db.sql<Manner>('SELECT locale, currency FROM organization WHERE id = :org');
    const fields = new Map((await this.fields.all(db)).map((field) => [field.id, field]));
    for (const row of await this.fields.valuesOf(db, ids)) {
      const field = fields.get(row.field_id);
      if (field && fieldIds.includes(field.id))
        out.set(`${row.supporter_id}:${field.id}`, formatValue(field.type, valueOf(row), manner!));
    }
    return out;
  }
}
