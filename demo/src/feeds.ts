import { EMPTY_FEED, type FeedPlan } from '@goodword/core/feeds';
import type { ColumnChoice } from '@goodword/core/intake';
import { wrap } from '@goodword/server/platform/wrapping';
import type { Made } from './house';

/** Where the donor desk of the demo answers. */
export interface Desk {
  url: string;
  token: string;
}

const COLUMNS: readonly [string, ColumnChoice][] = [
  ['Record id', { to: 'externalId' }],
  ['First name', { to: 'firstName' }],
  ['Last name', { to: 'lastName' }],
  ['Email', { to: 'email' }],
  ['Town', { to: 'city' }],
  ['OK to email', { to: 'consent', channel: 'email' }],
];

/** A feed of members that is said and has not been turned on, and one that is half said. */
export async function writeFeeds({ db, ids }: Made, secret: string, { url, token }: Desk): Promise<void> {
  const sourceId = await db.insert('feed_source', {
    ...{ name: 'Donor desk', kind: 'desk', url, token: wrap(token, secret, 'feed tokens') },
  });
  const list = ids.lists[0]!;
  const members: FeedPlan = {
    ...EMPTY_FEED,
    take: {
      type: { key: 'members', name: 'Members' },
      filter: { key: 'paid-up', name: 'paid up this year' },
    },
    columns: COLUMNS.map(([name, choice]) => ({ name, choice })),
    key: 'Record id',
    listIds: [list],
    permission: {
      email: {
        ...{ said: 'yes', from: 'column', scopes: [`list:${list}`] },
        ...{ words: 'they ticked “news” on the membership form', voucher: 'Rosa Oduya' },
      },
      text: { said: 'nothing' },
    },
    gone: { do: 'leave' },
  };
  const shared = { source_id: sourceId, chapter_id: ids.chapters[0]!, made_by: ids.team[0]! };
  await db.insert('feed', { ...shared, name: 'Members from the donor desk', plan: JSON.stringify(members) });
  await db.insert('feed', {
    ...{ ...shared, made_by: ids.team[1]!, name: 'Neighbours of East Landing' },
    plan: JSON.stringify({
      ...EMPTY_FEED,
      take: { ...members.take, filter: { key: 'east-landing', name: 'of East Landing' } },
    }),
  });
}
