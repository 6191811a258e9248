import { Inject, Injectable } from '@nestjs/common';
import { Database } from '../platform/database';
import { rowsOf, type Scoped } from '../platform/scoped';
import { Invalid, NotFound } from '../platform/errors';
import { rewritten } from '../platform/pictures';
import type { AccessScope } from '../platform/scope';
import { STORAGE, type Storage } from '../platform/storage';
import { sentence } from '../platform/words';

export const IMAGE_LIMITS = { bytes: 8 * 1024 * 1024, pixels: 40_000_000 } as const;
const WIDEST = 1200;

export interface ImageView {
  id: number;
  name: string;
  alt: string;
  width: number;
  height: number;
  bytes: number;
  src: string;
}

interface ImageRow extends Omit<ImageView, 'src'> {
  mime: string;
  storage_key: string;
}

/**
 * A small library of pictures. Each is decoded and written anew, so nothing but a picture is ever kept or
 * served.
 */
@Injectable()
export class ImagesService {
  constructor(
    @Inject(Database) private readonly database: Database,
    @Inject(STORAGE) private readonly storage: Storage,
  ) {}

  async list(scope: AccessScope): Promise<ImageView[]> {
    const rows = await this.database.read(scope)
      .sql<ImageRow>(`SELECT mime, storage_key, id, name, alt, width, height, bytes
        FROM image
        WHERE organization_id = :org ORDER BY id DESC LIMIT 200`);
    return rows.map((row) => ({
      id: row.id,
      name: row.name,
      alt: row.alt,
      width: row.width,
      height: row.height,
      bytes: row.bytes,
      src: `/media/${row.id}`,
    }));
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

  /** Pictures are public: mail readers fetch them without a session. */
  async read(id: number): Promise<{ bytes: Buffer; mime: string }> {
    const row = await rowsOf(this.database.unscoped(), 'image').where('id', id).first('mime', 'storage_key');
    if (!row) throw new NotFound('picture');
    return { bytes: await this.storage.get(row.storage_key), mime: row.mime };
  }
}
