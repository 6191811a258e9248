import { Inject, Injectable } from '@nestjs/common';
import type { LinkView } from '@goodword/core/contract';
import { escapeHtml } from '@goodword/core/letter';
import { audit } from '../platform/audit';
import { CONFIG, type Config } from '../platform/config';
import { Database } from '../platform/database';
import { type Scoped } from '../platform/scoped';
import { Conflict } from '../platform/errors';
import { MAIL_OUT, type MailOut } from '../platform/mail-out';
import { programScope } from '../platform/scope';
import { Sessions } from '../platform/sessions';
import { Tokens } from '../platform/tokens';
import { hashPassword, refuseEasy } from './passwords';
import { TeammatesRepository, type LinkRow } from './teammates.repository';
import { houseMail } from './house-mail';
import { imprint, TeamRepository, type OrganizationRow, type TeammateRow } from './team.repository';

/**
 * Links that somebody who forgot may have within the hour: whoever types others' addresses fills no mailbox.
 */
const MOST_AN_HOUR = 3;
const MOST_TRIES = 8;
const GONE = 'This link was used, or is too old, or a newer one was sent. Ask for another one.';

/** One-time links by mail: the invitation of a teammate, and a forgotten password. */
@Injectable()
export class TeammateLinks {
  private readonly tokens: Tokens;

  constructor(
    @Inject(Database) private readonly database: Database,
    @Inject(CONFIG) private readonly config: Config,
    @Inject(MAIL_OUT) private readonly mailOut: MailOut,
    @Inject(Sessions) private readonly sessions: Sessions,
    @Inject(TeamRepository) private readonly team: TeamRepository,
    @Inject(TeammatesRepository) private readonly mates: TeammatesRepository,
  ) {
    this.tokens = new Tokens(config.SECRET, config.SECRET_BEFORE);
  }

  /**
   * Somebody forgot. Whether there is such an address is never told: the answer is the same, and as quick.
   */
  async forgotten(email: string): Promise<void> {
    const known = await this.team.byEmail(email);
    if (!known) return;
    await this.database.writeUnlogged(programScope(known.organization_id), async (tx) => {
      const mate = await this.mates.lockForUpdate(tx, known.id);
      if (!mate || mate.left_at || (await this.mates.askedLately(tx, mate.id)) >= MOST_AN_HOUR) return;
      await this.mates.makeLink(tx, mate.id, mate.password_hash === null ? 'invitation' : 'password');
      await audit(tx, 'password-asked', { teammate: mate.id }, 'Asked for a link to set the password');
    });
  }

  /** What a link is for. */
  async look(token: string): Promise<LinkView> {
    const link = await this.open(token);
    const scope = programScope(link.organization_id);
    const [mate, organization] = await Promise.all([
      this.team.teammate(scope, link.teammate_id),
      this.team.organization(scope),
    ]);
    if (!mate || mate.left_at) throw new Conflict(GONE);
    return { kind: link.kind, name: mate.name, email: mate.email, organization: organization.name };
  }

  /** Sets the password by a link, once; every session of before ends. */
  async use(
    token: string,
    wanted: { password: string; name: string },
  ): Promise<{ id: number; organizationId: number; email: string }> {
    const found = await this.open(token);
    const scope = programScope(found.organization_id);
    const organization = await this.team.organization(scope);
    const mate = await this.database.writeUnlogged({ ...scope, actorId: found.teammate_id }, async (tx) => {
      const link = await this.mates.holdLink(tx, found.id);
      const locked = await this.mates.lockForUpdate(tx, found.teammate_id);
      if (!link || !isOpen(link) || !locked || locked.left_at) throw new Conflict(GONE);
      const name = wanted.name || locked.name;
      refuseEasy(wanted.password, [name, locked.email, organization.name]);
      await this.mates.change(tx, locked.id, { password_hash: await hashPassword(wanted.password), name });
      await this.mates.spendLinks(tx, locked.id);
      const words =
        link.kind === 'invitation'
          ? 'Came by the invitation'
          : 'Set a new password by a link; all other sessions ended';
      await audit(tx, link.kind === 'invitation' ? 'joined' : 'password', { teammate: locked.id }, words);
      return locked;
    });
    await this.sessions.endAll(mate.id);
    return { id: mate.id, organizationId: mate.organization_id, email: mate.email };
  }

