import { Inject, Injectable } from '@nestjs/common';
import type { TeammateView, WaitingFor } from '@goodword/core/contract';
import type { Role } from '@goodword/core/team';
import { CallsRepository } from '../calls/calls.repository';
import { BatchesRepository } from '../intake/batches.repository';
import { MessagesRepository } from '../messages/messages.repository';
import { TemplatesRepository } from '../messages/templates.repository';
import { audit } from '../platform/audit';
import { Database } from '../platform/database';
import { type Scoped } from '../platform/scoped';
import { Conflict, Invalid, NotFound } from '../platform/errors';
import type { AccessScope } from '../platform/scope';
import { Sessions } from '../platform/sessions';
import { stillAs } from '../platform/versions';
import { RepliesRepository } from '../replies/replies.repository';
import { TeamRepository, type TeammateRow } from '../team/team.repository';
import { jsonOf, TeammatesRepository, type TeammateLine } from '../team/teammates.repository';
import { sentence } from '../platform/words';

interface Where {
  role: Role;
  chapterIds: number[] | null;
}

/** Letting teammates in, changing what they may, and taking them out with what waits for them handed on. */
@Injectable()
export class TeammatesService {
  constructor(
    @Inject(Database) private readonly database: Database,
    @Inject(TeamRepository) private readonly team: TeamRepository,
    @Inject(TeammatesRepository) private readonly mates: TeammatesRepository,
    @Inject(Sessions) private readonly sessions: Sessions,
    @Inject(MessagesRepository) private readonly messages: MessagesRepository,
    @Inject(TemplatesRepository) private readonly templates: TemplatesRepository,
    @Inject(BatchesRepository) private readonly batches: BatchesRepository,
    @Inject(CallsRepository) private readonly calls: CallsRepository,
    @Inject(RepliesRepository) private readonly replies: RepliesRepository,
  ) {}

  async all(scope: AccessScope): Promise<TeammateView[]> {
    return (await this.mates.all(this.database.read(scope))).map(viewOf);
  }

  async invite(scope: AccessScope, wanted: Where & { name: string; email: string }): Promise<{ id: number }> {
    namesOf(await this.team.chapters(scope), wanted.chapterIds);
    return this.database.writeUnlogged(scope, async (tx) => {
      const known = await this.mates.byEmail(tx, wanted.email);
      if (known && (known.organization_id !== scope.organizationId || !known.left_at))
        throw new Invalid([
          { field: 'email', code: 'taken', message: sentence('team.email-taken', { email: wanted.email }) },
        ]);
      const id = known?.id ?? (await this.mates.add(tx, wanted));
      // Who comes back is the same person to the record of what was done, with a new password.
      if (known)
        await this.mates.change(tx, id, {
          name: wanted.name,
          role: wanted.role,
          chapter_ids: jsonOf(wanted.chapterIds),
          left_at: null,
          password_hash: null,
        });
      await this.mates.makeLink(tx, id, 'invitation');
      await this.note(tx, id, 'invite', `Invited ${wanted.name} (${wanted.email}) as ${wanted.role}`);
      return { id };
    });
  }

  async inviteAgain(scope: AccessScope, id: number): Promise<void> {
    await this.database.writeUnlogged(scope, async (tx) => {
      const mate = await this.need(tx, id);
      if (mate.password_hash !== null) throw new Conflict(sentence('team.here-already', { name: mate.name }));
      await this.mates.makeLink(tx, id, 'invitation');
      await this.note(tx, id, 'invite', `Invited ${mate.name} again`);
    });
  }

  async change(scope: AccessScope, id: number, wanted: Where & { was: Where }): Promise<void> {
    const chapters = await this.team.chapters(scope);
    const named = namesOf(chapters, wanted.chapterIds);
    await this.database.writeUnlogged(scope, async (tx) => {
      const owners = await this.mates.holdOwners(tx);
      const mate = await this.need(tx, id);
      if (wanted.role !== 'owner' || wanted.chapterIds !== null) keepAnOwner(owners, mate);
      const now = { role: mate.role, chapterIds: mate.chapter_ids };
      stillAs(
        inOrder(wanted.was),
        inOrder(now),
        `what ${mate.name} may do`,
        `${mate.role} in ${namesOf(chapters, mate.chapter_ids)}`,
      );
      await this.mates.change(tx, id, { role: wanted.role, chapter_ids: jsonOf(wanted.chapterIds) });
      const words = `${mate.name} is ${wanted.role} now, in ${named}`;
      await audit(tx, 'role', { teammate: id }, words, { before: mate.role, after: wanted.role });
    });
  }

