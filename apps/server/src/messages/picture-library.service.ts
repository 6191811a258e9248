import { Inject, Injectable } from '@nestjs/common';
import type { ChangeImageBody, ImageView } from '@goodword/core/contract';
import { imageIdOf, picturesOf } from '@goodword/core/letter';
import { audit } from '../platform/audit';
import { Database } from '../platform/database';
import { Conflict, NotFound } from '../platform/errors';
import type { AccessScope } from '../platform/scope';
import type { Scoped } from '../platform/scoped';
import { STORAGE, type Storage } from '../platform/storage';
import type { Tables } from '../platform/tables/generated';
import { stillAs } from '../platform/versions';
import { sentence } from '../platform/words';
import { MessagesRepository } from './messages.repository';
import { TemplatesRepository } from './templates.repository';

type ImageRow = Pick<
  Tables['image'],
  'id' | 'name' | 'alt' | 'folder' | 'width' | 'height' | 'bytes' | 'storage_key'
>;

/** Pictures as the library shows them: what is on them, where they lie, and what still needs them. */
@Injectable()
export class PictureLibraryService {
  constructor(
    @Inject(Database) private readonly database: Database,
    @Inject(STORAGE) private readonly storage: Storage,
    @Inject(MessagesRepository) private readonly messages: MessagesRepository,
    @Inject(TemplatesRepository) private readonly templates: TemplatesRepository,
  ) {}

  /** At most five hundred, the newest first. */
  async list(scope: AccessScope): Promise<ImageView[]> {
    const db = this.database.read(scope);
    const rows = await db.sql<ImageRow>(
      `SELECT id, name, alt, folder, width, height, bytes, storage_key
        FROM image
        WHERE organization_id = :org
        ORDER BY id DESC
        LIMIT 500`,
    );
    const uses = await this.uses(db);
    return rows.map(({ storage_key: _key, ...row }) => ({
      ...row,
      src: `/media/${row.id}`,
      usedBy: uses.get(row.id) ?? [],
    }));
  }

  /** What is on it, what it is called and where it lies; letters that it stands in keep their own words. */
  async change(scope: AccessScope, id: number, { was, ...wanted }: ChangeImageBody): Promise<void> {
    await this.database.writeUnlogged(scope, async (tx) => {
      const { name, alt, folder } = await this.lock(tx, id);
      stillAs(was, { name, alt, folder }, `the picture ${name}`);
      await tx.table('image').where('image.id', id).update(wanted);
    });
  }

  /** Not while something that has not left needs it. Mails that have gone show it no more. */
  async remove(scope: AccessScope, id: number): Promise<void> {
    const keys = await this.database.writeUnlogged(scope, async (tx) => {
      const { name, storage_key: key } = await this.lock(tx, id);
      const needed = (await this.uses(tx.ofAll())).get(id) ?? [];
      if (needed.length > 0)
        throw new Conflict(sentence('picture.needed', { name, uses: `“${needed.join('”, “')}”` }));
      const sizes = await tx.sql<{ storage_key: string }>(
        'SELECT storage_key FROM image_size WHERE organization_id = :org AND image_id = :id',
        { id },
      );
      await tx.table('image_size').where('image_id', id).delete();
      await tx.table('image').where('image.id', id).delete();
      await audit(tx, 'delete', { image: id }, `Picture ${name} deleted`);
      return [key, ...sizes.map((size) => size.storage_key)];
    });
    // Behind the commit: a file without a row is waste, a row without a file is a hole in a letter.
    for (const key of keys) await this.storage.remove(key);
  }

  private async lock(tx: Scoped, id: number): Promise<ImageRow> {
    const [row] = await tx.sql<ImageRow>(
      `SELECT id, name, alt, folder, width, height, bytes, storage_key
        FROM image
        WHERE organization_id = :org AND id = :id FOR UPDATE`,
      { id },
    );
    if (!row) throw new NotFound('picture');
    return row;
  }

  /** By picture, the names of what has not left and shows it: messages, templates, signatures, the logo. */
  private async uses(db: Scoped): Promise<Map<number, string[]>> {
    const out = new Map<number, string[]>();
    const use = (id: number | null, name: string) => {
      if (id !== null) out.set(id, [...(out.get(id) ?? []), name]);
    };
    const holders = [...(await this.messages.needing(db)), ...(await this.templates.all(db))];
    for (const { name, letter } of holders)
      if (letter) for (const src of picturesOf(letter)) use(imageIdOf(src), name);
    const signatures = await db.sql<{ name: string; picture_id: number }>(
      `SELECT name, picture_id
        FROM teammate
        WHERE organization_id = :org AND picture_id IS NOT NULL AND left_at IS NULL`,
    );
    for (const { name, picture_id: id } of signatures) use(id, name);
    const [logo] = await db.sql<{ logo_id: number | null; name: string }>(
      'SELECT logo_id, name FROM organization WHERE id = :org',
    );
    if (logo) use(logo.logo_id, logo.name);
    return out;
  }
}
