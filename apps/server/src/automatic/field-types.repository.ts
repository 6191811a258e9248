import { Injectable } from '@nestjs/common';
import type { FieldType } from '@goodword/core/fields';
import type { Scoped } from '../platform/scoped';

/** Of which type fields are. */
@Injectable()
export class FieldTypesRepository {
  async of(db: Scoped, fieldId: number): Promise<FieldType | undefined> {
    const [row] = await db.sql<{ type: FieldType }>(
      'SELECT type FROM field WHERE organization_id = :org AND id = :fieldId',
      { fieldId },
    );
    return row?.type;
  }
}
