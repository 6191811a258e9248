import { Readable } from 'node:stream';
import { createConnection, type Connection } from 'mysql2/promise';
import {
  decideFromEntries,
  PRESETS,
  startingRules,
  withOption,
  type Decision,
  type HouseRules,
  type Scope,
} from '@goodword/core/permission';
import { FactsRepository } from '@goodword/server/permission/ledger/facts.repository';
import { FoldingRepository } from '@goodword/server/permission/ledger/folding.repository';
import type { Scoped } from '@goodword/server/platform/scoped';
import { groupReaders } from '@goodword/server/roll/group-readers';
import { Ordinals } from '@goodword/server/roll/ordinals';
import { ConsentColumns } from '@goodword/server/roll/consent-columns';
import { VERDICTS } from '@goodword/server/roll/verdicts';
import { SendingRepository } from '@goodword/server/sending/sending.repository';
import { benchOutbox, type OutboxFigures } from './outbox';
import { openBenchHouse, seconds, type BenchHouse } from './house';
import { households, type BenchHousehold } from './households';

const PEOPLE = 1_000_000;
const NOW = Date.UTC(2026, 10, 23, 12);
const SCOPE: Scope = 'appeals';
const START = startingRules('US');
/** Rules that differ from place to place, so that nothing folds into one case. */
const RULES: HouseRules = {
  home: 'US',
  refusalOfferedSince: '2026-02-05',
  charityIn: ['CA'],
  places: {
    ...START.places,
    'US-FL': PRESETS.strict.rules,
    GB: withOption(PRESETS['united-kingdom'].rules, 'charity-soft-opt-in', true),
    CA: withOption(PRESETS.canada.rules, 'charity-fundraising', true),
  },
};

const stamp = (at: number | null) =>
  at === null ? '\\N' : new Date(at).toISOString().slice(0, 23).replace('T', ' ');

async function load(
  connection: Connection,
  table: string,
  columns: string,
  rows: () => Generator<(string | number)[]>,
): Promise<void> {
  function* lines(): Generator<Buffer> {
    let chunk = '';
    for (const row of rows()) {
      chunk += `${row.join('\t')}\n`;
      if (chunk.length > 60_000) {
        yield Buffer.from(chunk);
        chunk = '';
      }
    }
    yield Buffer.from(chunk);
  }
  await connection.query({
    sql: `LOAD DATA LOCAL INFILE 'x' INTO TABLE ${table} (${columns})`,
    infileStreamFactory: () => Readable.from(lines()),
  });
}

/** A million people in households, their addresses and what they said. */
async function fill(house: BenchHouse, connection: Connection): Promise<void> {
  const org = house.scope.organizationId;
  const all = () => households(PEOPLE, NOW);
  await load(connection, 'supporter', 'organization_id, id, chapter_id, country, region', function* () {
    for (const { members } of all())
      for (const m of members)
        yield [org, m.id, house.chapterId, m.place.country ?? '\\N', m.place.region ?? '\\N'];
  });
  await load(
    connection,
    'contact_point',
    'organization_id, id, kind, normal, shown, on_hold, do_not_contact',
    function* () {
      for (const { points } of all())
        for (const p of points)
          yield [
            org,
            p.id,
            'email',
            `p${p.id}@example.org`,
            `p${p.id}@example.org`,
            Number(p.onHold),
            Number(p.doNotContact),
          ];
    },
  );
  await load(
    connection,
    'supporter_contact',
    'organization_id, supporter_id, contact_point_id, kind, position',
    function* () {
      for (const { members } of all())
        for (const m of members)
          for (const [position, point] of m.points.entries()) yield [org, m.id, point, 'email', position];
    },
  );
  await load(
    connection,
    'permission_entry',
    'id, organization_id, contact_point_id, supporter_id, channel, scope, state, said_at, until_at, by_person, how',
    function* () {
      for (const { entries } of all())
        for (const e of entries)
          yield [
            e.id,
            org,
            e.contactPointId ?? '\\N',
            e.supporterId!,
            'email',
            e.scope,
            e.state,
            stamp(e.at),
            stamp(e.until ?? null),
            Number(e.byPerson),
            e.how,
          ];
    },
  );
}

