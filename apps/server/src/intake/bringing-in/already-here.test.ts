import type { CampaignView } from '@goodword/core/contract';
import type { IntakePlan } from '@goodword/core/intake';
import { gathering, HEAD, noPermission } from '../../testing/gathering';
import { openTestHouse, type TestHouse } from '../../testing/harness';
import { batchAt, bringIn } from '../../testing/steps';

let house: TestHouse;
beforeAll(async () => {
  house = await openTestHouse();
  house.startWorker();
});
afterAll(() => house.close());
const { record, rowsOf } = gathering(() => house);

describe('people already here', () => {
  test('a list of addresses or own ids goes on lists, tags and a roster, and strangers are told', async () => {
    await bringIn(house.client, `${HEAD}here1@example.org,He,Re,\nhere2@example.org,Hi,Re,\n`);
    const campaign = await house.client.post<{ id: number }>('/api/campaigns', {
      name: 'Callers',
      kind: 'update',
      appealCode: null,
      stages: ['to call', 'called'],
    });
    const plan: Partial<IntakePlan> = {
      what: 'here',
      columns: [{ to: 'email' }, { to: 'stage' }],
      permission: noPermission,
      newTags: ['phoned'],
      roster: { campaignId: campaign.id, stage: 'to call' },
    };
    const batch = await bringIn(
      house.client,
      'Email,Where\nhere1@example.org,Called\nhere2@example.org,\nhere2@example.org,gone fishing\nnobody@example.org,\n',
      plan,
    );
    expect(batch.counts).toEqual({ update: 3, failed: 1 });
    expect(await house.client.get<CampaignView>(`/api/campaigns/${campaign.id}`)).toMatchObject({
      people: 2,
      counts: { called: 1, 'to call': 1 },
    });
    expect((await record('here1@')).tags.map((tag) => tag.name)).toContain('phoned');
    expect((await rowsOf(batch.id, '?only=faults')).rows[0]!.reason).toMatch(
      /expected a stage of the campaign \(to call, called\), got "gone fishing"/,
    );
    await house.client.post(`/api/batches/${batch.id}/take-out`);
    await batchAt(house.client, batch.id, 'taken-out');
    expect((await house.client.get<CampaignView>(`/api/campaigns/${campaign.id}`)).people).toBe(0);
  });
});
