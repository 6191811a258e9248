import { Inject, Injectable } from '@nestjs/common';
import { imageIdOf, type ServedPicture } from '@goodword/core/letter';
import { CONFIG, type Config } from '../platform/config';
import { Database } from '../platform/database';
import { rowsOf, type Scoped } from '../platform/scoped';
import { Invalid, NotFound } from '../platform/errors';
import { rewritten } from '../platform/pictures';
import type { AccessScope } from '../platform/scope';
import { STORAGE, type Storage } from '../platform/storage';
import type { Tables } from '../platform/tables/generated';
import { sentence } from '../platform/words';

export const IMAGE_LIMITS = { bytes: 8 * 1024 * 1024, pixels: 40_000_000 } as const;
const WIDEST = 1200;
/** Sizes are made in steps of so many pixels, so that an address can't ask for thousands of them. */
export const SIZE_STEP = 100;

/**
 * A small library of pictures. Each is decoded and written anew, so nothing but a picture is ever kept or
 * served.
 */
@Injectable()
export class ImagesService {
  constructor(
    @Inject(Database) private readonly database: Database,
    @Inject(STORAGE) private readonly storage: Storage,
    @Inject(CONFIG) private readonly config: Config,
  ) {}

  /** Pictures as mail readers fetch them, by their sources; one that is gone has no size. */
  async served(db: Scoped, sources: readonly string[]): Promise<(src: string) => ServedPicture> {
    const ids = [...new Set(sources.flatMap((src) => imageIdOf(src) ?? []))];
    const rows =
      ids.length === 0
        ? []
        : await db.sql<Pick<Tables['image'], 'id' | 'width' | 'height'>>(
            'SELECT id, width, height FROM image WHERE organization_id = :org AND id IN (:ids)',
            { ids },
          );
    const known = new Map(rows.map((row) => [row.id, row]));
    return (src) => {
      const id = imageIdOf(src) ?? 0;
      const { width = null, height = null } = known.get(id) ?? {};
      const url = (asked: number) => {
        const step = Math.ceil(asked / SIZE_STEP) * SIZE_STEP;
        const whole = `${this.config.PUBLIC_URL}/media/${id}`;
        return width === null || step >= width ? whole : `${whole}/${step}`;
      };
      return { url, width, height };
    };
  }

  /** Pictures as a document holds them, by their sources: `data:` addresses; none for one that is gone. */
  async inDocument(db: Scoped, ids: readonly number[]): Promise<Record<string, string>> {
    if (ids.length === 0) return {};
    const rows = await db.sql<Pick<Tables['image'], 'id' | 'mime' | 'storage_key'>>(
      'SELECT id, mime, storage_key FROM image WHERE organization_id = :org AND id IN (:ids)',
      { ids: [...new Set(ids)] },
    );
    const out: Record<string, string> = {};
    for (const { id, mime, storage_key: key } of rows)
      out[`/media/${id}`] = `data:${mime};base64,${(await this.storage.get(key)).toString('base64')}`;
    return out;
  }

  /** Bytes of some pictures together. */
  async weightOf(db: Scoped, ids: readonly number[]): Promise<number> {
    if (ids.length === 0) return 0;
    const [row] = await db.sql<{ bytes: number | null }>(
      'SELECT SUM(bytes) AS bytes FROM image WHERE organization_id = :org AND id IN (:ids)',
      { ids },
    );
    return Number(row?.bytes ?? 0);
  }

  async add(scope: AccessScope, file: { name: string; bytes: Buffer }, alt: string): Promise<{ id: number }> {
    const picture = await rewritten(file.bytes, {
      pixels: IMAGE_LIMITS.pixels,
      widest: WIDEST,
      alpha: true,
      quality: 85,
    });
    if (!picture) throw new Invalid([{ field: 'file', code: 'picture', message: sentence('picture.kind') }]);
    const { data, mime, width, height } = picture;
    const storageKey = await this.storage.put(data);
    const id = await this.database.writeUnlogged(scope, (tx) =>
      tx.insert('image', {
        name: file.name.slice(0, 200),
        mime,
        bytes: data.length,
        width,
        height,
        alt,
        storage_key: storageKey,
      }),
    );
    return { id };
  }

  /**
   * Pictures are public: mail readers fetch them without a session. `width` is one of the steps in which
   * sizes are made; each is made once, when it is first asked for.
   */
  async read(id: number, width?: number): Promise<{ bytes: Buffer; mime: string }> {
    const row = await rowsOf(this.database.unscoped(), 'image')
      .where('id', id)
      .first('organization_id', 'mime', 'storage_key', 'width');
    if (!row) throw new NotFound('picture');
    const key =
      width === undefined || width >= row.width ? row.storage_key : await this.sized(id, width, row);
    return { bytes: await this.storage.get(key), mime: row.mime };
  }

  private async sized(
    id: number,
    width: number,
    of: Pick<Tables['image'], 'organization_id' | 'storage_key'>,
  ): Promise<string> {
    const sizes = () => rowsOf(this.database.unscoped(), 'image_size').where({ image_id: id, width });
    const made = await sizes().first('storage_key');
    if (made) return made.storage_key;
    const picture = await rewritten(await this.storage.get(of.storage_key), {
      pixels: IMAGE_LIMITS.pixels,
      widest: width,
      alpha: true,
      quality: 82,
    });
    if (!picture) return of.storage_key;
    const key = await this.storage.put(picture.data);
    // Two who ask at once make it twice; the one of the first stays.
    await this.database
      .unscoped()('image_size')
      .insert({
        organization_id: of.organization_id,
        image_id: id,
        width,
        bytes: picture.data.length,
        storage_key: key,
      })
      .onConflict()
      .ignore();
    const [kept] = await sizes().select('storage_key');
    if (kept && kept.storage_key !== key) await this.storage.remove(key);
    return kept?.storage_key ?? key;
  }
}
