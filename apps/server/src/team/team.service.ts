import { Inject, Injectable, Logger } from '@nestjs/common';
import type { Profile, SessionLine, SessionView } from '@goodword/core/contract';
import { LANGUAGES } from '@goodword/core/forms';
import { cleanMobile } from '@goodword/core/intake';
import type { CallerSession } from '../platform/api';
import { audit } from '../platform/audit';
import { SAMPLE_LINK } from '../platform/short-links';
import { CONFIG, shiftTablesOf, type Config } from '../platform/config';
import { Database } from '../platform/database';
import { Forbidden, Invalid, NotFound, Unauthenticated } from '../platform/errors';
import { programScope } from '../platform/scope';
import { Sessions, type ClientPlace } from '../platform/sessions';
import { stillAs } from '../platform/versions';
import { hashPassword, isPassword, refuseEasy } from './passwords';
import { SignInBrake } from './sign-in-brake';
import { TeammatesRepository } from './teammates.repository';
import { TeamRepository, type TeammateRow } from './team.repository';
import { sentence } from '../platform/words';

export interface StartedSession {
  session: string;
  /** By which this browser is known at its next sign-in. */
  device: string;
}

/** Who is signed in, where, and what they say of themselves. */
@Injectable()
export class TeamService {
  private readonly log = new Logger('team');

  constructor(
    @Inject(TeamRepository) private readonly team: TeamRepository,
    @Inject(TeammatesRepository) private readonly mates: TeammatesRepository,
    @Inject(Sessions) private readonly sessions: Sessions,
    @Inject(SignInBrake) private readonly brake: SignInBrake,
    @Inject(Database) private readonly database: Database,
    @Inject(CONFIG) private readonly config: Config,
  ) {}

  async signIn(
    typed: { email: string; password: string },
    place: ClientPlace,
    known: string | undefined,
  ): Promise<StartedSession> {
    const mate = await this.team.byEmail(typed.email);
    const found = await this.brake.try({ email: typed.email, network: place.network, known }, async () =>
      (await isPassword(mate?.password_hash, typed.password)) ? mate! : null,
    );
    // Not waited for: how long it takes would tell whether there is such an address.
    if (mate)
      void this.note(mate, found !== null, place).catch((error: unknown) =>
        this.log.error({ err: error }, 'a sign-in was not written down'),
      );
    if (!found) throw new Unauthenticated(sentence('access.password'));
    return this.begin({ id: found.id, organizationId: found.organization_id, email: found.email }, place);
  }

  /** A session for somebody who has shown who they are. */
  async begin(
    mate: { id: number; organizationId: number; email: string },
    place: ClientPlace,
  ): Promise<StartedSession> {
    const session = await this.sessions.open(mate, place);
    await this.database.writeUnlogged(programScope(mate.organizationId), (tx) =>
      this.mates.change(tx, mate.id, { signed_in_at: new Date() }),
    );
    return { session, device: this.brake.deviceFor(mate.email) };
  }

  private async note(mate: TeammateRow, right: boolean, place: ClientPlace): Promise<void> {
    await this.database.writeUnlogged(
      { ...programScope(mate.organization_id), actorId: right ? mate.id : null },
      (tx) =>
        audit(
          tx,
          right ? 'sign-in' : 'sign-in-failed',
          { teammate: mate.id },
          `${right ? 'Signed in' : 'A wrong password was typed'} at ${place.network}, with ${browserName(place.browser)}`,
        ),
    );
  }

  async view(session: CallerSession): Promise<SessionView> {
    const { scope } = session;
    const [teammate, organization, chapters] = await Promise.all([
      this.team.teammate(scope, session.teammateId),
      this.team.organization(scope),
      this.team.chapters(scope),
    ]);
    if (!teammate) throw new NotFound('teammate');
    const open = chapters.filter(({ id }) => teammate.chapter_ids?.includes(id) ?? true);
    const named = open.map(({ id, name }) => ({ id, name }));
    return {
      teammate: {
        id: teammate.id,
        name: teammate.name,
        email: teammate.email,
        role: teammate.role,
        mobile: teammate.mobile,
        chapterIds: teammate.chapter_ids,
      },
      organization: {
        id: organization.id,
        name: organization.name,
        country: organization.country,
        locale: organization.locale,
        currency: organization.currency,
        timeZone: organization.time_zone,
        textFrom: organization.text_from,
        shortLink: `${organization.link_url || this.config.PUBLIC_URL}/${SAMPLE_LINK}`,
        shiftTables: shiftTablesOf(this.config),
        languages: organization.languages ?? [...LANGUAGES],
      },
      chapter: named.find((chapter) => chapter.id === scope.chapterId) ?? null,
      chapters: named,
      csrf: session.csrf,
      standins: { mailroom: this.config.MAILROOM_PAGE || null, handsets: this.config.HANDSETS_PAGE || null },
    };
  }

  teammates(scope: CallerSession['scope']): Promise<{ id: number; name: string; email: string }[]> {
    return this.team.teammates(scope);
  }

  async chooseChapter(session: CallerSession, chapterId: number | null): Promise<void> {
    const teammate = await this.team.teammate(session.scope, session.teammateId);
    const own = teammate?.chapter_ids ?? null;
    if (own !== null && !own.some((id) => id === chapterId))
      throw new Forbidden(sentence('access.chapter', { chapters: own.length }));
    const chapters = await this.team.chapters(session.scope);
    if (chapterId !== null && !chapters.some((chapter) => chapter.id === chapterId))
      throw new Invalid(sentence('chapter.none'));
    await this.sessions.chooseChapter(session.tokenHash, chapterId);
  }

