import { DAY, type Made } from './house';

interface Written {
  channel: 'email' | 'text';
  words: string;
  subject?: string;
  keyword?: 'none' | 'machine';
  /** Hours before midnight at which it came. */
  ago: number;
  handled?: boolean;
  isMine?: boolean;
}

/** What people wrote back: questions, thanks, and each of the things that a person has to see to. */
const WRITTEN: readonly Written[] = [
  { channel: 'text', ago: 5, words: 'Is there parking near East Landing?' },
  { channel: 'text', ago: 4, words: "Wouldn't miss it. Bringing the kids." },
  { channel: 'text', ago: 3, words: 'Can I still join the caulking crew?', isMine: true },
  { channel: 'text', ago: 2, words: 'Thank you for the pictures!' },
  {
    ...{ channel: 'email', ago: 26, subject: 'Re: Planks are in' },
    words:
      'We have moved across the river.\n\nOur new email is harbour.house@example.org, the old one goes soon.',
  },
  {
    ...{ channel: 'email', ago: 9, subject: 'Re: Planks are in' },
    words: 'What a sight she is.\nI gave $40 at the pier on Saturday. Will a receipt come by post?',
  },
  {
    ...{ channel: 'email', ago: 30, subject: 'Automatic reply: Planks are in', keyword: 'machine' },
    words: 'I am out on the water until Monday and read no mail.',
  },
  {
    ...{ channel: 'email', ago: 7, subject: 'Re: Planks are in' },
    words: 'Lovely boat, but I get too many emails from you.',
  },
  { channel: 'email', ago: 50, subject: 'Re: Planks are in', words: 'Thank you!', handled: true },
];

/** Each of somebody else, to the first who got a message on that channel. */
export async function writeReplies({ db, today, ids }: Made): Promise<void> {
  const rows = await db.sql<{
    id: number;
    supporter_id: number;
    contact_point_id: number;
    normal: string;
    message_id: number;
    channel: 'email' | 'text';
  }>(
    `(SELECT d.id, d.supporter_id, d.contact_point_id, d.message_id, d.channel, cp.normal
        FROM delivery d
        JOIN contact_point cp ON cp.id = d.contact_point_id
        WHERE d.organization_id = :org AND d.channel = 'text' AND d.state IN ('sent', 'delivered')
        ORDER BY d.id
        LIMIT 20)
      UNION ALL
      (SELECT d.id, d.supporter_id, d.contact_point_id, d.message_id, d.channel, cp.normal
        FROM delivery d
        JOIN contact_point cp ON cp.id = d.contact_point_id
        WHERE d.organization_id = :org AND d.channel = 'email' AND d.state IN ('sent', 'delivered')
        ORDER BY d.id
        LIMIT 20)`,
  );
  for (const [i, written] of WRITTEN.entries()) {
    const at = rows.findIndex(({ channel }) => channel === written.channel);
    const [row] = rows.splice(at, 1);
    if (at >= 0 && row) await keep({ db, today, ids }, row, written, i);
  }
}

async function keep(
  { db, today, ids }: Pick<Made, 'db' | 'today' | 'ids'>,
  row: { id: number; supporter_id: number; contact_point_id: number; normal: string; message_id: number },
  { channel, words, subject = '', keyword = 'none', ago, handled = false, isMine = false }: Written,
  nth: number,
): Promise<void> {
  const at = new Date(today * DAY - ago * 3_600_000);
  const seen = handled ? at : null;
  await db.insert('reply', {
    ...{ provider_key: `demo-${nth}`, channel, sender: row.normal, subject, body: words, keyword, at },
    ...{ contact_point_id: row.contact_point_id, supporter_id: row.supporter_id, delivery_id: row.id },
    ...{ handled_at: seen, read_at: seen, assigned_to: isMine ? ids.team[0]! : null },
  });
  // What a machine answers is nobody's word.
  if (keyword !== 'none') return;
  await db.execute('UPDATE delivery SET replied = 1 WHERE organization_id = :org AND id = :id', {
    id: row.id,
  });
  await db.insert('delivery_event', {
    ...{ delivery_id: row.id, message_id: row.message_id, supporter_id: row.supporter_id },
    ...{ kind: 'replied', at, detail: words.slice(0, 200) },
  });
}
