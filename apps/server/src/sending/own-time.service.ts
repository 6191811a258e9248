import { Inject, Injectable } from '@nestjs/common';
import { parsePhoneNumberFromString } from 'libphonenumber-js/max';
import type { OwnTimesView } from '@goodword/core/contract';
import { momentFor, spreadOf, wallTimeOf, type WallTime } from '@goodword/core/schedule';
import { Database } from '../platform/database';
import { Conflict } from '../platform/errors';
import type { AccessScope } from '../platform/scope';
import type { Scoped } from '../platform/scoped';
import { MessagesRepository, type MessageRow } from '../messages/messages.repository';
import { TeamRepository } from '../team/team.repository';
import { sentence } from '../platform/words';
import { AheadRepository } from './ahead.repository';
import { EVERYBODY, SendingRepository } from './sending.repository';

/** What says when a message leaves. */
type LeavingMessage = Pick<
  MessageRow,
  'id' | 'scheduled_at' | 'started_at' | 'channel' | 'own_time' | 'spread_hours'
>;

/** When a message comes to each person: at a time where they are, and spread over hours. */
@Injectable()
export class OwnTimeService {
  constructor(
    @Inject(Database) private readonly database: Database,
    @Inject(MessagesRepository) private readonly messages: MessagesRepository,
    @Inject(SendingRepository) private readonly sending: SendingRepository,
    @Inject(TeamRepository) private readonly team: TeamRepository,
    @Inject(AheadRepository) private readonly ahead: AheadRepository,
  ) {}

  /** When a time of the house's clock comes to those of the last look, zone by zone, the earliest first. */
  async of(scope: AccessScope, id: number, at: Date): Promise<OwnTimesView> {
    const db = this.database.read(scope);
    const message = await this.messages.need(db, id);
    const { time_zone: home } = await this.team.organization(scope);
    const time = wallTimeOf(at.getTime(), home);
    const reached = await this.sending.lookPeople(db, message.id, 'send', 0, EVERYBODY);
    const zones = new Map<string, OwnTimesView['zones'][number]>();
    for (const { people, ...place } of await this.ahead.places(db, reached)) {
      const moment = momentFor(time, place, home);
      const known = zones.get(moment.zone);
      if (known) known.people += people;
      else
        zones.set(moment.zone, {
          ...{ zone: moment.zone, people, at: new Date(moment.at).toISOString(), change: moment.change },
        });
    }
    const all = [...zones.values()].sort((a, b) => a.at.localeCompare(b.at) || b.people - a.people);
    const now = new Date().toISOString();
    const over = all.filter((one) => one.at <= now).reduce((sum, one) => sum + one.people, 0);
    return { zones: all, over };
  }

  /** When the first of them is to get it. */
  async begins(scope: AccessScope, id: number, at: Date): Promise<Date> {
    const [first] = (await this.of(scope, id, at)).zones;
    if (!first) throw new Conflict(sentence('send.nobody'));
    return new Date(first.at);
  }

  /** From when on each of these may get it; nothing of those who may at once. */
  async momentsOf(
    tx: Scoped,
    message: LeavingMessage,
    people: readonly { supporterId: number; contactPointId: number | null }[],
    home: string,
  ): Promise<Map<number, Date>> {
    const own = message.own_time === 1 ? await this.ownMoments(tx, message, people, home) : null;
    const { id, spread_hours: hours } = message;
    if (hours === null) return own ?? new Map();
    const begun = (message.started_at ?? new Date()).getTime();
    return new Map(
      people.map(({ supporterId }) => {
        const from = own?.get(supporterId)?.getTime() ?? begun;
        return [supporterId, new Date(from + spreadOf(id, supporterId, hours))];
      }),
    );
  }

  /** When the time comes to each where they are; with their number's country too where it is a text. */
  private async ownMoments(
    tx: Scoped,
    { scheduled_at, channel }: LeavingMessage,
    people: readonly { supporterId: number; contactPointId: number | null }[],
    home: string,
  ): Promise<Map<number, Date>> {
    if (scheduled_at === null || people.length === 0) return new Map();
    const time: WallTime = wallTimeOf(scheduled_at.getTime(), home);
    const rows = await tx.sql<{ id: number; country: string | null; region: string | null }>(
      'SELECT id, country, region FROM supporter WHERE organization_id = :org AND id IN (:ids)',
      { ids: people.map(({ supporterId }) => supporterId) },
    );
    const places = new Map(rows.map(({ id, ...place }) => [id, place]));
    const countries = channel === 'text' ? await this.countriesOf(tx, people) : new Map<number, string>();
    return new Map(
      people.map(({ supporterId, contactPointId }) => {
        const place = places.get(supporterId) ?? { country: null, region: null };
        const { at } = momentFor(time, place, home, countries.get(contactPointId ?? 0) ?? null);
        return [supporterId, new Date(at)];
      }),
    );
  }

  private async countriesOf(
    tx: Scoped,
    people: readonly { contactPointId: number | null }[],
  ): Promise<Map<number, string>> {
    const ids = people.flatMap(({ contactPointId }) => contactPointId ?? []);
    if (ids.length === 0) return new Map();
    const points = await tx.sql<{ id: number; normal: string }>(
      'SELECT id, normal FROM contact_point WHERE organization_id = :org AND id IN (:ids)',
      { ids },
    );
    return new Map(
      points.flatMap(({ id, normal }): [number, string][] => {
        const country = parsePhoneNumberFromString(normal)?.country;
        return country ? [[id, country]] : [];
      }),
    );
  }
}
