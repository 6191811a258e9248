import { Inject, Injectable } from '@nestjs/common';
import * as XLSX from '@e965/xlsx';
import { isoDay } from '@goodword/core/common';
import type { BulkAct } from '@goodword/core/contract';
import { formatValue } from '@goodword/core/fields';
import { FILE_LIMITS, joinTags, writeCard, writeCsv } from '@goodword/core/intake';
import { Database } from '../platform/database';
import type { AccessScope } from '../platform/scope';
import { FieldsRepository, valueOf } from '../supporters/fields.repository';
import { ExportRepository, type ExportedPerson } from './export.repository';
import { TeamRepository } from '../team/team.repository';

export interface ExportFile {
  name: string;
  bytes: Buffer;
}

const SLICE = 5000;

/**
 * People as a file in an open form: CSV and XLSX with a row each, vCard 4.0 (RFC 6350) with a card each, JSON
 * with everything.
 */
@Injectable()
export class ExportService {
  constructor(
    @Inject(Database) private readonly database: Database,
    @Inject(ExportRepository) private readonly people: ExportRepository,
    @Inject(FieldsRepository) private readonly fields: FieldsRepository,
    @Inject(TeamRepository) private readonly team: TeamRepository,
  ) {}

  async make(
    scope: AccessScope,
    act: Extract<BulkAct, { do: 'export' }>,
    ids: readonly number[],
    progress: (done: number) => Promise<void>,
  ): Promise<ExportFile> {
    const db = this.database.read(scope);
    const organization = await this.team.organization(scope);
    const fields = (await this.fields.all(db)).filter(
      (field) => act.fields.length === 0 || act.fields.includes(field.id),
    );
    const all: (ExportedPerson & { values: string[] })[] = [];
    for (let at = 0; at < ids.length; at += SLICE) {
      const some = ids.slice(at, at + SLICE);
      const values = await this.fields.valuesOf(db, some);
      const valueAt = new Map(values.map((row) => [`${row.supporter_id}:${row.field_id}`, row]));
      for (const person of await this.people.of(db, some)) {
        const shown = fields.map((field) => {
          const row = valueAt.get(`${person.id}:${field.id}`);
          return row ? formatValue(field.type, valueOf(row), organization) : '';
        });
        all.push({ ...person, values: shown });
      }
      await progress(Math.min(at + SLICE, ids.length));
    }
    const name = `supporters ${isoDay(Math.floor(Date.now() / 86_400_000))}`;
    const names = fields.map((field) => field.name);
    switch (act.form) {
      case 'csv':
        return {
          name: `${name}.csv`,
          bytes: Buffer.from(`\ufeff${writeCsv(headerOf(names), all.map(rowOf))}`),
        };
      case 'xlsx':
        return { name: `${name}.xlsx`, bytes: workbook(headerOf(names), all.map(rowOf)) };
      case 'vcard':
        return { name: `${name}.vcf`, bytes: Buffer.from(all.map(writeCard).join('')) };
      case 'json': {
        const people = all.map(({ values, ...person }) => ({
          ...person,
          fields: Object.fromEntries(names.map((field, i) => [field, values[i]!])),
        }));
        return { name: `${name}.json`, bytes: Buffer.from(JSON.stringify(people, null, 1)) };
      }
    }
  }
}

const headerOf = (fields: readonly string[]) => [
  'Good Word id',
  'Own id',
  'First name',
  'Last name',
  'Emails',
  'Phones',
  'Postal address',
  'Country',
  'Region',
  'Tags',
  'Lists',
  ...fields,
];

function rowOf(person: ExportedPerson & { values: string[] }): string[] {
  const { points } = person;
  const of = (kind: string) => points.filter((point) => point.kind === kind).map((point) => point.shown);
  return [
    String(person.id),
    person.externalId ?? '',
    person.firstName,
    person.lastName,
    of('email').join('; '),
    of('mobile').join('; '),
    of('post').join('; '),
    person.country ?? '',
    person.region ?? '',
    joinTags(person.tags),
    joinTags(person.lists),
    ...person.values,
  ];
}

function workbook(header: readonly string[], rows: readonly string[][]): Buffer {
  if (rows.length > FILE_LIMITS.sheetRows)
    throw new Error(`a workbook may have ${FILE_LIMITS.sheetRows} rows at most; take CSV instead`);
  const book = XLSX.utils.book_new();
  // Texts are kept as texts: no cell of a workbook is a formula unless it is written as one.
  XLSX.utils.book_append_sheet(book, XLSX.utils.aoa_to_sheet([[...header], ...rows]), 'Supporters');
  return XLSX.write(book, { type: 'buffer', bookType: 'xlsx', compression: true }) as Buffer;
}
