import { t } from '@lingui/core/macro';
import type { BatchView } from '@goodword/core/contract';
import { EMPTY_PLAN, type ChannelPermission, type IntakePlan } from '@goodword/core/intake';
import { api } from '../app/api';

export interface OnePerson {
  firstName: string;
  lastName: string;
  email: string;
  mobile: string;
  /** Null for that in which one works. */
  chapterId: number | null;
  permission: { email: ChannelPermission; text: ChannelPermission };
}

/** What became of them: their record, or the batch that waits for somebody to look at it. */
export type Added = { supporterId: number } | { batchId: number; why: string };

const COLUMNS: IntakePlan['columns'] = [
  { to: 'email' },
  { to: 'firstName' },
  { to: 'lastName' },
  { to: 'mobile' },
];
const quoted = (cell: string) => `"${cell.trim().replaceAll('"', '""')}"`;

/**
 * One row as a file of separated values (RFC 4180): a person who is typed in comes in by the same road as
 * everybody.
 */
export function fileOfOne({ email, firstName, lastName, mobile }: OnePerson): File {
  const row = [email, firstName, lastName, mobile].map(quoted).join(',');
  return new File([`Email,First name,Last name,Mobile\r\n${row}\r\n`], 'one person.csv', {
    type: 'text/csv',
  });
}

async function until(id: number, ...states: BatchView['state'][]): Promise<BatchView> {
  for (let wait = 100; ; wait = Math.min(1500, wait * 1.3)) {
    const batch = await api.get('batches/{id}', { id });
    if (batch.problem) throw new Error(batch.problem);
    if (states.includes(batch.state)) return batch;
    await new Promise((done) => setTimeout(done, wait));
  }
}

/**
 * Brings one person in. Who may be somebody already here is not decided by itself: their batch is left to be
 * looked at. What can't be read is told, and the batch goes again.
 */
export async function addPerson(person: OnePerson): Promise<Added> {
  const form = new FormData();
  const name = [person.firstName, person.lastName].map((one) => one.trim()).filter(Boolean);
  form.append(
    'name',
    t`${name.join(' ') || person.email.trim() || person.mobile.trim()}, typed in`.slice(0, 120),
  );
  form.append('what', 'people');
  form.append('file', fileOfOne(person));
  const { id } = await api.post('batches', { files: form });
  try {
    await until(id, 'draft', 'unreadable');
    const { permission, chapterId } = person;
    await api.put('batches/{id}/plan', {
      id,
      body: { ...EMPTY_PLAN, columns: COLUMNS, permission, chapterId },
    });
    await until(id, 'checked');
    const [row] = (await api.get('batches/{id}/rows', { id })).rows;
    if (row?.verdict === 'look')
      return { batchId: id, why: t`They may be somebody who is here already. Look at both side by side.` };
    // Half an address would be a person half typed in.
    if (!row || row.verdict === 'failed' || row.reason !== '')
      throw new Error(sentence(row?.reason ?? t`nobody was read`));
    if (row.verdict === 'same' && row.supporterId !== null) {
      await api.delete('batches/{id}', { id });
      return { supporterId: row.supporterId };
    }
  } catch (error) {
    await api.delete('batches/{id}', { id }).catch(() => undefined);
    throw error;
  }
  await api.post('batches/{id}/bring-in', { id });
  await until(id, 'done');
  const [came] = (await api.get('batches/{id}/rows', { id })).rows;
  return { supporterId: came!.supporterId! };
}

const sentence = (reason: string) =>
  `${reason.charAt(0).toUpperCase()}${reason.slice(1).replace(/ \(left out\)/g, '')}.`;
