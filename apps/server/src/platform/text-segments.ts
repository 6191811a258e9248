import { smppId } from '@goodword/core/delivery';
import type { Database } from './database';
import { rowsOf } from './scoped';

/** Receipts come within days; what is older is forgotten. */
const KEPT_DAYS = 14;

/**
 * Which text a gateway over SMPP speaks of, by the ids that it gave to its segments. Owns `text_segment`,
 * which belongs to no organization: a receipt brings an id and nothing else.
 */
export class TextSegments {
  constructor(private readonly database: Database) {}

  async keep(key: string, ids: readonly string[]): Promise<void> {
    if (ids.length === 0) return;
    await rowsOf(this.database.unscoped(), 'text_segment')
      .insert(ids.map((id) => ({ gateway_id: smppId(id).slice(0, 65), provider_key: key })))
      .onConflict('gateway_id')
      .merge({ provider_key: this.database.unscoped().raw('VALUES(provider_key)'), is_delivered: 0 });
  }

  /** The segment that has one of these ids; undefined where none is known, or not yet. */
  async find(ids: readonly string[]): Promise<{ id: string; key: string } | undefined> {
    if (ids.length === 0) return undefined;
    const row = await rowsOf(this.database.unscoped(), 'text_segment')
      .whereIn('gateway_id', ids)
      .first('gateway_id', 'provider_key');
    return row && { id: row.gateway_id, key: row.provider_key };
  }

  /** Marks a segment as come; whether all of its text have. */
  async delivered({ id, key }: { id: string; key: string }): Promise<boolean> {
    const rows = () => rowsOf(this.database.unscoped(), 'text_segment');
    await rows().where('gateway_id', id).update({ is_delivered: 1 });
    return (await rows().where({ provider_key: key, is_delivered: 0 }).first('gateway_id')) === undefined;
  }

  async forgetOld(): Promise<void> {
    await rowsOf(this.database.unscoped(), 'text_segment')
      .where('at', '<', new Date(Date.now() - KEPT_DAYS * 86_400_000))
      .delete();
  }
}
