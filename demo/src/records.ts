import { cleanMobile, normalAddress, shownAddress } from '@goodword/core/intake';
import type { Bound } from '@goodword/server/platform/scoped';
import type { NewEntry } from '@goodword/server/permission/ledger/entries';
import { FoldingRepository } from '@goodword/server/permission/ledger/folding.repository';
import { LedgerRepository } from '@goodword/server/permission/ledger/ledger.repository';
import { DAY, LISTS, TAGS, type Made } from './house';
import type { Agreement } from './people';

const WORDS: Record<Agreement['how'], string> = {
  paper: 'Yes, write to me by email about the ferry and how I can help. I can leave at any time.',
  form: 'Please send me what I ticked. I can leave at any time.',
  'in-person': 'Said yes at the landing, and watched it being written down.',
  'one-click': 'No more of this, please',
  keyword: 'FERRY',
  gift: 'A gift; the house rule takes it as leave to write about the next appeal',
  phone: 'Said so on the phone',
};

/** Writes people with explicit ids, 1 for the first: the database is new. */
export async function writePeople({ db, people, ids, today }: Made): Promise<void> {
  const at = (ago: number) => new Date(today * DAY - ago * DAY + 10 * 3_600_000);
  await db.insertAll(
    'supporter',
    ['id', 'chapter_id', 'first_name', 'last_name', 'country', 'created_at'],
    people.map((p, i) => [
      i + 1,
      ids.chapters[p.chapter]!,
      p.firstName,
      p.lastName,
      countryOf(p.mobile),
      at(p.joinedAgo),
    ]),
  );
  const points = new Map<string, number>();
  const pointRows: Bound[][] = [];
  const contactRows: Bound[][] = [];
  people.forEach((p, i) => {
    for (const [kind, normal, position] of [
      ['email', p.email, 0],
      ['mobile', p.mobile, 0],
    ] as const) {
      if (!normal) continue;
      if (!points.has(normal)) {
        points.set(normal, points.size + 1);
        const shown = kind === 'email' ? normal : normal.replace(/^\+1(\d{3})(\d{3})(\d{4})$/, '+1 $1 $2 $3');
        pointRows.push([
          points.size,
          kind,
          normal,
          shown,
          p.onHold && kind === 'email',
          p.onHold && kind === 'email' ? '5.1.1 No such mailbox here' : null,
        ]);
      }
      contactRows.push([i + 1, points.get(normal)!, kind, position]);
    }
  });
  await db.insertAll('contact_point', ['id', 'kind', 'normal', 'shown', 'on_hold', 'hold_reason'], pointRows);
  await db.insertAll(
    'address_hold',
    ['contact_point_id', 'held_at', 'reason'],
    pointRows.flatMap((row) => (row[4] ? [[row[0]!, new Date(), row[5]!]] : [])),
  );
  await db.insertAll(
    'supporter_contact',
    ['supporter_id', 'contact_point_id', 'kind', 'position'],
    contactRows,
  );
  await db.insertAll(
    'supporter_tag',
    ['supporter_id', 'tag_id'],
    people.flatMap((p, i) => p.tags.map((tag) => [i + 1, ids.tags[TAGS.indexOf(tag)]!])),
  );
  await db.insertAll(
    'supporter_list',
    ['supporter_id', 'list_id'],
    people.flatMap((p, i) =>
      p.lists.map((list) => [i + 1, ids.lists[LISTS.findIndex(([name]) => name === list)]!]),
    ),
  );
  await db.insertAll(
    'gift',
    ['supporter_id', 'amount', 'given_on', 'note'],
    people.flatMap((p, i) => p.gifts.map((gift) => [i + 1, gift.amount, today - gift.ago, ''])),
  );
  await writeHomes(db, people, points.size);
  await writeValues({ db, people, ids, today });
  await writeEntries({ db, people, ids, today }, points, at);
  await writeRosters(db, people, today, ids.team[1]!);
}

