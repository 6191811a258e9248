import { randomUUID } from 'node:crypto';
import type { LetterDoc } from '@goodword/core/letter';
import { EntriesRepository } from '@goodword/server/permission/ledger/entries.repository';
import type { Bound, Scoped } from '@goodword/server/platform/scoped';
import { Chance } from './chance';
import { DAY, type Made } from './house';
import { HULL, LAUNCH_TEXT, PLANKS, THANKS } from './messages';
import type { Person } from './people';
import { writeReplies } from './replies';

interface Past {
  name: string;
  channel: 'email' | 'text';
  purpose: string | null;
  list: number | null;
  subject: string;
  letter: LetterDoc | null;
  body: string;
  ago: number;
  openShare: number;
  clickShare: number;
  to: (p: Person) => boolean;
  links: string[];
}

/** The yes that each person said at each address, as "person:address". */
async function grounds(
  db: Scoped,
  points: readonly number[],
  channel: Past['channel'],
  scope: string,
): Promise<Map<string, number>> {
  const out = new Map<string, number>();
  for (let from = 0; from < points.length; from += 2000)
    for (const said of await new EntriesRepository().saidAt(db, points.slice(from, from + 2000), channel))
      if (said.state === 'yes' && said.scope === scope)
        out.set(`${said.supporterId}:${said.contactPointId}`, said.id);
  return out;
}

async function insertMessage({ db, ids }: Made, past: Past, began: Date): Promise<number> {
  const messageId = await db.insert('message', {
    name: past.name,
    channel: past.channel,
    purpose: past.purpose,
    list_id: past.list,
    state: 'done',
    subject: past.subject,
    letter: past.letter ? JSON.stringify(past.letter) : null,
    body: past.body,
    recipients: JSON.stringify({ from: [], minus: [], without: [] }),
    started_at: began,
    sender_id: ids.team[0]!,
    tested_at: began,
    updated_at: began,
    created_at: began,
  });
  await db.insertAll(
    'message_link',
    ['message_id', 'position', 'url'],
    past.links.map((url, i) => [messageId, i, url]),
  );
  return messageId;
}

/** A message of the past with its deliveries, the entry that each rests on, and what came of it. */
async function writePast(made: Made, past: Past, chance: Chance): Promise<void> {
  const { db, people, today } = made;
  const began = new Date((today - past.ago) * DAY + 18 * 3_600_000);
  const messageId = await insertMessage(made, past, began);
  const pointOf = new Map(
    (
      await db.sql<{ id: number; normal: string }>(
        'SELECT id, normal FROM contact_point WHERE organization_id = :org',
      )
    ).map((row) => [row.normal, row.id]),
  );
  const ground = await grounds(db, [...pointOf.values()], past.channel, past.purpose ?? `list:${past.list}`);
  const deliveries: Bound[][] = [];
  const events: [number, string, Date, string][] = [];
  const taken = new Set<string>();
  people.forEach((p, i) => {
    const address = past.channel === 'email' ? p.email : p.mobile;
    if (!address || p.joinedAgo < past.ago || taken.has(address) || !past.to(p)) return;
    taken.add(address);
    const sentAt = new Date(began.getTime() + deliveries.length * 40);
    const bounced = address.startsWith('bounce.') || (p.onHold && past.channel === 'email');
    const opened = past.channel === 'email' && !bounced && chance.is(past.openShare);
    const clicked = opened && chance.is(past.clickShare);
    deliveries.push([
      messageId,
      i + 1,
      past.channel,
      pointOf.get(address)!,
      ground.get(`${i + 1}:${pointOf.get(address)}`) ?? null,
      'send',
      bounced ? 'bounced' : past.channel === 'text' ? 'delivered' : 'sent',
      randomUUID(),
      sentAt,
      opened,
      clicked,
    ]);
    const later = (hours: number) => new Date(sentAt.getTime() + hours * 3_600_000);
    events.push([i + 1, 'sent', sentAt, '']);
    if (bounced) events.push([i + 1, 'bounced', later(0.01), '5.1.1 No such mailbox here']);
    if (opened) events.push([i + 1, 'opened', later(chance.next() ** 3 * 60), '']);
    if (clicked) events.push([i + 1, 'clicked', later(chance.next() ** 3 * 60), chance.pick(past.links)]);
  });
  await db.insertAll(
    'delivery',
    [
      'message_id',
      'supporter_id',
      'channel',
      'contact_point_id',
      'entry_id',
      'verdict',
      'state',
      'provider_key',
      'sent_at',
      'opened',
      'clicked',
    ],
    deliveries,
  );
  const idOf = new Map(
    (
      await db.sql<{ id: number; supporter_id: number }>(
        'SELECT id, supporter_id FROM delivery WHERE organization_id = :org AND message_id = :messageId',
        { messageId },
      )
    ).map((row) => [row.supporter_id, row.id]),
  );
  await db.insertAll(
    'delivery_event',
    ['delivery_id', 'message_id', 'supporter_id', 'kind', 'at', 'detail'],
    events.map(([supporter, kind, when, detail]) => [
      idOf.get(supporter)!,
      messageId,
      supporter,
      kind,
      when,
      detail,
    ]),
  );
}

