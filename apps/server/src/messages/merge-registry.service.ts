import { Inject, Injectable } from '@nestjs/common';
import { registryOf, type MergeName, type MergeValues, type Registry } from '@goodword/core/merge';
import { FormsRepository } from '../forms/forms.repository';
import { CONFIG, type Config } from '../platform/config';
import type { OrganizationRow } from '../team/team.repository';
import { Database, type ReadAt } from '../platform/database';
import { SegmentsRepository } from '../segments/segments.repository';
import { FieldsService } from '../supporters/fields.service';

const KEY = 'fits:segment:';

/** The segment that a passage in words is for, by the key of people's values that says who is in it. */
export const segmentOfKey = (key: string): number | null =>
  key.startsWith(KEY) ? Number(key.slice(KEY.length)) : null;

const FORM_KEY = 'link.form.';

/** What can be merged into words: the fields of the house, and the segments that a passage can be for. */
@Injectable()
export class MergeRegistryService {
  constructor(
    @Inject(Database) private readonly database: Database,
    @Inject(FieldsService) private readonly fields: FieldsService,
    @Inject(SegmentsRepository) private readonly segments: SegmentsRepository,
    @Inject(FormsRepository) private readonly forms: FormsRepository,
    @Inject(CONFIG) private readonly config: Config,
  ) {}

  async of(at: ReadAt): Promise<Registry> {
    const db = this.database.read(at);
    const [{ names }, segments, forms] = await Promise.all([
      this.fields.registry(at),
      this.segments.all(db),
      this.forms.names(db),
    ]);
    const links = forms.map(({ id, name }): MergeName => ({
      name: `Link: form ${name}`,
      key: `${FORM_KEY}${id}`,
      group: 'Link',
    }));
    return registryOf(
      [...names, ...links],
      segments.map(({ id, name }) => ({ name, key: `${KEY}${id}` })),
    );
  }

  /** Addresses of the house, as values of all: where one gives, and its forms. */
  async links(at: ReadAt, organization: Pick<OrganizationRow, 'giving_page'>): Promise<MergeValues> {
    const out: MergeValues = {
      'link.giving': organization.giving_page,
      // Each has their own from the moment that it leaves.
      'link.preferences': `${this.config.PUBLIC_URL}/leave/example`,
    };
    for (const { id, slug } of await this.forms.names(this.database.read(at)))
      out[`${FORM_KEY}${id}`] = `${this.config.PUBLIC_URL}/join/${slug}`;
    return out;
  }
}
