import { Inject, Injectable } from '@nestjs/common';
import { allColumns, type IntakePlan, type PlanFault } from '@goodword/core/intake';
import { nameKey, STANDARD_NAMES } from '@goodword/core/merge';
import { said, type Said } from '@goodword/core/common';
import { CampaignsRepository } from '../../campaigns/campaigns.repository';
import type { Scoped } from '../../platform/scoped';
import { FieldsRepository } from '../../supporters/fields.repository';
import { nameFault } from '../../supporters/fields.service';
import { GroupsRepository } from '../../supporters/groups.repository';

/**
 * Whether everything that a plan names is there and may be used so: asked when it is made, and again before
 * people come in by it.
 */
@Injectable()
export class PlanFaultsService {
  constructor(
    @Inject(CampaignsRepository) private readonly campaigns: CampaignsRepository,
    @Inject(FieldsRepository) private readonly fields: FieldsRepository,
    @Inject(GroupsRepository) private readonly groups: GroupsRepository,
  ) {}

  async of(db: Scoped, plan: IntakePlan): Promise<PlanFault[]> {
    const told = (field: string, why: readonly Said[]) => why.map((one) => ({ field, said: one }));
    return [
      ...told('columns', await this.ofFields(db, plan)),
      ...(await this.ofGroups(db, plan)),
      ...told('roster', await this.ofRoster(db, plan)),
      ...told('listIds', await this.ofPublicLists(db, plan)),
    ];
  }

  /**
   * Fields may have been deleted or made another type of since they were matched; staged values are of the
   * old one.
   */
  private async ofFields(db: Scoped, plan: IntakePlan): Promise<Said[]> {
    const known = await this.fields.all(db);
    return allColumns(plan).flatMap((choice) => {
      if (choice.to === 'field') {
        const field = known.find(({ id }) => id === choice.fieldId);
        if (!field) return [said('plan.field-gone')];
        return field.type === choice.type
          ? []
          : [said('plan.field-type', { field: field.name, type: said(`field-type.${field.type}`) })];
      }
      if (choice.to !== 'newField') return [];
      const standard = STANDARD_NAMES.find(({ name }) => nameKey(name) === nameKey(choice.name));
      if (standard) return [said('plan.field-standard', { field: standard.name })];
      const field = known.find(({ name }) => nameKey(name) === nameKey(choice.name));
      if (field && field.type !== choice.type)
        return [said('plan.field-taken', { field: field.name, type: said(`field-type.${field.type}`) })];
      return field ? [] : (nameFault(choice.name) ?? []);
    });
  }

  private async ofGroups(db: Scoped, plan: IntakePlan): Promise<PlanFault[]> {
    const gone = async (kind: 'tag' | 'list', ids: readonly number[]) => {
      for (const id of ids)
        if (!(await this.groups.find(db, kind, id)))
          return [{ field: `${kind}Ids`, said: said(`plan.${kind}-gone`) }];
      return [];
    };
    return [...(await gone('tag', plan.tagIds)), ...(await gone('list', plan.listIds))];
  }

  private async ofRoster(db: Scoped, { roster }: IntakePlan): Promise<Said[]> {
    if (!roster) return [];
    const campaign = await this.campaigns.find(db, roster.campaignId);
    if (!campaign) return [said('plan.campaign-gone')];
    if (campaign.stages.includes(roster.stage)) return [];
    return [said('plan.stage', { stage: roster.stage, campaign: campaign.name, stages: campaign.stages })];
  }

  private async ofPublicLists(db: Scoped, plan: IntakePlan): Promise<Said[]> {
    if (plan.listIds.length === 0 || plan.what !== 'people') return [];
    const lists = await db.sql<{ id: number; name: string }>(
      'SELECT id, name FROM list WHERE organization_id = :org AND is_public = 1 AND id IN (:ids)',
      {
        ids: plan.listIds,
      },
    );
    const agreed = new Set(
      Object.values(plan.permission).flatMap((one) => (one.said === 'yes' ? one.scopes : [])),
    );
    return lists
      .filter(({ id }) => !agreed.has(`list:${id}`) && !agreed.has('all') && !agreed.has('marketing'))
      .map(({ name }) => said('plan.public-list', { list: name }));
  }
}
