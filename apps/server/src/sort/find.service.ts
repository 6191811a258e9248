import { Inject, Injectable } from '@nestjs/common';
import type { FinderHit } from '@goodword/core/contract';
import { Database } from '../platform/database';
import type { AccessScope } from '../platform/scope';
import { RollService } from '../roll/roll.service';
import { SupportersRepository } from '../supporters/supporters.repository';
import { FindRepository } from './find.repository';
import { ContactPointsRepository } from '../supporters/contact-points.repository';

const MOST_PEOPLE = 8;
const MOST_THINGS = 5;

/**
 * Whatever a few letters can mean: people by parts of their names, by email, by last digits; things by their
 * names.
 */
@Injectable()
export class FindService {
  constructor(
    @Inject(Database) private readonly database: Database,
    @Inject(RollService) private readonly roll: RollService,
    @Inject(FindRepository) private readonly finder: FindRepository,
    @Inject(SupportersRepository) private readonly supporters: SupportersRepository,
    @Inject(ContactPointsRepository) private readonly contacts: ContactPointsRepository,
  ) {}

  async find(scope: AccessScope, text: string): Promise<FinderHit[]> {
    const db = this.database.read(scope);
    const [ids, things] = await Promise.all([
      this.people(scope, text),
      this.finder.things(db, text, MOST_THINGS),
    ]);
    const [people, points] = await Promise.all([
      this.supporters.byIds(db, ids),
      this.contacts.points(db, ids),
    ]);
    return [
      ...people.map((person): FinderHit => ({
        kind: 'supporter',
        id: person.id,
        name: `${person.first_name} ${person.last_name}`.trim(),
        note: points.find((point) => point.supporter_id === person.id)?.shown ?? person.chapter,
      })),
      ...things.map(({ kind, id, name, state }): FinderHit => ({ kind, id, name, note: state })),
    ];
  }

  private async people(scope: AccessScope, text: string): Promise<number[]> {
    const db = this.database.read(scope);
    const digits = text.replace(/\D/g, '');
    if (digits.length >= 4 && /^[\d\s()+.-]+$/.test(text))
      return this.finder.byDigits(db, digits, MOST_PEOPLE);
    if (text.includes('@')) return this.finder.byEmail(db, text, MOST_PEOPLE);
    const words = text
      .split(/[\s,]+/)
      .filter(Boolean)
      .slice(0, 5);
    const named = await this.roll.ask(scope, 'find', { words, limit: MOST_PEOPLE });
    if (named.length >= MOST_PEOPLE || words.length > 1) return named;
    return [
      ...new Set([...named, ...(await this.finder.byEmail(db, words[0]!, MOST_PEOPLE - named.length))]),
    ];
  }
}