  /** Hands the next mail with a link over; false where none is due. */
  async sendOne(): Promise<boolean> {
    const due = await this.mates.dueLink(this.database);
    if (!due) return false;
    const scope = programScope(due.organization_id);
    const claimed = await this.database.writeUnlogged(scope, (tx) => this.claim(tx, due.id));
    if (!claimed) return true;
    const { link, mate, by } = claimed;
    const organization = await this.team.organization(scope);
    const result = await this.mailOut.send(this.mailOf(link, mate, by, organization));
    await this.database.writeUnlogged(scope, async (tx) => {
      if (result.kind === 'accepted')
        return this.mates.settleLink(tx, link.id, { mail: 'sent', detail: null });
      // A second copy of a one-time link does no harm: what is unsure is sent again.
      const again = !(result.kind === 'refused' && result.permanent) && link.tries < MOST_TRIES;
      const detail = result.detail.slice(0, 300);
      const dueAt = new Date(Date.now() + 15_000 * 2 ** link.tries);
      await this.mates.settleLink(
        tx,
        link.id,
        again ? { mail: 'waiting', due_at: dueAt, detail } : { mail: 'failed', due_at: null, detail },
      );
    });
    return true;
  }

  private async claim(
    tx: Scoped,
    id: number,
  ): Promise<{ link: LinkRow; mate: TeammateRow; by: TeammateRow | undefined } | null> {
    const link = await this.mates.holdLink(tx, id);
    if (link?.mail !== 'waiting') return null;
    const mate = await this.mates.lockForUpdate(tx, link.teammate_id);
    if (!mate || mate.left_at || !isOpen(link)) {
      await this.mates.settleLink(tx, id, {
        mail: 'failed',
        due_at: null,
        detail: 'It opens nothing any more',
      });
      return null;
    }
    // Where this process ends before the answer, the mail goes again after a minute.
    await this.mates.settleLink(tx, id, {
      mail: 'waiting',
      tries: link.tries + 1,
      due_at: new Date(Date.now() + 60_000),
    });
    return {
      link: { ...link, tries: link.tries + 1 },
      mate,
      by: link.made_by ? await this.mates.lockForUpdate(tx, link.made_by) : undefined,
    };
  }

  private mailOf(
    link: LinkRow,
    mate: TeammateRow,
    by: TeammateRow | undefined,
    organization: OrganizationRow,
  ) {
    const url = `${this.config.PUBLIC_URL}/password/${this.tokens.make('teammate', link.id)}`;
    const isInvitation = link.kind === 'invitation';
    const subject = isInvitation
      ? `${organization.name}: your place in Good Word`
      : 'Good Word: set a new password';
    const words = isInvitation
      ? `${by?.name ?? organization.name} invites you to work in Good Word for ${organization.name}. Open the link, choose a password, and you are in. It works once, for seven days.`
      : `Somebody, we hope you, asked to set a new password for ${mate.email}. Open the link and choose one. It works once, for one hour. If it was not you, do nothing: your password stays as it is.`;
    const from = organization.from_email || `goodword@${new URL(this.config.PUBLIC_URL).hostname}`;
    return houseMail({ ...organization, from_email: from }, this.tokens, {
      ...{ to: mate.email, key: `teammate-${link.id}-${link.tries}`, subject },
      about: { teammateId: mate.id },
      text: `${mate.name},\n\n${words}\n\n${url}\n\n${imprint(organization)}\n`,
      html: `<p>${escapeHtml(mate.name)},</p><p>${escapeHtml(words)}</p><p><a href="${url}">${url}</a></p><p>${escapeHtml(imprint(organization))}</p>`,
    });
  }

  private async open(token: string): Promise<LinkRow> {
    const read = this.tokens.read('teammate', token);
    const link = read ? await this.mates.link(this.database, read.id) : undefined;
    if (!link || !isOpen(link)) throw new Conflict(GONE);
    return link;
  }
}

const isOpen = (link: LinkRow) => link.used_at === null && link.expires_at.getTime() > Date.now();
