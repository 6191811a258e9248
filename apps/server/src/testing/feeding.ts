import type { FeedRunView, FeedWhole, SourceKind } from '@goodword/core/contract';
import { EMPTY_FEED, type FeedPlan } from '@goodword/core/feeds';
import type { Scope } from '@goodword/core/permission';
import { eventually, type TestHouse } from './harness';
import { openFormAs } from './supporter';

const OPEN = ['reading', 'checking', 'bringing'];

/** What tests of feeds ask for again and again, in one house. */
export function feeding(house: () => TestHouse) {
  let n = 0;
  const show = (id: number) => house().client.get<FeedWhole>(`/api/feeds/${id}`);
  const lastRun = async (id: number): Promise<FeedRunView> =>
    (
      await eventually(
        `the last run of feed ${id} to end`,
        async () => (await show(id)).runs,
        ([run]) => run !== undefined && !OPEN.includes(run.state),
      )
    )[0]!;
  return {
    show,
    lastRun,
    source: (url: string, token = '', kind: SourceKind = 'desk') =>
      house().client.post<{ id: number }>('/api/feed-sources', { name: `Source ${++n}`, kind, url, token }),
    /** A public list that people can agree to. */
    list: async () => (await openFormAs(house().client, `Feed list ${++n}`)).listId,
    feed: async (sourceId: number, plan: Partial<FeedPlan>): Promise<number> => {
      const name = `Feed ${++n}`;
      const { id } = await house().client.post<{ id: number }>('/api/feeds', { name, sourceId });
      await house().client.put(`/api/feeds/${id}`, { name, plan: { ...EMPTY_FEED, ...plan }, basedOn: 0 });
      return id;
    },
    change: async (id: number, plan: Partial<FeedPlan>) => {
      const now = await show(id);
      const body = { name: now.name, plan: { ...now.plan, ...plan }, basedOn: now.version };
      await house().client.put(`/api/feeds/${id}`, body);
    },
    run: async (id: number, how: { trial?: boolean; anyway?: boolean } = {}): Promise<FeedRunView> => {
      const { id: runId } = await house().client.post<{ id: number }>(`/api/feeds/${id}/runs`, how);
      const run = await lastRun(id);
      if (run.id !== runId) throw new Error(`expected run ${runId} of feed ${id}, got ${run.id}`);
      return run;
    },
    turn: async (id: number, to: 'on' | 'off') => {
      const { version } = await show(id);
      return house().client.call<{ detail: string }>('POST', `/api/feeds/${id}/${to}`, { basedOn: version });
    },
  };
}

/** The plan of most tests: everybody, by their ids, onto a list that a column says they agreed to. */
export const membersOnto = (listId: number, part: Partial<FeedPlan> = {}): Partial<FeedPlan> => ({
  take: { type: { key: 'members', name: 'Members' }, filter: null },
  columns: [
    { name: 'Record id', choice: { to: 'externalId' } },
    { name: 'First name', choice: { to: 'firstName' } },
    { name: 'Last name', choice: { to: 'lastName' } },
    { name: 'Email', choice: { to: 'email' } },
    { name: 'OK to email', choice: { to: 'consent', channel: 'email' } },
  ],
  key: 'Record id',
  listIds: [listId],
  permission: {
    email: {
      ...{ said: 'yes', from: 'column', scopes: [`list:${listId}`] as Scope[] },
      ...{ words: 'They ticked news on the membership form', voucher: 'Idris Vale' },
    },
    text: { said: 'nothing' },
  },
  ...part,
});
