import { Inject, Injectable } from '@nestjs/common';
import { formatDay, formatMoney, formatValue, type FieldType } from '@goodword/core/fields';
import { cleanMobile } from '@goodword/core/intake';
import { dayInZone, isoDay, yearStart } from '@goodword/core/common';
import { giftFacts, type CountedGift } from '@goodword/core/letter';
import { rawKey, type MergeValues } from '@goodword/core/merge';
import type { Channel, Scope as PermissionScope } from '@goodword/core/permission';
import { HouseRulesRepository } from '../permission/house-rules.repository';
import { FactsRepository } from '../permission/ledger/facts.repository';
import type { Scoped } from '../platform/scoped';
import { HouseholdsRepository } from '../record/households.repository';
import { valueOf, type ValueRow } from '../supporters/fields.repository';
import { imprint, type OrganizationRow, type TeammateRow } from '../team/team.repository';
import type { Tables } from '../platform/tables/generated';

/** The values that messages merge, for many people in a few reads. */
@Injectable()
export class MergeValuesRepository {
  constructor(
    @Inject(HouseholdsRepository) private readonly households: HouseholdsRepository,
    @Inject(FactsRepository) private readonly facts: FactsRepository,
    @Inject(HouseRulesRepository) private readonly houseRules: HouseRulesRepository,
  ) {}

  async of(
    db: Scoped,
    ids: readonly number[],
    about: { channel: Channel; scope: PermissionScope },
    organization: OrganizationRow,
    sender: TeammateRow | undefined,
  ): Promise<Map<number, MergeValues>> {
    const out = new Map<number, MergeValues>();
    if (ids.length === 0) return out;
    const common = commonValues(organization, sender);
    const people = await db.sql<
      Pick<Tables['supporter'], 'id' | 'first_name' | 'last_name'> & {
        chapter: string;
        postal: string;
      }
    >(
      `SELECT s.id, s.first_name, s.last_name, c.name AS chapter, c.postal_address AS postal
        FROM supporter s
        JOIN chapter c ON c.id = s.chapter_id
        WHERE s.organization_id = :org AND s.id IN (:ids)`,
      { ids },
    );
    for (const p of people) {
      out.set(p.id, {
        ...common,
        firstName: p.first_name,
        lastName: p.last_name,
        fullName: `${p.first_name} ${p.last_name}`.trim(),
        chapter: p.chapter,
        ...(p.postal ? { 'organization.postal': p.postal, imprint: imprint(organization, p.postal) } : {}),
      });
    }
    const greetings = await this.households.greetings(db, ids, organization.locale, (others) =>
      this.refusing(db, others, about),
    );
    for (const [id, values] of out) {
      const { greeting, names } = greetings.get(id) ?? {};
      values.greeting = greeting || values.firstName;
      values['household.names'] = names || values.fullName;
    }
    await Promise.all([
      this.points(db, ids, out),
      this.fields(db, ids, organization, out),
      this.gifts(db, ids, organization, out),
    ]);
    return out;
  }

  /** Who of these people said no to what the message is about. */
  private async refusing(
    db: Scoped,
    ids: number[],
    about: { channel: Channel; scope: PermissionScope },
  ): Promise<ReadonlySet<number>> {
    const decided = await this.facts.decide(db, ids, {
      ...about,
      rules: await this.houseRules.rules(db),
      now: new Date(),
    });
    return new Set(ids.filter((id) => decided.get(id)?.verdict === 'said-no'));
  }

  private async points(db: Scoped, ids: readonly number[], out: Map<number, MergeValues>): Promise<void> {
    const rows = await db.sql<{ supporter_id: number; kind: string; shown: string }>(
      `SELECT sc.supporter_id, cp.kind, cp.shown
        FROM supporter_contact sc
        JOIN contact_point cp ON cp.id = sc.contact_point_id
        WHERE sc.organization_id = :org AND sc.supporter_id IN (:ids)
        ORDER BY sc.position, cp.id`,
      { ids },
    );
    for (const row of rows) {
      const values = out.get(row.supporter_id);
      if (values && row.kind !== 'post') values[row.kind] ??= row.shown;
    }
  }