function decideFor(household: BenchHousehold): (Decision & { supporterId: number })[] {
  const points = new Map(household.points.map((point) => [point.id, point]));
  return household.members.map(({ id: supporterId, place, points: own }) => {
    const addresses = own.map((id) => ({
      contactPointId: id,
      onHold: points.get(id)!.onHold,
      doNotContact: points.get(id)!.doNotContact,
    }));
    const question = {
      supporterId,
      channel: 'email',
      scope: SCOPE,
      now: NOW,
      place,
      addresses,
      recent: [],
      rules: RULES,
    } as const;
    return { supporterId, ...decideFromEntries(question, household.entries) };
  });
}

/**
 * The yardstick: what one would write by hand for these rules and this question alone, with the places'
 * numbers put in, no evidence and nothing general. It gives the same counts.
 */
export function plainSql(): string {
  const states = [
    ['n1', 'cp.id', '0', 'all'],
    ['n2', 'cp.id', '0', 'marketing'],
    ['n3', 'cp.id', '0', 'appeals'],
    ['p1', '0', 's.id', 'all'],
    ['p2', '0', 's.id', 'marketing'],
    ['p3', '0', 's.id', 'appeals'],
    ['o1', 'cp.id', 's.id', 'all'],
    ['o2', 'cp.id', 's.id', 'marketing'],
    ['o3', 'cp.id', 's.id', 'appeals'],
  ].map(
    ([alias, point, person, scope]) =>
      `LEFT JOIN permission_state ${alias} ON ${alias}.organization_id = :org
        AND ${alias}.contact_point_id = ${point} AND ${alias}.supporter_id = ${person}
        AND ${alias}.channel = 'email' AND ${alias}.scope = '${scope}'`,
  );
  const zero = "TIMESTAMP'1000-01-01 00:00:00.000'";
  const greatest = (column: string, aliases: string[]) =>
    `GREATEST(${aliases.map((alias) => `COALESCE(${alias}.${column}, ${zero})`).join(', ')})`;
  const own = (column: string) => greatest(column, ['o1', 'o2', 'o3']);
  const lapse = (column: string, us: number, ca: number, gb: number | null) =>
    `COALESCE(TIMESTAMP(DATE(${own(column)}) + INTERVAL (CASE rules WHEN 'US' THEN ${us}
      WHEN 'CA' THEN ${ca} ${gb ? `WHEN 'GB' THEN IF(${own(column)} >= '2026-02-05', ${gb}, NULL)` : ''} END)
      MONTH, '23:59:59.999'), ${zero}) >= :now AND ${own(column)} > ${zero}`;
  const persons = ['p1', 'p2', 'p3'];
  const pauses = persons
    .map((alias) => `IF(${alias}.pause_at = ${greatest('pause_at', persons)}, ${alias}.pause_until, ${zero})`)
    .join(', ');
  const refused = ['n1', 'n2', 'n3', ...persons];
  const no = `GREATEST(${greatest('no_at', refused)}, ${greatest('stop_at', refused)})`;
  return `SELECT verdict, COUNT(*) AS n FROM (
    SELECT supporter_id, contact_point_id,
      IF(verdict = 'send' AND ROW_NUMBER() OVER (PARTITION BY contact_point_id, verdict
      ORDER BY supporter_id) > 1, 'shared-address', verdict) AS verdict
    FROM (
      SELECT supporter_id, contact_point_id, verdict, ROW_NUMBER() OVER (PARTITION BY supporter_id
        ORDER BY verdict = 'send' DESC, position, contact_point_id) AS choice
      FROM (
        SELECT supporter_id, contact_point_id, position, CASE WHEN contact_point_id IS NULL THEN 'no-address'
        WHEN do_not_contact THEN 'do-not-contact'
            WHEN state = 'no' THEN 'said-no' WHEN on_hold THEN 'on-hold'
            WHEN NOT (state = 'yes' OR (state = 'implied' AND rules IN ('US', 'CA', 'GB'))
            OR (state = 'never' AND rules = 'CA')) THEN IF(state = 'asked', 'asked', 'no-permission')
            WHEN paused >= :now THEN 'paused' ELSE 'send' END AS verdict FROM (
          SELECT s.id AS supporter_id, cp.id AS contact_point_id, sc.position, cp.on_hold, cp.do_not_contact,
          GREATEST(${pauses}) AS paused, rules,
            CASE WHEN ${no} > ${zero} AND NOT ${own('own_yes_at')} > ${no} THEN 'no'
              WHEN ${own('yes_at')} > ${zero} THEN 'yes'
              WHEN ${own('stated_at')} >= :now OR (${lapse('gift_at', 18, 24, 24)})
              OR (${lapse('membership_at', 18, 24, 24)}) OR (${lapse('volunteering_at', 18, 24, 24)})
              OR (${lapse('inquiry_at', 3, 6, 24)}) THEN 'implied'
              WHEN ${own('asked_at')} > ${zero} THEN 'asked' ELSE 'never' END AS state
          FROM (SELECT id, CASE WHEN country IS NULL
          OR (country = 'US' AND NOT COALESCE(region, '') = 'FL') THEN 'US' WHEN country = 'CA' THEN 'CA'
          WHEN country = 'GB' THEN 'GB' ELSE 'strict' END AS rules
            FROM supporter WHERE organization_id = :org) s
          LEFT JOIN (supporter_contact sc
          JOIN contact_point cp ON cp.id = sc.contact_point_id AND cp.organization_id = :org
          AND cp.kind = 'email') ON sc.supporter_id = s.id
          ${states.join(' ')}) a) b) c WHERE choice = 1) d GROUP BY verdict`;
}

