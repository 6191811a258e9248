import { Inject, Injectable } from '@nestjs/common';
import { nameKey, registryOf, STANDARD_NAMES, type Registry } from '@goodword/core/merge';
import type { FieldView } from '@goodword/core/contract';
import { said, type Said } from '@goodword/core/common';
import { speak } from '@goodword/core/words';
import { audit } from '../platform/audit';
import { Database, type ReadAt } from '../platform/database';
import { type Scoped } from '../platform/scoped';
import { Conflict, Invalid } from '../platform/errors';
import type { AccessScope } from '../platform/scope';
import { FieldsRepository } from './fields.repository';
import { sentence } from '../platform/words';

/** Types of fields whose values can be written in several ways. */
const FORMATTED = { date: 'date', money: 'money', number: 'number' } as const;

/** Why a field can't go by a name; null where it can. */
export function nameFault(name: string): Said | null {
  return /[{},"“”\\]/.test(name) ? said('plan.field-name') : null;
}

@Injectable()
export class FieldsService {
  constructor(
    @Inject(Database) private readonly database: Database,
    @Inject(FieldsRepository) private readonly fields: FieldsRepository,
  ) {}

  all(scope: AccessScope): Promise<FieldView[]> {
    return this.fields.all(this.database.read(scope));
  }

  /** The merge fields that can be written in this organization. */
  async registry(at: ReadAt): Promise<Registry> {
    const custom = (await this.fields.all(this.database.read(at))).map((field) => ({
      name: field.name,
      key: `field:${field.id}`,
      fallback: field.fallback,
      group: 'Supporter' as const,
      ...(field.type in FORMATTED ? { kind: FORMATTED[field.type as keyof typeof FORMATTED] } : {}),
      ...(field.type === 'longtext' ? { lines: true } : {}),
    }));
    return registryOf([...STANDARD_NAMES, ...custom]);
  }

  async make(
    scope: AccessScope,
    field: { name: string; type: string; fallback: string | null; section?: string; choices?: string[] },
  ): Promise<{ id: number }> {
    return this.database.write(scope, async (tx) => {
      tx.unchanged();
      // One after the other: two names that read the same would both be free.
      await tx.lockOrganization();
      await this.checkName(tx, field.name);
      const id = await this.fields.make(tx, field);
      await audit(tx, 'make', { field: id }, `Field ${field.name} made`);
      return { id };
    });
  }

  /** Refuses a name that can't be written in a message, or that another field goes by. */
  async checkName(tx: Scoped, name: string): Promise<void> {
    const fault = nameFault(name);
    if (fault) throw new Invalid([{ field: 'name', code: 'name', message: speak(fault) }]);
    if (/^\s*link\s*:/i.test(name))
      throw new Invalid([{ field: 'name', code: 'name', message: sentence('field.link-name') }]);
    const registry = await this.registry(tx);
    const clash = registry.names.find((known) => nameKey(known.name) === nameKey(name));
    if (clash) throw new Conflict(sentence('field.name-taken', { name: clash.name }));
  }
}
