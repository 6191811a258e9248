import { Inject, Injectable } from '@nestjs/common';
import type { UndoStep } from '@goodword/core/contract';
import type { NewAddress } from '@goodword/core/common';
import { cleanEmail, cleanMobile, placeOfRow, postalKey, shownAddress } from '@goodword/core/intake';
import { speak } from '@goodword/core/words';
import { DoNotContactService } from '../permission/do-not-contact.service';
import { HoldsRepository } from '../permission/holds.repository';
import { audit } from '../platform/audit';
import { Database } from '../platform/database';
import { type Scoped } from '../platform/scoped';
import { Conflict, Invalid, NotFound } from '../platform/errors';
import { LINES, type Lines, type LineType } from '../platform/lookups';
import type { AccessScope } from '../platform/scope';
import { stillAs } from '../platform/versions';
import { TeamRepository } from '../team/team.repository';
import { SupportersRepository } from './supporters.repository';
import { type NewPoint, type PointRow, type PostalParts } from './contact-points.repository';
import { sentence } from '../platform/words';
import { ContactPointsRepository } from './contact-points.repository';

const WORDS = { email: 'Email', mobile: 'Phone', post: 'Postal address' } as const;

/** The addresses of one person, by hand: added, changed, put first, taken off, found good again. */
@Injectable()
export class ContactPointsService {
  constructor(
    @Inject(Database) private readonly database: Database,
    @Inject(DoNotContactService) private readonly doNotContact: DoNotContactService,
    @Inject(HoldsRepository) private readonly holds: HoldsRepository,
    @Inject(SupportersRepository) private readonly supporters: SupportersRepository,
    @Inject(TeamRepository) private readonly team: TeamRepository,
    @Inject(LINES) private readonly lines: Lines,
    @Inject(ContactPointsRepository) private readonly contacts: ContactPointsRepository,
  ) {}

  async add(scope: AccessScope, id: number, address: NewAddress): Promise<void> {
    const read = await this.read(scope, id, address);
    await this.database.write(scope, async (tx) => {
      await this.supporters.lockForUpdate(tx, id);
      await this.refuseKnown(tx, id, read);
      const pointId = await this.hang(tx, id, read);
      const undo: UndoStep = { kind: 'contact', pointId, on: true };
      const words = `${WORDS[read.kind]} ${read.shown} added`;
      await audit(tx, 'contact', { supporter: id }, words, { after: read.shown, undo });
    });
  }

  /**
   * Puts another address in the place of one. What was said at the old one stays there: nobody agreed to
   * anything at the new one; what the person refused holds for them everywhere already.
   */
  async change(
    scope: AccessScope,
    id: number,
    pointId: number,
    { was, ...address }: NewAddress & { was: string },
  ): Promise<void> {
    const read = await this.read(scope, id, address);
    await this.database.write(scope, async (tx) => {
      await this.supporters.lockForUpdate(tx, id);
      const old = await this.need(tx, id, pointId);
      stillAs(was, old.shown, 'the address', old.shown);
      if (old.kind !== read.kind) throw new Conflict(sentence('address.kind'));
      if (old.normal === read.normal) return this.rewrite(tx, id, old, read);
      await this.refuseKnown(tx, id, read);
      const newId = await this.hang(tx, id, read);
      await this.contacts.replacePoint(tx, id, old.id, newId);
      if (read.kind === 'post') await this.contacts.keepPostcode(tx, id);
      const undo: UndoStep = { kind: 'contact-changed', from: old.id, to: newId };
      const words = `${WORDS[read.kind]} changed to ${read.shown}`;
      await audit(tx, 'contact', { supporter: id }, words, { before: old.shown, after: read.shown, undo });
    });
  }

  /** Takes an address off a person. What was agreed or refused there stays with the address. */
  async drop(scope: AccessScope, id: number, pointId: number): Promise<void> {
    await this.database.write(scope, async (tx) => {
      await this.supporters.lockForUpdate(tx, id);
      const point = await this.need(tx, id, pointId);
      await this.contacts.dropPoint(tx, id, pointId);
      if (point.kind === 'post') await this.contacts.keepPostcode(tx, id);
      const undo: UndoStep = { kind: 'contact', pointId, on: false };
      await audit(tx, 'contact', { supporter: id }, `${point.shown} taken off`, {
        before: point.shown,
        undo,
      });
    });
  }