export interface PermissionFigures {
  people: number;
  /**
   * With nothing read; from columns that are there, the middle of five; a last look of everybody, written
   * down.
   */
  cold: number;
  warm: number;
  look: number;
  yardstick: number;
  withEvidence: number;
  decisionsPerSecond: number;
  folded: number;
  differences: number;
  outbox: OutboxFigures;
}

/** As the roll reads and decides for everybody, at the moment of this bench. */
class Everybody {
  readonly people = new Ordinals();
  readonly verdicts = new Uint8Array(PEOPLE + 10);
  readonly points = new Uint32Array(PEOPLE + 10);
  private readonly consent = new ConsentColumns(this.people, {
    channel: 'email',
    scope: SCOPE,
    rules: RULES,
    now: new Date(NOW),
  });

  async read(db: Scoped): Promise<void> {
    await db.scan(
      'SELECT id, chapter_id FROM supporter WHERE organization_id = :org AND erased_at IS NULL ORDER BY id',
      {},
      ([id, chapter]) => this.people.put(Number(id), Number(chapter)),
    );
    this.people.settle();
    await this.consent.read(db, Promise.resolve());
  }

  decide(): void {
    this.consent.decide((ordinal, { verdict }, point) => {
      this.verdicts[ordinal] = VERDICTS.indexOf(verdict);
      this.points[ordinal] = point;
    });
  }

  get ids(): Uint32Array {
    return Uint32Array.from({ length: this.people.size }, (_none, ordinal) => this.people.ids[ordinal]!);
  }
}

/**
 * The verdict over a million people, beside the plain statement, and every one of them held against the core
 * one by one.
 */
