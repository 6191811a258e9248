import { Inject, Injectable } from '@nestjs/common';
import type { ThreadItem, ThreadsQuery, ThreadsView, ThreadView } from '@goodword/core/contract';
import { LedgerRepository } from '../permission/ledger/ledger.repository';
import { audit } from '../platform/audit';
import { Database } from '../platform/database';
import { Invalid, NotFound } from '../platform/errors';
import type { AccessScope } from '../platform/scope';
import type { Scoped } from '../platform/scoped';
import { STORAGE, type Storage } from '../platform/storage';
import { sentence } from '../platform/words';
import { NotesRepository } from '../record/notes.repository';
import { RepliesRepository, whoseIs, type ReplyRow, type Whose } from '../replies/replies.repository';
import { noReadInReply } from '../replies/said-no';
import { ContactPointsRepository } from '../supporters/contact-points.repository';
import { assignedTo, BARE_ITEM, ThreadsRepository } from './threads.repository';

const MOST_NOTES = 50;

/**
 * What people wrote back, a thread a person: read, answered elsewhere, given to a teammate, put aside, done.
 * Each act names the newest reply that was seen and touches nothing that came after it.
 */
@Injectable()
export class InboxService {
  constructor(
    @Inject(Database) private readonly database: Database,
    @Inject(RepliesRepository) private readonly replies: RepliesRepository,
    @Inject(ThreadsRepository) private readonly threads: ThreadsRepository,
    @Inject(NotesRepository) private readonly notes: NotesRepository,
    @Inject(LedgerRepository) private readonly ledger: LedgerRepository,
    @Inject(ContactPointsRepository) private readonly contacts: ContactPointsRepository,
    @Inject(STORAGE) private readonly storage: Storage,
  ) {}

  async page(scope: AccessScope, query: ThreadsQuery): Promise<ThreadsView> {
    const db = this.database.read(scope);
    const [threads, counts] = [await this.threads.page(db, query), await this.threads.counts(db)];
    return { threads, counts };
  }

  /** The thread that a reply belongs to. */
  async thread(scope: AccessScope, id: number): Promise<ThreadView> {
    const db = this.database.read(scope);
    const whose = whoseIs(await this.need(db, id));
    const newest = await this.threads.newest(db, whose);
    if (!newest) throw new NotFound('reply');
    const items = await this.items(db, whose);
    return {
      replyId: newest.id,
      supporterId: newest.supporter_id,
      name: newest.name,
      from: newest.sender,
      channel: newest.channel,
      subject: newest.subject,
      message: newest.message,
      open: Number(newest.waiting),
      assignedTo: assignedTo(newest),
      asideUntil: newest.aside_until?.toISOString() ?? null,
      question: await this.threads.question(db, whose),
      after: items
        .filter(({ kind }) => kind === 'out')
        .reduce<number | null>((a, b) => Math.max(a ?? 0, b.id), null),
      mates: await this.threads.mates(db),
      items,
    };
  }

  /** The oldest first. */
  private async items(db: Scoped, whose: Whose): Promise<ThreadItem[]> {
    const { supporterId } = whose;
    const theirs = await this.threads.theirs(db, whose);
    if (supporterId === null) return theirs.reverse();
    const notes = await this.notes.of(db, supporterId, MOST_NOTES);
    const noted = notes.map((note): ThreadItem => ({
      ...BARE_ITEM,
      kind: 'note',
      id: note.id,
      at: note.at,
      by: note.by,
      words: note.body,
    }));
    return [...theirs, ...(await this.threads.ours(db, supporterId)), ...noted].sort(
      (a, b) => a.at.localeCompare(b.at) || a.id - b.id,
    );
  }

  async read(scope: AccessScope, id: number): Promise<void> {
    await this.act(scope, id, (tx, reply) => this.replies.read(tx, reply));
  }

  async handle(scope: AccessScope, id: number, handled: boolean): Promise<void> {
    await this.act(scope, id, (tx, reply) => this.replies.handle(tx, reply, handled));
  }

  async putAside(scope: AccessScope, id: number, until: string | null): Promise<void> {
    const time = until === null ? null : new Date(until);
    if (time !== null && time <= new Date())
      throw new Invalid([{ field: 'until', code: 'past', message: sentence('reply.aside-past') }]);
    await this.act(scope, id, (tx, reply) => this.replies.putAside(tx, reply, time));
  }

  async assign(scope: AccessScope, id: number, to: number | null): Promise<void> {
    await this.act(scope, id, async (tx, reply) => {
      const mates = to === null ? [] : await this.threads.mates(tx);
      if (to !== null && !mates.some((mate) => mate.id === to))
        throw new Invalid([{ field: 'to', code: 'mate', message: sentence('reply.no-mate') }]);
      await this.replies.assign(tx, reply, to);
    });
  }

  /** They said in their own words that they want no more of this channel; a person has read it. */
  async recordNo(scope: AccessScope, id: number): Promise<void> {
    await this.database.write(scope, async (tx) => {
      const reply = await this.lock(tx, id);
      const kind = reply.channel === 'email' ? 'email' : 'mobile';
      await this.ledger.recordAll(
        tx,
        noReadInReply({
          contactPointId: reply.contact_point_id,
          kind,
          supporterId: reply.supporter_id,
          sharers: kind === 'email' ? [] : await this.contacts.ownersOf(tx, reply.contact_point_id!),
          words: reply.body.slice(0, 500),
          saidAt: reply.at,
          replyId: reply.id,
        }),
      );
      const about: Record<string, number> =
        reply.supporter_id === null ? { reply: id } : { supporter: reply.supporter_id };
      await audit(tx, 'read-no', about, `“${reply.body.slice(0, 200)}”: read as opting out`);
    });
  }

  async file(scope: AccessScope, id: number, fileId: number): Promise<{ name: string; bytes: Buffer }> {
    const db = this.database.read(scope);
    await this.need(db, id);
    const file = await this.replies.file(db, id, fileId);
    if (!file) throw new NotFound('file');
    return { name: file.name, bytes: await this.storage.get(file.key) };
  }

  private async act(
    scope: AccessScope,
    id: number,
    does: (tx: Scoped, reply: ReplyRow) => Promise<void>,
  ): Promise<void> {
    await this.database.writeUnlogged(scope, async (tx) => does(tx, await this.lock(tx, id)));
  }

  private async lock(tx: Scoped, id: number): Promise<ReplyRow> {
    const reply = await this.replies.lock(tx, id);
    if (!reply) throw new NotFound('reply');
    return reply;
  }

  private async need(db: Scoped, id: number): Promise<ReplyRow> {
    const reply = await this.replies.find(db, id);
    if (!reply) throw new NotFound('reply');
    return reply;
  }
}