  /** The address that heads the others of its kind is the one that is written to first. */
  async putFirst(scope: AccessScope, id: number, pointId: number): Promise<void> {
    await this.database.write(scope, async (tx) => {
      await this.supporters.lockForUpdate(tx, id);
      const points = await this.contacts.points(tx, [id]);
      const point = points.find((one) => one.id === pointId);
      if (!point) throw new NotFound('address');
      await this.contacts.orderPoints(tx, id, [
        pointId,
        ...points.filter((one) => one.id !== pointId).map((one) => one.id),
      ]);
      if (point.kind === 'post') await this.contacts.keepPostcode(tx, id);
      await audit(tx, 'contact', { supporter: id }, `${point.shown} put first`);
    });
  }

  async release(scope: AccessScope, id: number, pointId: number): Promise<void> {
    await this.database.write(scope, async (tx) => {
      const point = await this.need(tx, (await this.supporters.lockForUpdate(tx, id)).id, pointId);
      // Nobody lifts it but by deciding what they meant; the person does by START.
      if (await this.contacts.isAsked(tx, pointId))
        throw new Conflict(sentence('address.held', { point: point.hold_reason ?? 'read what they wrote' }));
      await this.holds.release(tx, pointId, 'Looked at, and good');
      await audit(tx, 'release', { supporter: id }, `${point.shown} taken off hold`, {
        before: point.hold_reason,
      });
    });
  }

  private async need(tx: Scoped, id: number, pointId: number): Promise<PointRow> {
    const point = (await this.contacts.points(tx, [id])).find((one) => one.id === pointId);
    if (!point) throw new NotFound('address');
    return point;
  }

  /**
   * An address as it was typed, read as those of files are; what line a number is, as said or as whoever
   * knows says.
   */
  private async read(
    scope: AccessScope,
    id: number,
    address: NewAddress,
  ): Promise<NewPoint & { kind: NewAddress['kind'] }> {
    if (address.kind === 'post') {
      const parts: PostalParts = address.post;
      return { kind: 'post', normal: postalKey(address.post, id), shown: shownAddress(address.post), parts };
    }
    const { country } = await this.team.organization(scope);
    const cleaned = address.kind === 'email' ? cleanEmail(address.text) : cleanMobile(address.text, country);
    if (!cleaned.ok) {
      const why = speak(cleaned.reason);
      throw new Invalid([
        {
          field: 'text',
          code: cleaned.reason.code,
          message: `${why.charAt(0).toUpperCase()}${why.slice(1)}.`,
        },
      ]);
    }
    const said: LineType | undefined =
      address.kind === 'mobile' && address.line === 'landline' ? 'landline' : undefined;
    const line =
      address.kind === 'email'
        ? null
        : (said ?? (await this.lines.typesOf([cleaned.normal])).get(cleaned.normal) ?? null);
    return { kind: address.kind, normal: cleaned.normal, shown: cleaned.shown, line };
  }

  private async refuseKnown(tx: Scoped, id: number, { kind, normal, shown }: NewPoint): Promise<void> {
    const known = (await this.contacts.points(tx, [id])).some(
      (point) => point.kind === kind && point.normal === normal,
    );
    if (known) throw new Conflict(sentence('address.here', { shown }));
  }

  private async hang(tx: Scoped, id: number, read: NewPoint & { kind: NewAddress['kind'] }): Promise<number> {
    const doNotContact =
      read.kind !== 'post' && (await this.doNotContact.isClosed(tx, read.kind, read.normal));
    const pointId = await this.contacts.addPoint(tx, id, { ...read, doNotContact });
    if (read.kind === 'post') await this.learnPlace(tx, id, read.parts ?? {});
    return pointId;
  }

  /** The same address written better, for everybody who has it. */
  private async rewrite(tx: Scoped, id: number, old: PointRow, read: NewPoint): Promise<void> {
    await this.contacts.rewritePoint(tx, old.id, read);
    if (old.kind === 'post') await this.contacts.keepPostcode(tx, id);
    const words = `${WORDS[old.kind]} written as ${read.shown}`;
    if (old.shown === read.shown) return tx.unchanged();
    await audit(tx, 'contact', { supporter: id }, words, { before: old.shown, after: read.shown });
  }

  /**
   * A postal address tells where somebody is whose place nobody knew; and its postcode, by which likely
   * doubles are found.
   */
  private async learnPlace(tx: Scoped, id: number, parts: PostalParts): Promise<void> {
    await this.contacts.keepPostcode(tx, id);
    const { country: home } = await this.team.organization(tx);
    const { said, ...place } = placeOfRow(
      { post: { country: parts.country ?? '', region: parts.region ?? '' }, mobile: null },
      home,
    );
    const now = await this.supporters.lockForUpdate(tx, id);
    const isNews =
      now.country === null || (now.country === place.country && now.region === null && place.region !== null);
    if (said && isNews) await this.supporters.setPlace(tx, id, place);
  }
}
