import { Inject, Injectable } from '@nestjs/common';
import type { MessageResults, Page, ResultKind, ResultPerson } from '@goodword/core/contract';
import { type Verdict } from '@goodword/core/permission';
import { liftOf, wilson } from '@goodword/core/results';
import { heldBackWords } from '@goodword/core/words';
import { audit } from '../platform/audit';
import { MailLimitsRepository } from '../limits/mail-limits.repository';
import { Database } from '../platform/database';
import { type Scoped } from '../platform/scoped';
import { Conflict, NotFound } from '../platform/errors';
import { decodeCursor, encodeCursor } from '../platform/paging';
import type { AccessScope } from '../platform/scope';
import { MessagesRepository, type MessageRow } from '../messages/messages.repository';
import { ResultsRepository, type WithOrWithout } from './results.repository';
import { sentence } from '../platform/words';

/** What each count is a share of. */
const RATES: [ResultKind, ResultKind | 'tried'][] = [
  ['delivered', 'sent'],
  // Refused at once it was not sent.
  ['bounced', 'tried'],
  ['opened', 'delivered'],
  ['clicked', 'delivered'],
  ['replied', 'delivered'],
  ['left', 'delivered'],
];

@Injectable()
export class ResultsService {
  constructor(
    @Inject(Database) private readonly database: Database,
    @Inject(ResultsRepository) private readonly results: ResultsRepository,
    @Inject(MessagesRepository) private readonly messages: MessagesRepository,
    @Inject(MailLimitsRepository) private readonly mailLimits: MailLimitsRepository,
  ) {}

  async of(scope: AccessScope, id: number): Promise<MessageResults> {
    const db = this.database.read(scope);
    const message = await this.message(db, id);
    const [all, events, links, recent, night, turn] = await Promise.all([
      this.results.counts(db, id),
      this.results.overTime(db, id),
      this.results.links(db, id),
      this.results.recent(db, id),
      this.results.night(db, id),
      this.results.turn(db, id),
    ]);
    const { tried: _tried, ...counts } = all;
    const rates = RATES.flatMap(([kind, of]) => {
      // Some open a mail that comes back afterwards: a share is never more than the whole.
      const whole = Math.max(all[of], all[kind]);
      const rate = wilson(all[kind], whole);
      return rate ? [{ kind, of: whole, ...rate }] : [];
    });
    // What waits for its moment does not follow the pace of now.
    const isSpread = message.spread_hours !== null || message.own_time === 1;
    const pace =
      message.state === 'sending'
        ? {
            rate: recent / 10,
            secondsLeft: recent === 0 || isSpread ? null : Math.ceil((counts.waiting * 10) / recent),
          }
        : null;
    return {
      message: {
        id,
        name: message.name,
        channel: message.channel,
        state: message.state,
        startedAt: message.started_at?.toISOString() ?? null,
        pausedWhy: message.state === 'paused' ? message.paused_why : null,
      },
      counts,
      without: message.kept_share === null ? null : withoutOf(await this.results.withAndWithout(db, id)),
      rates,
      links: links.map((link) => ({ ...link, people: Number(link.people) })),
      pace,
      limited: message.state === 'sending' ? await this.limitedBy(db, message, counts.waiting) : null,
      night: waiting(night),
      turn: waiting(turn),
      overTime: byHour(events),
    };
  }

  /** Which limit of the house's mail holds the rest back just now. */
  private async limitedBy(db: Scoped, { channel, personal_to }: MessageRow, waiting: number) {
    if (channel !== 'email' || personal_to !== null || waiting === 0) return null;
    const known = await this.mailLimits.limits(db);
    if (!known) return null;
    const { left, by } = await this.mailLimits.left(db, known);
    return left === 0 ? by : null;
  }

  async people(
    scope: AccessScope,
    id: number,
    query: { kind: ResultKind; after?: string; limit: number },
  ): Promise<Page<ResultPerson>> {
    const db = this.database.read(scope);
    const { channel } = await this.message(db, id);
    const { rows, total } = await this.results.people(
      db,
      id,
      query.kind,
      Number(decodeCursor(query.after, 1)?.[0] ?? 0),
      query.limit,
    );
    const words = (verdict: string | null, detail: string | null) =>
      verdict ? heldBackWords(verdict as Verdict, channel, detail) : '';
    return {
      total,
      next: rows.length === query.limit ? encodeCursor([rows.at(-1)!.id]) : null,
      rows: rows.map((row) => ({
        supporterId: row.supporter_id,
        name: row.name || row.address || '',
        address: row.address ?? '',
        at: row.at?.toISOString() ?? null,
        deliveryId: row.id,
        detail:
          query.kind === 'suppressed'
            ? words(row.verdict, row.detail)
            : query.kind === 'door'
              ? words(row.door_verdict, row.detail)
              : (row.detail ?? ''),
      })),
    };
  }

  async settle(scope: AccessScope, deliveryId: number, as: 'sent' | 'again'): Promise<void> {
    await this.database.write(scope, async (tx) => {
      const delivery = await this.results.delivery(tx, deliveryId);
      if (!delivery) throw new NotFound('delivery');
      await this.message(tx, delivery.message_id);
      if (delivery.state !== 'unsure') throw new Conflict(sentence('delivery.settled'));
      await this.results.settle(tx, deliveryId, as);
      await audit(
        tx,
        'settle',
        { delivery: deliveryId },
        as === 'sent' ? 'Unsure mail counted as sent' : 'Unsure mail sent again',
      );
    });
  }

  private async message(db: Scoped, id: number): Promise<MessageRow> {
    const message = await this.messages.find(db, id);
    if (!message) throw new NotFound('message');
    return message;
  }
}

function byHour(events: readonly { at: string; kind: string; n: number }[]): MessageResults['overTime'] {
  const hours = new Map<string, MessageResults['overTime'][number]>();
  for (const event of events) {
    const hour = hours.get(event.at) ?? { at: event.at, sent: 0, opened: 0, clicked: 0, replied: 0, left: 0 };
    hour[event.kind as 'sent'] = Number(event.n);
    hours.set(event.at, hour);
  }
  return [...hours.values()];
}

const waiting = ({ people, until }: { people: number; until: Date | null }) =>
  until ? { people, until: until.toISOString() } : null;

/** What the message did to the giving of those who got it; null while one of the two is nobody. */
function withoutOf(rows: readonly WithOrWithout[]): MessageResults['without'] {
  const sumOf = (isKept: number) => {
    const row = rows.find(({ kept }) => Number(kept) === isKept);
    return { people: Number(row?.people ?? 0), gave: Number(row?.gave ?? 0), given: Number(row?.given ?? 0) };
  };
  const [kept, meant] = [sumOf(1), sumOf(0)];
  const lift = liftOf({ count: kept.gave, of: kept.people }, { count: meant.gave, of: meant.people });
  if (!lift) return null;
  const { more, low, high, differs } = lift;
  return { kept, meant, more, low, high, differs };
}
