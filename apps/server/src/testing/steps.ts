import type {
  BatchView,
  LastLook,
  MessageResults,
  MessageView,
  Recipients,
  RecordView,
} from '@goodword/core/contract';
import { EMPTY_PLAN, type ChannelPermission, type IntakePlan } from '@goodword/core/intake';
import type { Scope } from '@goodword/core/permission';
import { eventually, type Client } from './harness';

/** The steps that an organizer takes, over the API. */
export const NOTHING: ChannelPermission = { said: 'nothing' };

export function agreed(...scopes: Scope[]): ChannelPermission {
  return {
    said: 'yes',
    from: 'everyone',
    scopes,
    how: 'paper',
    on: '2026-01-15',
    words: 'Please write to me about the ferry.',
    voucher: 'Idris Vale',
  };
}

export const STEP_COLUMNS: IntakePlan['columns'] = [
  { to: 'email' },
  { to: 'firstName' },
  { to: 'lastName' },
  { to: 'mobile' },
];

export async function takeFile(client: Client, csv: string, name = 'people.csv'): Promise<number> {
  const form = new FormData();
  form.append('file', new Blob([csv]), name);
  const { id } = await client.post<{ id: number }>('/api/batches', form);
  await batchAt(client, id, 'draft');
  return id;
}

export function planFor(plan: Partial<IntakePlan> = {}): IntakePlan {
  return {
    columns: STEP_COLUMNS,
    permission: { email: agreed('appeals', 'news'), text: agreed('appeals') },
    ...EMPTY_PLAN,
    ...plan,
  };
}

export function batchAt(client: Client, id: number, state: string, seconds = 120): Promise<BatchView> {
  return eventually(
    `batch ${id} to be ${state}`,
    () => client.get<BatchView>(`/api/batches/${id}`),
    (batch) => batch.state === state || batch.problem !== null,
    seconds,
  );
}

/** Brings a file in from beginning to end. */
export async function bringIn(
  client: Client,
  csv: string,
  plan: Partial<IntakePlan> = {},
): Promise<BatchView> {
  const id = await takeFile(client, csv);
  await client.put(`/api/batches/${id}/plan`, planFor(plan));
  const checked = await batchAt(client, id, 'checked');
  if (checked.problem) throw new Error(`expected a checked batch, got: ${checked.problem}`);
  await client.post(`/api/batches/${id}/bring-in`);
  return batchAt(client, id, 'done');
}

export const letterOf = (text: string, href?: string) => ({
  type: 'doc',
  content: [
    {
      type: 'paragraph',
      content: [{ type: 'text', text, ...(href ? { marks: [{ type: 'link', attrs: { href } }] } : {}) }],
    },
  ],
});

export async function draftEmail(
  client: Client,
  recipients: Partial<Recipients>,
  values: { purpose?: string; listId?: number | null; subject?: string; letter?: object } = {},
): Promise<number> {
  const { id } = await client.post<{ id: number }>('/api/messages', {
    name: 'A letter',
    channel: 'email',
    purpose: 'appeals',
  });
  await client.put(`/api/messages/${id}`, {
    name: 'A letter',
    purpose: values.listId ? null : (values.purpose ?? 'appeals'),
    listId: values.listId ?? null,
    subject: values.subject ?? 'Hello {First name, or "neighbour"}',
    preheader: '',
    letter: values.letter ?? letterOf('Give here', 'https://give.lanternferry.test/hull'),
    text: '',
    basedOn: 0,
  });
  await client.put(`/api/messages/${id}/recipients`, {
    from: [],
    minus: [],
    without: [],
    ...recipients,
    basedOn: 0,
  });
  return id;
}

export async function draftText(
  client: Client,
  recipients: Partial<Recipients>,
  text = 'Hi {First name, or "neighbour"}, boots on Saturday.',
): Promise<number> {
  const { id } = await client.post<{ id: number }>('/api/messages', {
    name: 'A text',
    channel: 'text',
    purpose: 'appeals',
  });
  const about = {
    name: 'A text',
    purpose: 'appeals',
    listId: null,
    subject: '',
    preheader: '',
    letter: null,
  };
  await client.put(`/api/messages/${id}`, { ...about, text, basedOn: 0 });
  await client.put(`/api/messages/${id}/recipients`, {
    from: [],
    minus: [],
    without: [],
    ...recipients,
    basedOn: 0,
  });
  return id;
}

/** A draft by post, for appeals. */
export async function draftLetter(
  client: Client,
  recipients: Partial<Recipients>,
  letter: object,
): Promise<number> {
  const { id } = await client.post<{ id: number }>('/api/messages', {
    ...{ name: 'Planks by post', channel: 'post', purpose: 'appeals' },
  });
  await client.put(`/api/messages/${id}`, {
    ...{ name: 'Planks by post', purpose: 'appeals', listId: null, subject: '', preheader: '', text: '' },
    ...{ letter, basedOn: 0 },
  });
  await client.put(`/api/messages/${id}/recipients`, {
    ...{ from: [], minus: [], without: [], ...recipients },
    basedOn: 0,
  });
  return id;
}

export const lastLook = (client: Client, id: number) =>
  client.post<LastLook>(`/api/messages/${id}/last-look`);

/** Tests and sends; does not wait. A letter is not tested: it is read on paper. */
export async function send(client: Client, id: number): Promise<LastLook> {
  const { channel } = await client.get<MessageView>(`/api/messages/${id}`);
  if (channel !== 'post') await client.post(`/api/messages/${id}/test`);
  const look = await lastLook(client, id);
  await client.post(`/api/messages/${id}/send`, { at: null, digest: look.digest });
  return look;
}

export function messageAt(client: Client, id: number, state: string, seconds = 120): Promise<MessageView> {
  return eventually(
    `message ${id} to be ${state}`,
    () => client.get<MessageView>(`/api/messages/${id}`),
    (message) => message.state === state,
    seconds,
  );
}

export const resultsOf = (client: Client, id: number) =>
  client.get<MessageResults>(`/api/messages/${id}/results`);

/** Says where somebody is, from where the record says they are. */
export async function moveTo(
  client: Client,
  supporterId: number,
  country: string | null,
  region: string | null = null,
): Promise<void> {
  const { place } = await client.get<RecordView>(`/api/supporters/${supporterId}`);
  const was = { country: place.country, region: place.region };
  await client.put(`/api/supporters/${supporterId}/place`, { country, region, was });
}
