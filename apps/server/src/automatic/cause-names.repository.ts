import { Injectable } from '@nestjs/common';
import type { Cause } from '@goodword/core/automations';
import { formatMoney } from '@goodword/core/fields';
import type { CauseNames } from '@goodword/core/words';
import type { Scoped } from '../platform/scoped';

/** What causes name, by the table that it is kept in. */
const NAMED = {
  list: 'list',
  form: 'form',
  tag: 'tag',
  field: 'field',
  campaign: 'campaign',
  message: 'message',
  teammate: 'teammate',
} as const;
type Named = keyof typeof NAMED;

/** The things that a cause names. */
export function namedBy(cause: Cause): [Named, number][] {
  switch (cause.kind) {
    case 'list':
      return [['list', cause.listId]];
    case 'form':
      return [['form', cause.formId]];
    case 'tag':
      return [
        ['tag', cause.tagId],
        ...(cause.by === null ? [] : [['teammate', cause.by] as [Named, number]]),
      ];
    case 'date':
      return [['field', cause.fieldId]];
    case 'lapses':
      return cause.scope.startsWith('list:') ? [['list', Number(cause.scope.slice(5))]] : [];
    case 'stage':
      return [['campaign', cause.campaignId]];
    case 'click':
      return [['message', cause.messageId]];
    case 'gift':
    case 'quiet':
    case 'keyword':
      return [];
  }
}

/** What the things are called that causes name. */
@Injectable()
export class CauseNamesRepository {
  async of(
    db: Scoped,
    causes: readonly Cause[],
    money: { currency: string; locale: string },
  ): Promise<CauseNames> {
    const wanted = new Map<Named, Set<number>>();
    for (const [kind, id] of causes.flatMap(namedBy))
      wanted.set(kind, (wanted.get(kind) ?? new Set()).add(id));
    const names = new Map<string, string>();
    for (const [kind, ids] of wanted) {
      const rows = await db.sql<{ id: number; name: string }>(
        `SELECT id, name FROM \`${NAMED[kind]}\` WHERE organization_id = :org AND id IN (:ids)`,
        { ids: [...ids] },
      );
      for (const { id, name } of rows) names.set(`${kind} ${id}`, name);
    }
    const named = (kind: Named) => (id: number) => names.get(`${kind} ${id}`);
    return {
      ...{ list: named('list'), form: named('form'), tag: named('tag'), field: named('field') },
      ...{ campaign: named('campaign'), message: named('message'), teammate: named('teammate') },
      money: (amount) => formatMoney(amount, money),
    };
  }
}