  private async fields(
    db: Scoped,
    ids: readonly number[],
    organization: OrganizationRow,
    out: Map<number, MergeValues>,
  ): Promise<void> {
    const rows = await db.sql<ValueRow & { type: FieldType }>(
      `SELECT v.supporter_id, v.field_id, v.text_value, v.number_value, v.date_value, v.month_day, f.type
        FROM field_value v
        JOIN field f ON f.id = v.field_id
        WHERE v.organization_id = :org AND v.supporter_id IN (:ids)`,
      { ids },
    );
    for (const row of rows) {
      const values = out.get(row.supporter_id);
      if (!values) continue;
      const value = valueOf(row);
      values[`field:${row.field_id}`] = formatValue(row.type, value, organization);
      const raw = rawOf(row);
      if (raw !== null) values[rawKey(`field:${row.field_id}`)] = raw;
    }
  }

  private async gifts(
    db: Scoped,
    ids: readonly number[],
    organization: OrganizationRow,
    out: Map<number, MergeValues>,
  ): Promise<void> {
    const year = yearStart(dayInZone(Date.now(), organization.time_zone));
    for (const [id, gifts] of await this.giftsOf(db, ids)) {
      const values = out.get(id);
      if (!values) continue;
      const { first, last, largest, thisYear, all } = giftFacts(gifts, year);
      for (const [name, gift] of Object.entries({ firstGift: first, lastGift: last, largestGift: largest })) {
        if (!gift) continue;
        values[`${name}.amount`] = formatMoney(gift.amount, organization);
        values[`${name}.date`] = formatDay(gift.on, organization.locale);
        values[rawKey(`${name}.amount`)] = String(gift.amount);
        values[rawKey(`${name}.date`)] = isoDay(gift.on);
      }
      for (const [name, { amount, number }] of Object.entries({ thisYear, allGifts: all })) {
        // Nothing given is a hole, so that a message can say "or …".
        if (number === 0) continue;
        values[`${name}.amount`] = formatMoney(amount, organization);
        values[`${name}.number`] = new Intl.NumberFormat(organization.locale).format(number);
        values[rawKey(`${name}.amount`)] = String(amount);
        values[rawKey(`${name}.number`)] = String(number);
      }
    }
  }

  /** What each gave, in the order of the days; amounts in hundredths. */
  async giftsOf(db: Scoped, ids: readonly number[]): Promise<Map<number, CountedGift[]>> {
    const out = new Map<number, CountedGift[]>();
    if (ids.length === 0) return out;
    const rows = await db.sql<Pick<Tables['gift'], 'supporter_id' | 'amount' | 'given_on'>>(
      `SELECT supporter_id, amount, given_on
        FROM gift
        WHERE organization_id = :org AND supporter_id IN (:ids)
        ORDER BY given_on, id`,
      { ids },
    );
    for (const { supporter_id: id, amount, given_on: on } of rows) {
      const gifts = out.get(id) ?? [];
      gifts.push({ on, amount: Number(amount) });
      out.set(id, gifts);
    }
    return out;
  }
}

/** A value as formats read it: a day, an amount in hundredths, a number; null for what has one way alone. */
function rawOf({ type, date_value, number_value }: ValueRow & { type: FieldType }): string | null {
  if (type === 'date') return date_value === null ? null : isoDay(date_value);
  if (type === 'money' || type === 'number') return number_value === null ? null : String(number_value);
  return null;
}

function shownMobile(mobile: string, country: string): string {
  const cleaned = cleanMobile(mobile, country);
  return cleaned.ok ? cleaned.shown : mobile;
}

function commonValues(organization: OrganizationRow, sender: TeammateRow | undefined): MergeValues {
  return {
    'organization.name': organization.name,
    'organization.postal': organization.postal_address,
    'sender.name': sender?.name,
    'sender.mobile': sender?.mobile ? shownMobile(sender.mobile, organization.country) : '',
    'sender.title': sender?.title,
    'sender.email': sender?.answers_to || sender?.email,
    'sender.signature': sender?.signature,
  };
}
