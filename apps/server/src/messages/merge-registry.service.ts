import { Inject, Injectable } from '@nestjs/common';
import { registryOf, type Registry } from '@goodword/core/merge';
import { Database, type ReadAt } from '../platform/database';
import { SegmentsRepository } from '../segments/segments.repository';
import { FieldsService } from '../supporters/fields.service';

const KEY = 'fits:segment:';

/** The segment that a passage in words is for, by the key of people's values that says who is in it. */
export const segmentOfKey = (key: string): number | null =>
  key.startsWith(KEY) ? Number(key.slice(KEY.length)) : null;

/** What can be merged into words: the fields of the house, and the segments that a passage can be for. */
@Injectable()
export class MergeRegistryService {
  constructor(
    @Inject(Database) private readonly database: Database,
    @Inject(FieldsService) private readonly fields: FieldsService,
    @Inject(SegmentsRepository) private readonly segments: SegmentsRepository,
  ) {}

  async of(at: ReadAt): Promise<Registry> {
    const [{ names }, segments] = await Promise.all([
      this.fields.registry(at),
      this.segments.all(this.database.read(at)),
    ]);
    return registryOf(
      names,
      segments.map(({ id, name }) => ({ name, key: `${KEY}${id}` })),
    );
  }
}