/** Postal addresses, and who lives with whom. */
async function writeHomes(db: Made['db'], people: Made['people'], known: number): Promise<void> {
  const points = new Map<string, number>();
  const contacts: Bound[][] = [];
  people.forEach(({ street }, i) => {
    if (!street) return;
    if (!points.has(street)) points.set(street, known + points.size + 1);
    contacts.push([i + 1, points.get(street)!, 'post', 2]);
  });
  const row = ([street, id]: [string, number]): Bound[] => {
    const parts = { street, city: 'Port Alder', region: '', postcode: '', country: 'US' };
    return [id, 'post', normalAddress(parts), shownAddress(parts), JSON.stringify(parts)];
  };
  await db.insertAll('contact_point', ['id', 'kind', 'normal', 'shown', 'parts'], [...points].map(row));
  await db.insertAll('supporter_contact', ['supporter_id', 'contact_point_id', 'kind', 'position'], contacts);
  const homes = [...new Set(people.flatMap(({ home }) => home ?? []))];
  await db.insertAll(
    'household',
    ['id', 'greeting'],
    homes.map((_first, i) => [i + 1, i === 4 ? 'everybody at the boathouse' : null]),
  );
  const households = new Map(homes.map((first, i) => [first, i + 1]));
  for (const [first, id] of households) {
    const members = people.flatMap(({ home }, i) => (home === first || i === first ? [i + 1] : []));
    await db.execute(
      'UPDATE supporter SET household_id = :id WHERE organization_id = :org AND id IN (:members)',
      { id, members },
    );
  }
}

/** Whoever gave within two years is asked by the winter appeal; some have answered. */
async function writeRosters(
  db: Made['db'],
  people: Made['people'],
  today: number,
  team: number,
): Promise<void> {
  const stages = ['asked', 'asked', 'asked', 'thinking', 'pledged', 'declined'];
  const asked = people.flatMap((p, i) => {
    const last = Math.min(...p.gifts.map((gift) => gift.ago), Infinity);
    if (last > 730) return [];
    return [{ id: i + 1, stage: last < 14 ? 'gave' : stages[i % stages.length]! }];
  });
  const [campaign] = await db.sql<{ id: number }>(
    "SELECT id FROM campaign WHERE organization_id = :org AND name = 'Winter hull appeal'",
  );
  await db.insertAll(
    'roster',
    ['campaign_id', 'supporter_id', 'stage', 'put_at', 'put_by'],
    asked.map(({ id, stage }) => [campaign!.id, id, stage, new Date((today - 6) * DAY), team]),
  );
}

async function writeValues({
  db,
  people,
  ids,
  today,
}: Pick<Made, 'db' | 'people' | 'ids' | 'today'>): Promise<void> {
  const rows: Bound[][] = [];
  people.forEach((p, i) => {
    const put = (
      field: number,
      text: string | null,
      number: number | null,
      date: number | null,
      monthDay: number | null,
    ) => rows.push([i + 1, ids.fields[field]!, text, number, date, monthDay]);
    if (p.renewsIn !== null) put(0, null, null, today + p.renewsIn, null);
    if (p.birthday !== null) put(1, null, null, null, p.birthday);
    if (p.crossing) put(2, p.crossing, null, null, null);
    if (p.shirt) put(3, p.shirt, null, null, null);
    if (p.skill) put(4, p.skill, null, null, null);
    if (p.hours !== null) put(5, null, p.hours, null, null);
  });
  await db.insertAll(
    'field_value',
    ['supporter_id', 'field_id', 'text_value', 'number_value', 'date_value', 'month_day'],
    rows,
  );
}

async function writeEntries(
  { db, people, ids }: Made,
  points: Map<string, number>,
  at: (ago: number) => Date,
): Promise<void> {
  const listScope: Partial<Record<Agreement['scope'], string>> = {
    'ferry-news': `list:${ids.lists[0]}`,
    'launch-day': `list:${ids.lists[1]}`,
    'board-notes': `list:${ids.lists[2]}`,
  };
  const entries = people.flatMap((p, i) =>
    p.agreements.map((a): NewEntry => {
      const own = ['form', 'one-click', 'keyword'].includes(a.how);
      return {
        contactPointId: points.get((a.channel === 'email' ? p.email : p.mobile)!)!,
        supporterId: i + 1,
        channel: a.channel,
        scope: (listScope[a.scope] ?? a.scope) as NewEntry['scope'],
        state: a.state,
        saidAt: at(a.ago),
        byPerson: own,
        how: a.how,
        words: WORDS[a.how],
        source: own ? 'From before Good Word' : 'Membership drawer',
        recordedAt: at(a.ago),
        recordedBy: own ? null : ids.team[1]!,
      };
    }),
  );
  await new LedgerRepository(new FoldingRepository()).recordAll(db, entries);
}

/** Where a number is from, as it would have been told when it came in. */
function countryOf(mobile: string | null): string | null {
  const cleaned = mobile ? cleanMobile(mobile, 'US') : null;
  return cleaned?.ok ? (cleaned.country ?? null) : null;
}