export async function benchPermission(server: string): Promise<PermissionFigures> {
  const house = await openBenchHouse(server, 'bench_permission', 'smtp://127.0.0.1:9');
  const connection = await createConnection({
    uri: `${server}/bench_permission`,
    timezone: 'Z',
    flags: ['+LOCAL_FILES'],
  });
  await fill(house, connection);
  const scope = { ...house.scope, chapterId: null };
  const folded = await seconds(() =>
    house.database.write(scope, (tx) => new FoldingRepository().rebuild(tx)),
  );
  await connection.query('ANALYZE TABLE supporter, contact_point, supporter_contact, permission_state');
  const db = house.database.read(scope);
  const everybody = new Everybody();
  const cold = await seconds(async () => {
    await everybody.read(db);
    everybody.decide();
  });
  const warms: number[] = [];
  for (let round = 0; round < 5; round++) warms.push(await seconds(async () => everybody.decide()));
  const { ids } = everybody;
  let groups: ReturnType<typeof groupReaders> = {};
  const look = await seconds(async () => {
    groups = groupReaders(ids, everybody, 'email');
    await house.database.write(scope, async (tx) => {
      tx.unchanged();
      for (const [verdict, some] of Object.entries(groups))
        await tx.insert('look_group', {
          message_id: 1,
          verdict,
          people: some.length,
          ids: Buffer.from(some.buffer),
        });
    });
  });
  const plain = new Map<string, number>();
  const yardstick = await seconds(async () => {
    for (const row of await db.sql<{ verdict: string; n: number }>(plainSql(), { now: new Date(NOW) }))
      plain.set(row.verdict, row.n);
  });
  const mine = Object.entries(groups).map(([verdict, some]): [string, number] => [verdict, some.length]);
  const same = mine.length === plain.size && mine.every(([verdict, n]) => plain.get(verdict) === n);
  if (!same)
    throw new Error(
      `expected the same counts, got ${JSON.stringify(mine)} and ${JSON.stringify([...plain])}`,
    );
  const { differences, withEvidence } = await compare(db, everybody);
  let people = 0;
  const bare = await seconds(async () => {
    for (const household of households(PEOPLE, NOW)) people += decideFor(household).length;
  });
  const inventing = await seconds(async () => {
    for (const household of households(PEOPLE, NOW)) people -= household.members.length;
  });
  if (people !== 0) throw new Error('expected the same people in every round');
  const asking = { channel: 'email' as const, scope: SCOPE, rules: RULES, now: new Date(NOW) };
  const outbox = await benchOutbox(
    { database: house.database, scope },
    house.context.get(SendingRepository, { strict: false }),
    ids,
    asking,
  );
  await connection.end();
  await house.context.close();
  const warm = warms.sort((a, b) => a - b)[2]!;
  return {
    people: PEOPLE,
    cold,
    warm,
    look,
    yardstick,
    withEvidence,
    decisionsPerSecond: PEOPLE / (bare - inventing),
    folded,
    differences,
    outbox,
  };
}

/**
 * Every decision, from columns and from facts in slices with their entries, against the core's over the
 * household's own entries.
 */
async function compare(
  db: Scoped,
  everybody: Everybody,
): Promise<{ differences: number; withEvidence: number }> {
  const facts = new FactsRepository();
  const asking = { channel: 'email' as const, scope: SCOPE, rules: RULES, now: new Date(NOW) };
  let [differences, withEvidence] = [0, 0];
  let pending: (Decision & { supporterId: number })[] = [];
  const settle = async () => {
    const some = pending;
    pending = [];
    let read = new Map<number, Decision>();
    withEvidence += await seconds(async () => {
      read = await facts.decide(
        db,
        some.map(({ supporterId }) => supporterId),
        asking,
      );
    });
    for (const { supporterId, ...expected } of some) {
      const [ordinal, found] = [everybody.people.ordinalOf(supporterId)!, read.get(supporterId)!];
      const columns =
        VERDICTS[everybody.verdicts[ordinal]!] === expected.verdict &&
        everybody.points[ordinal] === (expected.contactPointId ?? 0);
      const same = (Object.keys(expected) as (keyof Decision)[]).every((key) => expected[key] === found[key]);
      if (!columns || !same) differences += 1;
    }
  };
  for (const household of households(PEOPLE, NOW)) {
    pending.push(...decideFor(household));
    if (pending.length >= 5000) await settle();
  }
  await settle();
  return { differences, withEvidence };
}
