import { isoDay } from '@goodword/core/common';
import { isHandedOver, type Channel } from '@goodword/core/permission';
import type { CampaignExpected, CampaignLook, CampaignPlan, PathStep } from '@goodword/core/contract';
import type { TestHouse } from './harness';
import { bringIn, letterOf, messageAt, STEP_COLUMNS } from './steps';
import { personBy } from './supporter';

/** The day on which a suite runs, counted as days are. */
export const today = Math.floor(Date.now() / 86_400_000);
let campaigns = 0;
/** So different that nobody is taken for somebody of another campaign. */
const FAMILIES = [
  ...['Abara', 'Bergstrom', 'Castillo', 'Dumont', 'Eriksen', 'Fujita', 'Grady', 'Hossain', 'Ivanov'],
  ...['Jimenez', 'Kowalski', 'Lindqvist', 'Moreau', 'Novak', 'Okonkwo'],
];
/** What is said of a campaign that asks. */
export const APPEAL = { kind: 'appeal', appealCode: null, stages: ['asked', 'pledged', 'gave', 'declined'] };

/** A campaign with these people on its roster, each `p0@…`, `p1@…` with an email and a mobile. */
async function campaignOf({ client }: TestHouse, people: number) {
  const n = ++campaigns;
  const domain = `plan${n}.example.org`;
  const rows = Array.from(
    { length: people },
    (_none, i) =>
      `p${i}@${domain},P${i},${FAMILIES[n % FAMILIES.length]},206555${1000 + n * 20 + i},${n * 20 + i} Quay Street,Port Alder,98999`,
  );
  const batch = await bringIn(
    client,
    ['Email,First,Last,Mobile,Street,City,Postcode', ...rows, ''].join('\n'),
    {
      columns: [...STEP_COLUMNS, { to: 'street' }, { to: 'city' }, { to: 'postcode' }],
    },
  );
  const { id } = await client.post<{ id: number }>('/api/campaigns', {
    ...APPEAL,
    name: `Winter hull ${n}`,
  });
  await client.put(`/api/campaigns/${id}/roster`, {
    group: { kind: 'batch', id: batch.id },
    stage: 'asked',
  });
  const idOf = async (i: number) => (await personBy(client, `p${i}@${domain}`)).id;
  return { id, batch: batch.id, domain, idOf };
}

const WORDS = { listId: null, subject: '', preheader: '', letter: null, text: '' };
/** A step with words that are in order and tested. */
async function stepOf({ client }: TestHouse, campaign: number, day: number, channel: Channel = 'email') {
  const name = `Step of day ${day} by ${channel}`;
  const { id } = await client.post<{ id: number }>(`/api/campaigns/${campaign}/steps`, {
    ...{ name, channel, day, minutes: 600, ownTime: false },
  });
  const letter = letterOf('Two planks are left, {First name, or "neighbour"}.');
  const isTyped = channel === 'text' || channel === 'call';
  const words = isTyped ? { text: 'Two planks are left.' } : { letter };
  await client.put(`/api/messages/${id}`, {
    ...{ ...WORDS, ...words, name, purpose: 'appeals', basedOn: 0 },
    ...(channel === 'email' && { subject: 'Two planks' }),
  });
  if (isHandedOver(channel)) await client.post(`/api/messages/${id}/test`);
  return id;
}

/** Campaigns of a suite: made, planned, set going and lived through, with its clock moved. */
export function campaignsIn(house: () => TestHouse) {
  const planOf = (id: number) => house().client.get<CampaignPlan>(`/api/campaigns/${id}/plan`);
  async function savePlan(id: number, part: Partial<CampaignPlan>) {
    const { version, reached: _reached, steps: _steps, ...now } = await planOf(id);
    return house().client.call<{ detail: string }>('PUT', `/api/campaigns/${id}/plan`, {
      ...{ ...now, ...part, basedOn: version },
    });
  }
  const begins = (id: number, inDays = 1) => savePlan(id, { firstDay: isoDay(today + inDays) });

  async function change(campaign: number, step: number, values: object = {}) {
    const { version } = (await planOf(campaign)).steps.find(({ messageId }) => messageId === step)!;
    return house().client.call<{ detail: string }>('PUT', `/api/campaigns/${campaign}/steps/${step}`, {
      ...{ day: 3, minutes: 600, ownTime: false, rule: null, basedOn: version, ...values },
    });
  }
  const look = (id: number) => house().client.post<CampaignLook>(`/api/campaigns/${id}/plan/look`);
  async function go(id: number) {
    const looks = (await look(id)).steps.map(({ messageId, look: { digest } }) => ({ messageId, digest }));
    return house().client.call<{ detail: string }>('POST', `/api/campaigns/${id}/plan/go`, { looks });
  }
  const expected = (id: number) => house().client.get<CampaignExpected>(`/api/campaigns/${id}/plan/expected`);
  const pathOf = async (id: number, person: number) =>
    (await house().client.get<PathStep[]>(`/api/campaigns/${id}/plan/path?supporterId=${person}`)).map(
      ({ verdict, words }) => `${verdict}: ${words}`,
    );
  /** The clock comes to a step: the campaign began as many days ago as it says. */
  async function comes(campaign: number, step: number, state = 'done') {
    const { day } = (await planOf(campaign)).steps.find(({ messageId }) => messageId === step)!;
    const database = house().database.unscoped();
    await database('campaign')
      .where('id', campaign)
      .update({ first_day: today - day });
    await database('job').where({ kind: 'message-prepare', ref_id: step }).update({ run_at: new Date() });
    return messageAt(house().client, step, state);
  }
  /** Of each delivery of a step that it is to be sent, or why not, in the order in which people came in. */
  async function verdicts(step: number) {
    const rows = await house()
      .database.unscoped()('delivery')
      .where('message_id', step)
      .orderBy('supporter_id')
      .select<{ verdict: string; detail: string | null }[]>('verdict', 'detail');
    return rows.map(({ verdict, detail }) => (verdict === 'fell-out' ? detail : verdict));
  }
  const gives = (person: number, on = today) =>
    house().client.post(`/api/supporters/${person}/gifts`, { amount: 2500, on: isoDay(on), note: '' });
  return {
    campaignOf: (people: number) => campaignOf(house(), people),
    planOf,
    savePlan,
    begins,
    stepOf: (campaign: number, day: number, channel?: Channel) => stepOf(house(), campaign, day, channel),
    change,
    look,
    go,
    expected,
    pathOf,
    comes,
    verdicts,
    gives,
  };
}