export async function writeMessages(made: Made): Promise<void> {
  const chance = new Chance(3);
  /** Said yes to it, and had not said no to it or to everything by the day that it went out. */
  const yes = (channel: string, scope: string, ago: number) => (p: Person) => {
    const own = p.agreements.filter((a) => a.channel === channel);
    return (
      own.some((a) => a.scope === scope && a.state === 'yes') &&
      !own.some((a) => a.state === 'no' && [scope, 'all'].includes(a.scope) && a.ago >= ago)
    );
  };
  const { ids } = made;
  await writePast(
    made,
    {
      name: 'Planks are in',
      channel: 'email',
      purpose: null,
      list: ids.lists[0]!,
      subject: 'The planks are in, {First name, or "neighbour"}',
      letter: PLANKS,
      body: '',
      ago: 15,
      openShare: 0.44,
      clickShare: 0.3,
      to: yes('email', 'ferry-news', 15),
      links: ['https://lanternferry.test/planks'],
    },
    chance,
  );
  await writePast(
    made,
    {
      name: 'Autumn hull appeal',
      channel: 'email',
      purpose: 'appeals',
      list: null,
      subject: '{First name, or "Friend"}, the hull won\'t wait for spring',
      letter: HULL,
      body: '',
      ago: 48,
      openShare: 0.37,
      clickShare: 0.16,
      to: yes('email', 'appeals', 48),
      links: ['https://give.lanternferry.test/hull'],
    },
    chance,
  );
  await writePast(
    made,
    {
      name: 'She floats Saturday',
      channel: 'text',
      purpose: null,
      list: ids.lists[1]!,
      subject: '',
      letter: null,
      body: LAUNCH_TEXT,
      ago: 6,
      openShare: 0,
      clickShare: 0,
      to: yes('text', 'launch-day', 6),
      links: [],
    },
    chance,
  );
  await writeDrafts(made);
  await writeReplies(made);
}

async function writeDrafts({ db, ids }: Made): Promise<void> {
  const draft = (name: string, values: Record<string, Bound>) =>
    db.insert('message', {
      name,
      channel: 'email',
      purpose: 'appeals',
      recipients: JSON.stringify({ from: [], minus: [], without: [] }),
      sender_id: ids.team[0]!,
      ...values,
    });
  const segment = await db.insert('segment', {
    name: 'Gave before, not this year',
    tree: JSON.stringify(GAVE_BEFORE(ids)),
  });
  await db.insert('segment', {
    name: 'Plank menders with a birthday soon',
    tree: JSON.stringify({
      kind: 'all',
      rules: [
        { kind: 'tag', tagId: ids.tags[0], has: true },
        { kind: 'field', field: ids.fields[1], op: 'within-next', value: 30 },
      ],
    }),
  });
  await db.execute(
    `INSERT INTO segment_version (organization_id, segment_id, name, tree, saved_by)
      SELECT organization_id, id, name, tree, :by
      FROM segment
      WHERE organization_id = :org`,
    { by: ids.team[1]! },
  );
  await draft('Winter hull appeal', {
    subject: '{First name, or "Friend"}, the starboard side is next',
    preheader: 'Two planks in, forty to go',
    letter: JSON.stringify(HULL),
    recipients: JSON.stringify({ from: [{ kind: 'segment', id: segment }], minus: [], without: [] }),
  });
  await draft('Thank you, plank givers', {
    purpose: 'service',
    subject: 'Thank you, {First name, or "friend"}',
    letter: JSON.stringify(THANKS),
  });
}

function GAVE_BEFORE(ids: Made['ids']): object {
  return {
    kind: 'all',
    rules: [
      { kind: 'gave', did: true, atLeast: 1000, window: { over: 'earlier-years' } },
      { kind: 'gave', did: false, atLeast: null, window: { over: 'this-year' } },
      {
        kind: 'any',
        rules: [
          { kind: 'tag', tagId: ids.tags[0], has: true },
          { kind: 'field', field: ids.fields[0], op: 'within-next', value: 120 },
        ],
      },
    ],
  };
}
