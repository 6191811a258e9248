import { Inject, Injectable } from '@nestjs/common';
import { FIELD_TYPE_WORDS, type FieldType } from '@goodword/core/fields';
import { allColumns, type IntakePlan, type PlanFault } from '@goodword/core/intake';
import { nameKey, STANDARD_NAMES } from '@goodword/core/merge';
import { CampaignsRepository } from '../campaigns/campaigns.repository';
import type { Scoped } from '../platform/database';
import { FieldsRepository } from '../supporters/fields.repository';
import { nameFault } from '../supporters/fields.service';
import { GroupsRepository } from '../supporters/groups.repository';

/** Whether everything that a plan names is there and may be used so: asked when it is made, and again before people come in by it. */
@Injectable()
export class PlanFaultsService {
  constructor(
    @Inject(CampaignsRepository) private readonly campaigns: CampaignsRepository,
    @Inject(FieldsRepository) private readonly fields: FieldsRepository,
    @Inject(GroupsRepository) private readonly groups: GroupsRepository,
  ) {}

  async of(db: Scoped, plan: IntakePlan): Promise<PlanFault[]> {
    const told = (field: string, messages: readonly string[]) => [...new Set(messages)].map((message) => ({ field, message }));
    return [
      ...told('columns', await this.ofFields(db, plan)),
      ...(await this.ofGroups(db, plan)),
      ...told('roster', await this.ofRoster(db, plan)),
      ...told('listIds', await this.ofPublicLists(db, plan)),
    ];
  }

  /** Fields may have been deleted or made another type of since they were matched; staged values are of the old one. */
  private async ofFields(db: Scoped, plan: IntakePlan): Promise<string[]> {
    const known = await this.fields.all(db);
    return allColumns(plan).flatMap((choice) => {
      if (choice.to === 'field') {
        const field = known.find(({ id }) => id === choice.fieldId);
        if (!field) return ['A field that a column is matched to is no longer there. Match the column to another under “Columns”.'];
        return field.type === choice.type ? [] : [`${field.name} is ${takes(field.type)} now. Open “Columns” and match its column once more.`];
      }
      if (choice.to !== 'newField') return [];
      const standard = STANDARD_NAMES.find(({ name }) => nameKey(name) === nameKey(choice.name));
      if (standard) return [`A field can't be named ${standard.name}: everybody has that already. Take another name.`];
      const field = known.find(({ name }) => nameKey(name) === nameKey(choice.name));
      if (field && field.type !== choice.type)
        return [`There is a field named ${field.name} already, which is ${takes(field.type)}. Match the column to it, or take another name.`];
      return field ? [] : (nameFault(choice.name) ?? []);
    });
  }

  private async ofGroups(db: Scoped, plan: IntakePlan): Promise<PlanFault[]> {
    const gone = async (kind: 'tag' | 'list', ids: readonly number[]) => {
      for (const id of ids)
        if (!(await this.groups.find(db, kind, id)))
          return [
            {
              field: `${kind}Ids`,
              message: `A ${kind} that these people go ${kind === 'tag' ? 'under' : 'on'} is no longer there. Take it off under “Where they go”.`,
            },
          ];
      return [];
    };
    return [...(await gone('tag', plan.tagIds)), ...(await gone('list', plan.listIds))];
  }

  private async ofRoster(db: Scoped, { roster }: IntakePlan): Promise<string[]> {
    if (!roster) return [];
    const campaign = await this.campaigns.find(db, roster.campaignId);
    if (!campaign) return ['The campaign is no longer there. Choose another.'];
    if (campaign.standings.includes(roster.standing)) return [];
    return [`“${roster.standing}” is no stage of ${campaign.name}. Choose one of ${campaign.standings.join(', ')}.`];
  }

  private async ofPublicLists(db: Scoped, plan: IntakePlan): Promise<string[]> {
    if (plan.listIds.length === 0 || plan.what !== 'people') return [];
    const lists = await db.sql<{ id: number; name: string }>(
      'SELECT id, name FROM list WHERE organization_id = :org AND is_public = 1 AND id IN (:ids)',
      {
        ids: plan.listIds,
      },
    );
    const agreed = new Set(Object.values(plan.permission).flatMap((said) => (said.said === 'yes' ? said.scopes : [])));
    return lists
      .filter(({ id }) => !agreed.has(`list:${id}`) && !agreed.has('all') && !agreed.has('marketing'))
      .map(
        ({ name }) =>
          `“${name}” is a list that supporters see, so being on it needs their agreement to it. Tick it under permission, or take it off.`,
      );
  }
}

const takes = (type: FieldType) => `of the type “${FIELD_TYPE_WORDS[type]}”`;
