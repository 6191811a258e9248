import { Inject, Injectable } from '@nestjs/common';
import type { UndoStep } from '@goodword/core/contract';
import { CampaignsRepository } from '../campaigns/campaigns.repository';
import { audit } from '../platform/audit';
import { Database } from '../platform/database';
import { type Scoped } from '../platform/scoped';
import { Conflict, NotFound } from '../platform/errors';
import type { AccessScope } from '../platform/scope';
import { FieldsRepository, valueOf } from '../supporters/fields.repository';
import { GroupsRepository } from '../supporters/groups.repository';
import { SupportersRepository, type PersonRow } from '../supporters/supporters.repository';
import { HouseholdsRepository } from './households.repository';
import { MergingService } from './merging.service';
import { sentence } from '../platform/words';
import type { Tables } from '../platform/tables/generated';
import { ContactPointsRepository } from '../supporters/contact-points.repository';

interface HistoryRow extends Pick<Tables['audit'], 'id' | 'words' | 'undone_at'> {
  undo_step: UndoStep | null;
}

const SINCE =
  'It was changed again since, so undoing this would lose the later change. Edit it where it stands.';
const same = (one: unknown, other: unknown) => JSON.stringify(one) === JSON.stringify(other);

/**
 * Takes single edits of a record back. Only where the value is still as the edit left it: a later one is
 * never lost.
 */
@Injectable()
export class HistoryService {
  constructor(
    @Inject(Database) private readonly database: Database,
    @Inject(SupportersRepository) private readonly supporters: SupportersRepository,
    @Inject(FieldsRepository) private readonly fields: FieldsRepository,
    @Inject(GroupsRepository) private readonly groups: GroupsRepository,
    @Inject(HouseholdsRepository) private readonly households: HouseholdsRepository,
    @Inject(CampaignsRepository) private readonly campaigns: CampaignsRepository,
    @Inject(MergingService) private readonly mergings: MergingService,
    @Inject(ContactPointsRepository) private readonly contacts: ContactPointsRepository,
  ) {}

  async undo(scope: AccessScope, supporterId: number, auditId: number): Promise<void> {
    await this.database.write(scope, async (tx) => {
      const person = await this.supporters.lockForUpdate(tx, supporterId);
      const [entry] = await tx.sql<HistoryRow>(
        `SELECT id, words, back AS undo_step, undone_at
          FROM audit
          WHERE organization_id = :org AND subject = 'supporter' AND subject_id = :supporterId
            AND id = :auditId FOR UPDATE`,
        { supporterId, auditId },
      );
      if (!entry) throw new NotFound('change');
      if (entry.undone_at) throw new Conflict(sentence('undo.done'));
      if (!entry.undo_step) throw new Conflict(sentence('undo.never'));
      await this.step(tx, person, entry.undo_step);
      await tx.execute(
        'UPDATE audit SET undone_at = UTC_TIMESTAMP(3) WHERE organization_id = :org AND id = :auditId',
        { auditId },
      );
      if (entry.undo_step.kind !== 'merging')
        await audit(tx, 'undo', { supporter: supporterId }, `Undone: ${entry.words}`);
    });
  }

  private async step(tx: Scoped, person: PersonRow, undo: UndoStep): Promise<void> {
    switch (undo.kind) {
      case 'name':
        if (person.first_name !== undo.after.firstName || person.last_name !== undo.after.lastName)
          throw new Conflict(SINCE);
        return this.supporters.rename(tx, person.id, undo.before.firstName, undo.before.lastName);
      case 'place':
        if (!same({ country: person.country, region: person.region }, undo.after)) throw new Conflict(SINCE);
        return this.supporters.setPlace(tx, person.id, undo.before);
      case 'field':
        return this.field(tx, person.id, undo);
      case 'group':
        return this.group(tx, person.id, undo);
      case 'contact':
        return this.contact(tx, person.id, undo);
      case 'contact-changed':
        return this.contactChanged(tx, person.id, undo);
      case 'roster':
        return this.roster(tx, person.id, undo);
      case 'household':
        if ((await this.households.idOf(tx, person.id)) !== undo.after) throw new Conflict(SINCE);
        if (undo.before !== null && !(await this.households.exists(tx, undo.before)))
          throw new Conflict(sentence('undo.household-gone'));
        return this.households.move(tx, person.id, undo.before);
      case 'merging':
        return this.mergings.part(tx, person.id, undo.mergingId);
    }
  }

  private async field(tx: Scoped, id: number, undo: Extract<UndoStep, { kind: 'field' }>): Promise<void> {
    const field = (await this.fields.all(tx)).find((one) => one.id === undo.fieldId);
    if (!field) throw new Conflict(sentence('undo.field-gone'));
    const row = (await this.fields.valuesOf(tx, [id])).find((value) => value.field_id === undo.fieldId);
    if (!same(row ? valueOf(row) : null, undo.after)) throw new Conflict(SINCE);
    await this.fields.set(tx, id, undo.fieldId, undo.before);
  }

  private async group(tx: Scoped, id: number, undo: Extract<UndoStep, { kind: 'group' }>): Promise<void> {
    if (!(await this.groups.find(tx, undo.group, undo.id)))
      throw new Conflict(sentence('undo.group-gone', { group: undo.group }));
    const changed = undo.on
      ? await this.groups.takeOff(tx, undo.group, id, undo.id)
      : await this.groups.put(tx, undo.group, id, undo.id);
    if (!changed) throw new Conflict(SINCE);
  }

  private async roster(tx: Scoped, id: number, undo: Extract<UndoStep, { kind: 'roster' }>): Promise<void> {
    const campaign = await this.campaigns.find(tx, undo.campaignId);
    if (!campaign) throw new Conflict(sentence('undo.campaign-gone'));
    const now =
      (await this.campaigns.of(tx, id)).find((roster) => roster.id === undo.campaignId)?.stage ?? null;
    if (now !== undo.after) throw new Conflict(SINCE);
    if (undo.before === null) return void (await this.campaigns.takeOff(tx, undo.campaignId, [id]));
    if (!campaign.stages.includes(undo.before))
      throw new Conflict(sentence('undo.stage-gone', { name: campaign.name, before: undo.before }));
    await this.campaigns.put(tx, undo.campaignId, [id], undo.before);
  }

  private async contact(tx: Scoped, id: number, undo: Extract<UndoStep, { kind: 'contact' }>): Promise<void> {
    const there = (await this.contacts.points(tx, [id])).some((point) => point.id === undo.pointId);
    if (there !== undo.on) throw new Conflict(SINCE);
    if (undo.on) await this.contacts.dropPoint(tx, id, undo.pointId);
    else await this.contacts.hangPoint(tx, id, undo.pointId);
  }

  private async contactChanged(
    tx: Scoped,
    id: number,
    { from, to }: Extract<UndoStep, { kind: 'contact-changed' }>,
  ): Promise<void> {
    const here = (await this.contacts.points(tx, [id])).map((point) => point.id);
    if (!here.includes(to) || here.includes(from)) throw new Conflict(SINCE);
    await this.contacts.hangPoint(tx, id, from);
    await this.contacts.replacePoint(tx, id, to, from);
    await this.contacts.keepPostcode(tx, id);
  }
}
