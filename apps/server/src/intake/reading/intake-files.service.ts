import { Inject, Injectable } from '@nestjs/common';
import { STORAGE, type Storage } from '../../platform/storage';
import { openingOf, readThrough, textLines } from './text-reading';

/** A file that lies nowhere yet, read as one that is brought in would be. */
@Injectable()
export class IntakeFiles {
  constructor(@Inject(STORAGE) private readonly storage: Storage) {}

  /**
   * Its header, and its rows some thousand at a time; what it needed is gone when they are through.
   * @throws Unreadable with what is to be said
   */
  async table(
    bytes: Uint8Array,
  ): Promise<{ header: string[]; pages: AsyncGenerator<{ cells: string[] }[]> }> {
    const storageKey = await this.storage.put(bytes);
    try {
      const known = { fields: [], country: 'US', what: 'people' } as const;
      const { found, textKey } = await readThrough(this.storage, { storageKey, reading: {} }, known);
      return { header: found.header, pages: this.rows(storageKey, textKey) };
    } catch (error) {
      await this.storage.remove(storageKey);
      throw error;
    }
  }

  private async *rows(storageKey: string, textKey: string): AsyncGenerator<{ cells: string[] }[]> {
    try {
      const opening = await openingOf(this.storage, textKey, {});
      for await (const lines of textLines(this.storage, textKey, opening))
        yield lines.filter(({ aside }) => !aside).map(({ cells }) => ({ cells: [...cells] }));
    } finally {
      await this.storage.remove(storageKey);
      if (textKey !== storageKey) await this.storage.remove(textKey);
    }
  }
}