  async waitingFor(scope: AccessScope, id: number): Promise<WaitingFor> {
    const db = this.database.read(scope);
    const [messages, batches, callLists, replies] = [
      await this.messages.waitingFor(db, id),
      await this.batches.waitingFor(db, id),
      await this.calls.waitingFor(db, id),
      await this.replies.waitingFor(db, id),
    ];
    return { messages, batches, callLists, replies };
  }

  /**
   * Takes somebody out: their sessions end, and what waits for them becomes somebody else's. What they did
   * stays theirs.
   */
  async takeOut(scope: AccessScope, id: number, handTo: number): Promise<void> {
    await this.database.writeUnlogged(scope, async (tx) => {
      const owners = await this.mates.holdOwners(tx);
      const mate = await this.need(tx, id);
      keepAnOwner(owners, mate);
      const heir = handTo === id ? undefined : await this.mates.lockForUpdate(tx, handTo);
      if (!heir || heir.left_at)
        throw new Invalid([{ field: 'handTo', code: 'teammate', message: sentence('team.hand-on') }]);
      await this.messages.handOn(tx, id, heir.id);
      await this.templates.handOn(tx, id, heir.id);
      await this.replies.handOn(tx, id, heir.id);
      await this.batches.handOn(tx, id, heir.id);
      await this.calls.handOn(tx, id, heir.id);
      await this.mates.spendLinks(tx, id);
      await this.mates.change(tx, id, { left_at: new Date(), password_hash: null });
      await this.note(
        tx,
        id,
        'take-out',
        `Took ${mate.name} out of the team; what waited for them went to ${heir.name}`,
      );
    });
    await this.sessions.endAll(id);
  }

  async endSessions(scope: AccessScope, id: number): Promise<void> {
    await this.database.writeUnlogged(scope, async (tx) => {
      const mate = await this.need(tx, id);
      await this.note(tx, id, 'session-end', `Ended all sessions of ${mate.name}`);
    });
    await this.sessions.endAll(id);
  }

  private async need(tx: Scoped, id: number): Promise<TeammateRow> {
    const mate = await this.mates.lockForUpdate(tx, id);
    if (!mate || mate.left_at) throw new NotFound('teammate');
    return mate;
  }

  private note(tx: Scoped, id: number, act: string, words: string): Promise<void> {
    return audit(tx, act, { teammate: id }, words);
  }
}

function keepAnOwner(owners: readonly number[], mate: TeammateRow): void {
  if (owners.length === 1 && owners[0] === mate.id)
    throw new Conflict(sentence('team.only-owner', { name: mate.name }));
}

/** The chapters that somebody works in, for a sentence; refuses ids that name none. */
function namesOf(chapters: readonly { id: number; name: string }[], ids: readonly number[] | null): string {
  if (ids === null) return 'all chapters';
  const named = chapters.filter(({ id }) => ids.includes(id));
  if (named.length !== ids.length)
    throw new Invalid([{ field: 'chapterIds', code: 'chapter', message: sentence('chapter.none') }]);
  return named.map(({ name }) => name).join(', ');
}

/** The same however the chapters were listed. */
function inOrder({ role, chapterIds }: Where): Where {
  return { role, chapterIds: chapterIds && [...chapterIds].sort((a, b) => a - b) };
}

function viewOf(row: TeammateLine): TeammateView {
  const expired = row.link_expires_at !== null && row.link_expires_at.getTime() < Date.now();
  const mail = row.link_mail ?? 'waiting';
  return {
    id: row.id,
    name: row.name,
    email: row.email,
    role: row.role,
    chapterIds: row.chapter_ids,
    state: row.left_at ? 'gone' : row.password_hash === null ? 'invited' : 'here',
    signedInAt: row.signed_in_at?.toISOString() ?? null,
    invitation: row.link_expires_at
      ? {
          state: expired ? 'expired' : mail,
          detail: row.link_detail,
          expiresAt: row.link_expires_at.toISOString(),
        }
      : null,
    sessions: Number(row.sessions),
  };
}
