import { Inject, Injectable } from '@nestjs/common';
import type { PrintAct } from '@goodword/core/contract';
import { formatDay, formatMoney, formatValue } from '@goodword/core/fields';
import type { Decision } from '@goodword/core/permission';
import { CallsRepository } from '../calls/calls.repository';
import { Database } from '../platform/database';
import type { Scoped } from '../platform/scoped';
import type { AccessScope } from '../platform/scope';
import { HouseholdsRepository } from '../record/households.repository';
import { NotesRepository } from '../record/notes.repository';
import { FieldsRepository, valueOf } from '../supporters/fields.repository';
import { GroupsRepository } from '../supporters/groups.repository';
import { SupportersRepository, type PersonRow } from '../supporters/supporters.repository';
import { type OrganizationRow } from '../team/team.repository';
import { type SheetPerson } from './sheets';
import { ContactPointsRepository, type PostalParts } from '../supporters/contact-points.repository';
import { format as formatAddress } from '@fragaria/address-formatter';
import { addressee } from '@goodword/core/household';

export interface Here {
  person: PersonRow;
  householdId: number | null;
  post: PostalParts | null;
  points: { kind: string; shown: string }[];
}

export const fullName = ({ person }: Here) =>
  `${person.first_name} ${person.last_name}`.trim() || 'No name on file';

export const nameOf = ({ person }: Here) => ({ firstName: person.first_name, lastName: person.last_name });

/** Whom a paper is about, with what stands on it of each. */
@Injectable()
export class PrintedPeople {
  constructor(
    @Inject(Database) private readonly database: Database,
    @Inject(CallsRepository) private readonly calls: CallsRepository,
    @Inject(SupportersRepository) private readonly supporters: SupportersRepository,
    @Inject(HouseholdsRepository) private readonly households: HouseholdsRepository,
    @Inject(FieldsRepository) private readonly fields: FieldsRepository,
    @Inject(GroupsRepository) private readonly groups: GroupsRepository,
    @Inject(NotesRepository) private readonly notes: NotesRepository,
    @Inject(ContactPointsRepository) private readonly contacts: ContactPointsRepository,
  ) {}

  async sheetPeople(
    scope: AccessScope,
    act: PrintAct,
    people: Here[],
    organization: OrganizationRow,
    boxes: string[],
  ): Promise<SheetPerson[]> {
    const db = this.database.read(scope);
    const ids = people.map(({ person }) => person.id);
    const [fields, values, gifts, tags, notes, stages] = await Promise.all([
      this.fields.all(db),
      this.fields.valuesOf(db, ids),
      act.columns.includes('last-gift') ? this.supporters.gifts(db, ids) : [],
      act.columns.includes('tags') ? this.groups.namesOf(db, 'tag', ids) : new Map<number, string[]>(),
      act.columns.includes('notes') ? this.notes.lastOf(db, ids) : new Map<number, string>(),
      act.columns.includes('stage') && act.callListId !== null
        ? this.calls.stages(db, act.callListId)
        : new Map<number, string>(),
    ]);
    const valueAt = new Map(values.map((row) => [`${row.supporter_id}:${row.field_id}`, row]));
    // Newest first: the first of each is the last that they gave.
    const lastGift = new Map(
      [...gifts]
        .reverse()
        .flatMap((gift) => (Number(gift.amount) > 0 ? [[gift.supporter_id, gift] as const] : [])),
    );
    const cell = (column: PrintAct['columns'][number], { person, points, post }: Here): string => {
      if (typeof column === 'number') {
        const field = fields.find((one) => one.id === column);
        const row = valueAt.get(`${person.id}:${column}`);
        return field && row ? formatValue(field.type, valueOf(row), organization) : '';
      }
      const gift = lastGift.get(person.id);
      switch (column) {
        case 'phone':
          return points.find(({ kind }) => kind === 'mobile')?.shown ?? '';
        case 'email':
          return points.find(({ kind }) => kind === 'email')?.shown ?? '';
        case 'address':
          return post ? [post.street, post.city].filter(Boolean).join(', ') : '';
        case 'tags':
          return (tags.get(person.id) ?? []).join(', ');
        case 'last-gift':
          return gift
            ? `${formatMoney(Number(gift.amount), organization)}, ${formatDay(gift.given_on, organization.locale)}`
            : '';
        case 'stage':
          return stages.get(person.id) ?? '';
        default:
          return (notes.get(person.id) ?? '').slice(0, 160);
      }
    };
    return people.map((one, i) => ({
      number: i + 1,
      name: fullName(one),
      cells: act.columns.map((column) => cell(column, one)),
      boxes,
      street: one.post?.street ?? '',
      city: one.post?.city ?? '',
    }));
  }

  /**
   * People with what is printed of them. Of several numbers or streets it is the one that permission chose.
   */
  async here(db: Scoped, ids: readonly number[], decided: ReadonlyMap<number, Decision>): Promise<Here[]> {
    const [people, points, homes] = await Promise.all([
      this.supporters.byIds(db, ids),
      this.contacts.pointsWithParts(db, ids),
      this.households.idsOf(db, ids),
    ]);
    const pointsOf = new Map<number, typeof points>();
    for (const point of points)
      pointsOf.set(point.supporter_id, [...(pointsOf.get(point.supporter_id) ?? []), point]);
    return people
      .map((person): Here => {
        const chosen = decided.get(person.id)?.contactPointId;
        const own = [...(pointsOf.get(person.id) ?? [])].sort(
          (a, b) => Number(b.id === chosen) - Number(a.id === chosen),
        );
        const post = own.find(({ kind }) => kind === 'post');
        return {
          person,
          householdId: homes.get(person.id) ?? null,
          points: own,
          post: post ? (post.parts ?? { street: post.shown }) : null,
        };
      })
      .sort(
        (a, b) =>
          a.person.last_name.localeCompare(b.person.last_name) ||
          a.person.first_name.localeCompare(b.person.first_name),
      );
  }
}

/** As it stands on an envelope of the country that it goes to; one's own country is left out. */
export function addressLines(
  together: Here[],
  organization: Pick<OrganizationRow, 'locale' | 'country'>,
): string[] {
  const { street = '', city = '', region = '', postcode = '', country = '' } = together[0]!.post ?? {};
  const lines = formatAddress(
    { road: street, city, state: region, postcode, countryCode: country || organization.country },
    { output: 'array', appendCountry: country !== '' && country !== organization.country },
  );
  return [
    addressee(inOrder(together).map(nameOf), organization.locale) || 'To whom it concerns',
    ...lines,
  ].filter((line) => line.trim() !== '');
}

/** Members of a household in the order in which they are greeted. */
export function inOrder(together: readonly Here[]): Here[] {
  return [...together].sort((a, b) => a.person.id - b.person.id);
}
