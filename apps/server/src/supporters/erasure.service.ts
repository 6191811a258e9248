import { Inject, Injectable } from '@nestjs/common';
import { audit } from '../platform/audit';
import { Database } from '../platform/database';
import type { AccessScope } from '../platform/scope';
import { STORAGE, type Storage } from '../platform/storage';
import { HouseKeys } from '../platform/house-keys';
import { ErasureRepository } from './erasure.repository';
import { SupportersRepository } from './supporters.repository';

/**
 * Erasing a person: names, addresses and free words go, in entries too; dates, states and a keyed hash of
 * each address stay, so that what was sent and why can still be shown, counts stay as they were, and nobody
 * who said no is written to again when a file brings the address back.
 */
@Injectable()
export class ErasureService {
  constructor(
    @Inject(Database) private readonly database: Database,
    @Inject(STORAGE) private readonly storage: Storage,
    @Inject(HouseKeys) private readonly keys: HouseKeys,
    @Inject(ErasureRepository) private readonly erasures: ErasureRepository,
    @Inject(SupportersRepository) private readonly supporters: SupportersRepository,
  ) {}

  async erase(scope: AccessScope, id: number): Promise<void> {
    const hashOf = await this.keys.hasher();
    const files = await this.database.write(scope, async (tx) => {
      tx.changed('people', 0, [id]);
      await this.supporters.lockForUpdate(tx, id);
      const people = [...(await this.erasures.mergedInto(tx, id)), id];
      const points = await this.erasures.everyPoint(tx, people);
      const kept = [
        ...(await this.erasures.evidenceKeys(tx, id)),
        ...(await this.erasures.batchFiles(tx, id)),
        ...(await this.erasures.letterFiles(tx, id)),
      ];
      const others = await this.erasures.othersPoints(
        tx,
        people,
        points.map((point) => point.id),
      );
      for (const point of points) {
        const hash = hashOf(point.kind, point.normal);
        // Somebody else's address too: it stays theirs, and what it refused stays with it.
        if (others.has(point.id) || point.shown === '(erased)') continue;
        if (await this.erasures.hasRefused(tx, point, people))
          await this.erasures.keepHash(tx, point.kind, hash);
        kept.push(...(await this.erasures.pointFiles(tx, point.id)));
        await this.erasures.blankPoint(tx, point.id, `erased:${hash}:${point.id}`);
      }
      for (const one of people) await this.erasures.blankPerson(tx, one);
      await audit(
        tx,
        'erase',
        { supporter: id },
        'Erased: names, addresses and free words are gone; dates and states stay',
      );
      return kept;
    });
    for (const key of files) await this.storage.remove(key);
  }
}