  async signOut(session: CallerSession): Promise<void> {
    await this.sessions.close(session.tokenHash);
  }

  async profile(session: CallerSession): Promise<Profile> {
    const mate = await this.own(session);
    return { ...ownOf(mate), email: mate.email };
  }

  async saveProfile(session: CallerSession, wanted: SaidOfOneself & { was: SaidOfOneself }): Promise<void> {
    const { country } = await this.team.organization(session.scope);
    const cleaned = wanted.mobile === '' ? null : cleanMobile(wanted.mobile, country);
    if (cleaned && !cleaned.ok)
      throw new Invalid([
        { field: 'mobile', code: 'mobile', message: sentence('team.mobile', { mobile: wanted.mobile }) },
      ]);
    await this.database.writeUnlogged(session.scope, async (tx) => {
      const mate = await this.mates.lockForUpdate(tx, session.teammateId);
      if (!mate) throw new NotFound('teammate');
      stillAs(wanted.was, ownOf(mate), 'your profile');
      await this.mates.change(tx, mate.id, {
        name: wanted.name,
        title: wanted.title,
        mobile: cleaned?.ok ? cleaned.normal : '',
        answers_to: wanted.answersTo,
        signature: wanted.signature,
        picture_id: wanted.pictureId,
      });
      await audit(tx, 'profile', { teammate: mate.id }, 'Changed what they say of themselves', {
        before: mate.name,
        after: wanted.name,
      });
    });
  }

  /** A new password, for whoever knows the one of before; all other sessions end. */
  async changePassword(
    session: CallerSession,
    typed: { current: string; password: string },
    place: ClientPlace,
    known: string | undefined,
  ): Promise<void> {
    const mate = await this.own(session);
    const right = await this.brake.try({ email: mate.email, network: place.network, known }, async () =>
      (await isPassword(mate.password_hash, typed.current)) ? true : null,
    );
    if (!right)
      throw new Invalid([{ field: 'current', code: 'wrong', message: sentence('access.password-now') }]);
    const { name } = await this.team.organization(session.scope);
    refuseEasy(typed.password, [mate.name, mate.email, name]);
    const password_hash = await hashPassword(typed.password);
    await this.database.writeUnlogged(session.scope, async (tx) => {
      await this.mates.change(tx, mate.id, { password_hash });
      await this.mates.spendLinks(tx, mate.id);
      await audit(tx, 'password', { teammate: mate.id }, 'Changed the password; all other sessions ended');
    });
    await this.sessions.endAll(mate.id, session.tokenHash);
  }

  async openSessions(session: CallerSession): Promise<SessionLine[]> {
    const all = await this.sessions.of(session.teammateId);
    return all.map((one) => ({
      id: one.id,
      network: one.network,
      browser: browserName(one.browser),
      since: one.created_at.toISOString(),
      usedAt: one.seen_at.toISOString(),
      isThis: one.token_hash === session.tokenHash,
    }));
  }

  async endSession(session: CallerSession, id: number): Promise<void> {
    if (!(await this.sessions.end(session.teammateId, id))) throw new NotFound('session');
    await this.noteEnd(session, 'Ended one of their sessions');
  }

  async endOthers(session: CallerSession): Promise<void> {
    await this.sessions.endAll(session.teammateId, session.tokenHash);
    await this.noteEnd(session, 'Ended all their other sessions');
  }

  private async noteEnd(session: CallerSession, words: string): Promise<void> {
    await this.database.writeUnlogged(session.scope, (tx) =>
      audit(tx, 'session-end', { teammate: session.teammateId }, words),
    );
  }

  private async own(session: CallerSession): Promise<TeammateRow> {
    const mate = await this.team.teammate(session.scope, session.teammateId);
    if (!mate) throw new NotFound('teammate');
    return mate;
  }
}

/** What somebody says of themselves. */
export type SaidOfOneself = Omit<Profile, 'email'>;

function ownOf(mate: TeammateRow): SaidOfOneself {
  const { name, title, mobile, answers_to: answersTo, signature, picture_id: pictureId } = mate;
  return { name, title, mobile, answersTo, signature, pictureId };
}

const BROWSERS: readonly [RegExp, string][] = [
  [/Edg\//, 'Edge'],
  [/OPR\//, 'Opera'],
  [/Firefox\//, 'Firefox'],
  [/Chrom(?:e|ium)\//, 'Chrome'],
  [/Safari\//, 'Safari'],
];
const SYSTEMS: readonly [RegExp, string][] = [
  [/iPhone|iPad/, 'iOS'],
  [/Android/, 'Android'],
  [/Windows/, 'Windows'],
  [/Mac OS X/, 'macOS'],
  [/Linux/, 'Linux'],
];

/** What a browser says it is, in words; only its owner's memory is to be helped by it. */
function browserName(agent: string): string {
  const name = BROWSERS.find(([pattern]) => pattern.test(agent))?.[1] ?? 'a program';
  const system = SYSTEMS.find(([pattern]) => pattern.test(agent))?.[1];
  return system ? `${name} on ${system}` : name;
}
