import { simpleParser } from 'mailparser';
import type { FormView, RecordView } from '@goodword/core/contract';
import { standardTextAsk } from '@goodword/core/words';
import type { FormDefinition } from '@goodword/core/forms';
import { eventually, type Client, type TestHouse } from './harness';

const TRUST = 'Lantern Ferry Trust';

/** What somebody at a browser without script does: plain posts, no cookie. */
export class Visitor {
  constructor(
    private readonly base: string,
    private readonly headers: Record<string, string> = {},
  ) {}

  async open(path: string): Promise<{ status: number; html: string; headers: Headers }> {
    const response = await fetch(this.base + path, { headers: this.headers, redirect: 'manual' });
    return { status: response.status, html: await response.text(), headers: response.headers };
  }

  async post(
    path: string,
    fields: Record<string, string> | [string, string][],
  ): Promise<{ status: number; html: string; headers: Headers }> {
    const response = await fetch(this.base + path, {
      method: 'POST',
      body: new URLSearchParams(fields),
      headers: this.headers,
      redirect: 'manual',
    });
    return { status: response.status, html: await response.text(), headers: response.headers };
  }
}

/** Makes a public list and an open form for it, changed as asked. */
export async function openFormAs(
  client: Client,
  name: string,
  change: (form: FormDefinition) => FormDefinition = (form) => form,
): Promise<FormView & { listId: number }> {
  const { id: listId } = await client.post<{ id: number }>('/api/lists', {
    name: `${name} list`,
    isPublic: true,
    description: 'A letter a month',
    why: 'You asked for it at the landing.',
  });
  const { id } = await client.post<{ id: number }>('/api/forms', { name, listId });
  const made = await client.get<FormView>(`/api/forms/${id}`);
  await client.put(`/api/forms/${id}`, {
    name,
    slug: made.slug,
    version: made.version,
    definition: change(made.definition),
  });
  await client.put(`/api/forms/${id}/open`, { open: true });
  return { ...(await client.get<FormView>(`/api/forms/${id}`)), listId };
}

export const textAsk = standardTextAsk(TRUST, 2);

/** The newest mail to an address, its words and the first link in it that begins with a path. */
export async function mailTo(
  house: TestHouse,
  to: string,
  path: string,
  count = 1,
): Promise<{ link: string; subject: string; text: string; replyTo: string; headers: Map<string, unknown> }> {
  const mails = await eventually(
    `mail ${count} to ${to}`,
    () => house.sink.mails.filter((mail) => mail.to === to),
    (found) => found.length >= count,
  );
  const mail = await simpleParser(mails.at(-1)!.raw);
  const link = new RegExp(`${path}/[a-z0-9]+`).exec(`${mail.text ?? ''} ${mail.html || ''}`)?.[0] ?? '';
  const replyTo = mail.replyTo?.value[0]?.address ?? '';
  return {
    link,
    subject: mail.subject ?? '',
    text: mail.text ?? '',
    replyTo,
    headers: mail.headers as Map<string, unknown>,
  };
}

export async function personBy(client: Client, search: string): Promise<RecordView> {
  const page = await client.get<{ rows: { id: number }[] }>(
    `/api/supporters?search=${encodeURIComponent(search)}`,
  );
  if (page.rows.length !== 1) throw new Error(`expected one person for ${search}, got ${page.rows.length}`);
  return client.get<RecordView>(`/api/supporters/${page.rows[0]!.id}`);
}

/** "email list:1 yes" for each, sorted. */
export function openedStatuses(record: RecordView): string[] {
  return record.consent.map((one) => `${one.channel} ${one.scope} ${one.state}`).sort();
}
