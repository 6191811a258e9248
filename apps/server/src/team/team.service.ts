import { Inject, Injectable } from '@nestjs/common';
import { hash, verify } from '@node-rs/argon2';
import type { SessionView } from '@goodword/core/contract';
import type { Session } from '../platform/api';
import { CONFIG, type Config } from '../platform/config';
import { Forbidden, Invalid, NotFound, Unauthenticated } from '../platform/errors';
import { Sessions } from '../platform/sessions';
import { TeamRepository } from './team.repository';

/** argon2id with the first recommended parameters of RFC 9106 §4 scaled to memory at hand: 64 MiB, 3 passes, 1 lane. */
export function hashPassword(password: string): Promise<string> {
  return hash(password, { memoryCost: 65_536, timeCost: 3, parallelism: 1 });
}

@Injectable()
export class TeamService {
  /** Compared against when no such teammate exists, so that the answer takes as long. */
  private readonly decoy = hashPassword('nobody has this password');

  constructor(
    @Inject(TeamRepository) private readonly team: TeamRepository,
    @Inject(Sessions) private readonly sessions: Sessions,
    @Inject(CONFIG) private readonly config: Config,
  ) {}

  async signIn(email: string, password: string): Promise<string> {
    const teammate = await this.team.byEmail(email);
    const right = await verify(teammate?.password_hash ?? (await this.decoy), password).catch(() => false);
    if (!teammate || !right) throw new Unauthenticated('That address and password do not belong together. Check both and try again.');
    return this.sessions.open({ id: teammate.id, organizationId: teammate.organization_id, chapterId: teammate.chapter_id });
  }

  async view(session: Session): Promise<SessionView> {
    const { scope } = session;
    const [teammate, organization, chapters] = await Promise.all([
      this.team.teammate(scope, session.teammateId),
      this.team.organization(scope),
      this.team.chapters(scope),
    ]);
    if (!teammate) throw new NotFound('teammate');
    const open = teammate.chapter_id === null ? chapters : chapters.filter((chapter) => chapter.id === teammate.chapter_id);
    return {
      teammate: { id: teammate.id, name: teammate.name, email: teammate.email, role: teammate.role, mobile: teammate.mobile },
      organization: {
        id: organization.id,
        name: organization.name,
        country: organization.country,
        locale: organization.locale,
        currency: organization.currency,
        timeZone: organization.time_zone,
        textFrom: organization.text_from,
      },
      chapter: chapters.find((chapter) => chapter.id === scope.chapterId) ?? null,
      chapters: open,
      csrf: session.csrf,
      standins: { mailroom: this.config.MAILROOM_PAGE || null, handsets: this.config.HANDSETS_PAGE || null },
    };
  }

  teammates(scope: Session['scope']): Promise<{ id: number; name: string; email: string }[]> {
    return this.team.teammates(scope);
  }

  async chooseChapter(session: Session, chapterId: number | null): Promise<void> {
    const teammate = await this.team.teammate(session.scope, session.teammateId);
    if (teammate && teammate.chapter_id !== null && teammate.chapter_id !== chapterId)
      throw new Forbidden('You work in one chapter; an owner can open others to you.');
    const chapters = await this.team.chapters(session.scope);
    if (chapterId !== null && !chapters.some((chapter) => chapter.id === chapterId)) throw new Invalid('There is no such chapter.');
    await this.sessions.chooseChapter(session.tokenHash, chapterId);
  }

  async signOut(session: Session): Promise<void> {
    await this.sessions.close(session.tokenHash);
  }
}
