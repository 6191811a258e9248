import { Inject, Injectable } from '@nestjs/common';
import { dayInZone, type Day } from '@goodword/core/common';
import { formatMoney } from '@goodword/core/fields';
import { askAmounts, askKey, namedAmounts, USUAL_ASK, type AskRule } from '@goodword/core/letter';
import { isLinkKey, rawKey, withFormats, type MergeValues } from '@goodword/core/merge';
import type { Channel, Scope as PermissionScope } from '@goodword/core/permission';
import type { Rule } from '@goodword/core/segment';
import { CONFIG, type Config } from '../platform/config';
import { Database } from '../platform/database';
import type { AccessScope } from '../platform/scope';
import { SegmentsService } from '../segments/segments.service';
import type { OrganizationRow, TeammateRow } from '../team/team.repository';
import { slotsIn, type Composed } from './composer';
import { MergeRegistryService, segmentOfKey } from './merge-registry.service';
import { MergeValuesRepository } from './merge-values.repository';
import { scopeOfMessage, type Composable } from './messages.repository';

/** What people's values are wanted for: a composed message, how it goes and what it asks for. */
export interface ValuesWanted {
  channel: Channel;
  scope: PermissionScope;
  composed: Composed;
  organization: OrganizationRow;
  sender: TeammateRow | undefined;
  /** BCP 47. */
  locale: string;
  ask: AskRule | null;
}

/** What is wanted for a message. */
export const wantedFor = (
  message: Pick<Composable, 'purpose' | 'list_id' | 'locale' | 'ask' | 'channel'>,
  around: Pick<ValuesWanted, 'composed' | 'organization' | 'sender'>,
): ValuesWanted => ({
  ...around,
  channel: message.channel,
  scope: scopeOfMessage(message),
  locale: message.locale ?? around.organization.locale,
  ask: message.ask,
});

/**
 * People's values for one message: what is on file of them, who of them fits its passages, what they are
 * asked for, each written as the message has it.
 */
@Injectable()
export class MessageValuesService {
  constructor(
    @Inject(CONFIG) private readonly config: Config,
    @Inject(Database) private readonly database: Database,
    @Inject(MergeValuesRepository) private readonly values: MergeValuesRepository,
    @Inject(SegmentsService) private readonly segments: SegmentsService,
    @Inject(MergeRegistryService) private readonly registry: MergeRegistryService,
  ) {}

  async of(
    scope: AccessScope,
    ids: readonly number[],
    wanted: ValuesWanted,
  ): Promise<Map<number, MergeValues>> {
    const { composed, organization, sender, locale } = wanted;
    const db = this.database.read(scope);
    const manner = { ...organization, locale };
    const out = await this.values.of(db, ids, wanted, manner, sender);
    if (sender?.picture_id)
      for (const values of out.values())
        values['sender.picture'] = `${this.config.PUBLIC_URL}/media/${sender.picture_id}/200`;
    await this.passages(scope, ids, composed, out);
    const slots = slotsIn(composed);
    if (slots.some(({ key }) => isLinkKey(key))) {
      const links = await this.registry.links(scope, organization);
      for (const values of out.values()) Object.assign(values, links);
    }
    if (slots.some(({ key }) => key.startsWith('ask.'))) await this.amounts(scope, ids, wanted, out);
    for (const [id, values] of out) out.set(id, withFormats(values, slots, manner));
    return out;
  }

  /** Who fits the passages of the words. */
  private async passages(
    scope: AccessScope,
    ids: readonly number[],
    { rules, conditions }: Composed,
    out: Map<number, MergeValues>,
  ): Promise<void> {
    const asked: { key: string; rule: Rule }[] = rules.map((rule, at) => ({ key: `fits:${at}`, rule }));
    for (const key of conditions) {
      const segmentId = segmentOfKey(key);
      if (segmentId !== null) asked.push({ key, rule: { kind: 'segment', segmentId, in: true } });
    }
    if (asked.length === 0 || ids.length === 0) return;
    const fitting = await this.segments.among(
      scope,
      asked.map(({ rule }) => rule),
      ids,
    );
    asked.forEach(({ key }, at) => {
      for (const id of fitting[at]!) {
        const values = out.get(id);
        if (values) values[key] = '1';
      }
    });
  }

  /** What each is asked for, by what they gave. */
  private async amounts(
    scope: AccessScope,
    ids: readonly number[],
    { ask, organization, locale }: ValuesWanted,
    out: Map<number, MergeValues>,
  ): Promise<void> {
    const gifts = await this.values.giftsOf(this.database.read(scope), ids);
    const today = dayInZone(Date.now(), organization.time_zone) as Day;
    for (const [id, values] of out)
      for (const { name, amount } of namedAmounts(askAmounts(ask ?? USUAL_ASK, gifts.get(id) ?? [], today))) {
        values[askKey(name)] = formatMoney(amount, { ...organization, locale });
        values[rawKey(askKey(name))] = String(amount);
      }
  }
}
