import { Inject, Injectable } from '@nestjs/common';
import type { UndoStep } from '@goodword/core/contract';
import { fileOf, fileText } from '@goodword/core/fields';
import { audit } from '../platform/audit';
import { Database } from '../platform/database';
import { type Scoped } from '../platform/scoped';
import { Conflict, Invalid, NotFound } from '../platform/errors';
import { keptFileKind } from '../platform/file-kinds';
import type { AccessScope } from '../platform/scope';
import { STORAGE, type Storage } from '../platform/storage';
import { FieldsRepository, valueOf } from '../supporters/fields.repository';
import { SupportersRepository } from '../supporters/supporters.repository';
import { sentence } from '../platform/words';

/**
 * Files as values: what they are is read from their bytes, and they are only ever downloaded by who may see
 * the field.
 */
@Injectable()
export class FieldFilesService {
  constructor(
    @Inject(Database) private readonly database: Database,
    @Inject(STORAGE) private readonly storage: Storage,
    @Inject(FieldsRepository) private readonly fields: FieldsRepository,
    @Inject(SupportersRepository) private readonly supporters: SupportersRepository,
  ) {}

  /** Puts a file in the place of what was there; the file before stays, so that this can be undone. */
  async put(
    scope: AccessScope,
    id: number,
    fieldId: number,
    file: { name: string; bytes: Buffer },
  ): Promise<void> {
    const field = await this.fileField(this.database.read(scope), id, fieldId);
    const mime = await kindOf(file);
    const storageKey = await this.storage.put(file.bytes);
    await this.database.write(scope, async (tx) => {
      await this.supporters.lockForUpdate(tx, id);
      const before = await this.valueIn(tx, id, fieldId);
      const fileId = await tx.insert('field_file', {
        supporter_id: id,
        field_id: fieldId,
        name: file.name.slice(-200),
        mime,
        bytes: file.bytes.length,
        storage_key: storageKey,
        added_by: scope.actorId,
      });
      const after = { text: fileText(fileId, file.name) };
      await this.fields.set(tx, id, fieldId, after);
      const undo: UndoStep = { kind: 'field', fieldId, before, after };
      await audit(tx, 'field', { supporter: id }, `${field.name} set to ${file.name}`, { undo });
    });
  }

  async read(scope: AccessScope, id: number, fieldId: number): Promise<{ name: string; bytes: Buffer }> {
    const db = this.database.read(scope);
    await this.fileField(db, id, fieldId);
    const value = await this.valueIn(db, id, fieldId);
    const named = value?.text === undefined ? null : fileOf(value.text);
    if (!named) throw new NotFound('file');
    const [row] = await db.sql<{ storage_key: string | null }>(
      `SELECT storage_key
        FROM field_file
        WHERE organization_id = :org AND supporter_id = :id AND field_id = :fieldId AND id = :fileId`,
      { id, fieldId, fileId: named.id },
    );
    if (!row?.storage_key) throw new NotFound('file');
    return { name: named.name, bytes: await this.storage.get(row.storage_key) };
  }

  private async valueIn(db: Scoped, id: number, fieldId: number) {
    const row = (await this.fields.valuesOf(db, [id])).find((value) => value.field_id === fieldId);
    return row ? valueOf(row) : null;
  }

  private async fileField(db: Scoped, id: number, fieldId: number) {
    await this.supporters.need(db, id);
    const field = (await this.fields.all(db)).find((one) => one.id === fieldId);
    if (!field) throw new NotFound('field');
    if (field.type !== 'file') throw new Conflict(sentence('field.takes-no-files', { name: field.name }));
    return field;
  }
}

async function kindOf(file: { name: string; bytes: Buffer }): Promise<string> {
  const kind = await keptFileKind(file);
  if (kind !== null) return kind;
  throw new Invalid([{ field: 'file', code: 'kind', message: sentence('field.file-kind') }]);
}
