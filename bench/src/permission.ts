import { Readable } from 'node:stream';
import { createConnection, type Connection } from 'mysql2/promise';
import { decide, oneCopyPerAddress, PRESETS, startingRules, withOption, type Decision, type HouseRules, type Scope } from '@goodword/core/permission';
import { LedgerRepository } from '@goodword/server/permission/ledger.repository';
import { bindingsOf, groupVerdictSql } from '@goodword/server/permission/verdict.sql';
import { openHouse, seconds, type House } from './house';
import { households, type Household } from './households';

const PEOPLE = 1_000_000;
const NOW = Date.UTC(2026, 10, 23, 12);
const SCOPE: Scope = 'appeals';
const START = startingRules('US');
/** Rules that differ from place to place, so that nothing folds into one case. */
const RULES: HouseRules = {
  home: 'US',
  places: {
    ...START.places,
    'US-FL': PRESETS.strict.rules,
    GB: withOption(PRESETS['united-kingdom'].rules, 'charity-soft-opt-in', true),
    CA: withOption(PRESETS.canada.rules, 'charity-fundraising', true),
  },
};

const stamp = (at: number | null) => (at === null ? '\\N' : new Date(at).toISOString().slice(0, 23).replace('T', ' '));

async function load(connection: Connection, table: string, columns: string, rows: () => Generator<(string | number)[]>): Promise<void> {
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
  await connection.query({ sql: `LOAD DATA LOCAL INFILE 'x' INTO TABLE ${table} (${columns})`, infileStreamFactory: () => Readable.from(lines()) });
}

/** A million people in households, their addresses and what they said. */
async function fill(house: House, connection: Connection): Promise<void> {
  const org = house.scope.organizationId;
  const all = () => households(PEOPLE, NOW);
  await load(connection, 'supporter', 'organization_id, id, chapter_id, country, region', function* () {
    for (const { members } of all()) for (const m of members) yield [org, m.id, house.chapterId, m.place.country ?? '\\N', m.place.region ?? '\\N'];
  });
  await load(connection, 'contact_point', 'organization_id, id, kind, normal, shown, on_hold, do_not_contact', function* () {
    for (const { points } of all())
      for (const p of points) yield [org, p.id, 'email', `p${p.id}@example.org`, `p${p.id}@example.org`, Number(p.onHold), Number(p.doNotContact)];
  });
  await load(connection, 'supporter_contact', 'organization_id, supporter_id, contact_point_id, kind, position', function* () {
    for (const { members } of all())
      for (const m of members) for (const [position, point] of m.points.entries()) yield [org, m.id, point, 'email', position];
  });
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
            e.contactPointId,
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

function decideFor(household: Household): (Decision & { supporterId: number })[] {
  const points = new Map(household.points.map((point) => [point.id, point]));
  return household.members.map((member) => ({
    supporterId: member.id,
    ...decide({
      supporterId: member.id,
      channel: 'email',
      scope: SCOPE,
      now: NOW,
      place: member.place,
      addresses: member.points.map((id) => ({ contactPointId: id, onHold: points.get(id)!.onHold, doNotContact: points.get(id)!.doNotContact })),
      entries: household.entries,
      recent: [],
      rules: RULES,
    }),
  }));
}

/**
 * The yardstick: what one would write by hand for these rules and this question alone, with the places' numbers put
 * in, no evidence and nothing general. It gives the same counts.
 */
export function plainSql(): string {
  const states = [
    ['n1', '0', 'all'],
    ['n2', '0', 'marketing'],
    ['n3', '0', 'appeals'],
    ['o1', 's.id', 'all'],
    ['o2', 's.id', 'marketing'],
    ['o3', 's.id', 'appeals'],
  ].map(
    ([alias, person, scope]) =>
      `LEFT JOIN permission_state ${alias} ON ${alias}.organization_id = :org AND ${alias}.contact_point_id = cp.id AND ${alias}.supporter_id = ${person} AND ${alias}.channel = 'email' AND ${alias}.scope = '${scope}'`,
  );
  const zero = "TIMESTAMP'1000-01-01 00:00:00.000'";
  const greatest = (column: string, aliases: string[]) => `GREATEST(${aliases.map((alias) => `COALESCE(${alias}.${column}, ${zero})`).join(', ')})`;
  const own = (column: string) => greatest(column, ['o1', 'o2', 'o3']);
  const lapse = (column: string, us: number, ca: number, gb: number | null) =>
    `COALESCE(TIMESTAMP(DATE(${own(column)}) + INTERVAL (CASE rules WHEN 'US' THEN ${us} WHEN 'CA' THEN ${ca} ${gb ? `WHEN 'GB' THEN IF(${own(column)} >= '2026-02-05', ${gb}, NULL)` : ''} END) MONTH, '23:59:59.999'), ${zero}) >= :now AND ${own(column)} > ${zero}`;
  const pauses = ['o1', 'o2', 'o3'].map((alias) => `IF(${alias}.pause_at = ${own('pause_at')}, ${alias}.pause_until, ${zero})`).join(', ');
  return `SELECT verdict, COUNT(*) AS n FROM (
    SELECT supporter_id, contact_point_id, IF(verdict = 'send' AND ROW_NUMBER() OVER (PARTITION BY contact_point_id, verdict ORDER BY supporter_id) > 1, 'shared-address', verdict) AS verdict FROM (
      SELECT supporter_id, contact_point_id, verdict, ROW_NUMBER() OVER (PARTITION BY supporter_id ORDER BY verdict = 'send' DESC, position, contact_point_id) AS choice FROM (
        SELECT supporter_id, contact_point_id, position, CASE WHEN contact_point_id IS NULL THEN 'no-address' WHEN do_not_contact THEN 'do-not-contact'
            WHEN state = 'no' THEN 'said-no' WHEN on_hold THEN 'on-hold'
            WHEN NOT (state = 'yes' OR (state = 'implied' AND rules IN ('US', 'CA', 'GB')) OR (state = 'never' AND rules = 'CA')) THEN IF(state = 'asked', 'asked', 'no-permission')
            WHEN paused >= :now THEN 'paused' ELSE 'send' END AS verdict FROM (
          SELECT s.id AS supporter_id, cp.id AS contact_point_id, sc.position, cp.on_hold, cp.do_not_contact, GREATEST(${pauses}) AS paused, rules,
            CASE WHEN ${greatest('no_at', ['n1', 'n2', 'n3'])} > ${zero} AND NOT ${own('own_yes_at')} > ${greatest('no_at', ['n1', 'n2', 'n3'])} THEN 'no'
              WHEN ${own('yes_at')} > ${zero} THEN 'yes'
              WHEN ${own('stated_at')} >= :now OR (${lapse('gift_at', 18, 24, 24)}) OR (${lapse('membership_at', 18, 24, 24)}) OR (${lapse('volunteering_at', 18, 24, 24)}) OR (${lapse('inquiry_at', 3, 6, 24)}) THEN 'implied'
              WHEN ${own('asked_at')} > ${zero} THEN 'asked' ELSE 'never' END AS state
          FROM (SELECT id, CASE WHEN country IS NULL OR (country = 'US' AND NOT COALESCE(region, '') = 'FL') THEN 'US' WHEN country = 'CA' THEN 'CA' WHEN country = 'GB' THEN 'GB' ELSE 'strict' END AS rules
            FROM supporter WHERE organization_id = :org) s
          LEFT JOIN (supporter_contact sc JOIN contact_point cp ON cp.id = sc.contact_point_id AND cp.organization_id = :org AND cp.kind = 'email') ON sc.supporter_id = s.id
          ${states.join(' ')}) a) b) c WHERE choice = 1) d GROUP BY verdict`;
}

export interface PermissionFigures {
  people: number;
  ours: number;
  yardstick: number;
  withEvidence: number;
  decisionsPerSecond: number;
  folded: number;
  differences: number;
}

/** The verdict over a million people, beside the plain statement, and every one of them held against decide(). */
export async function benchPermission(server: string): Promise<PermissionFigures> {
  const house = await openHouse(server, 'bench_permission', 'smtp://127.0.0.1:9');
  const connection = await createConnection({ uri: `${server}/bench_permission`, timezone: 'Z', flags: ['+LOCAL_FILES'] });
  await fill(house, connection);
  const scope = { ...house.scope, chapterId: null };
  const folded = await seconds(() => house.database.write(scope, (tx) => new LedgerRepository().rebuild(tx)));
  await connection.query('ANALYZE TABLE supporter, contact_point, supporter_contact, permission_state');
  const asking = { channel: 'email' as const, scope: SCOPE, rules: RULES, now: new Date(NOW) };
  const everybody = 'SELECT id AS supporter_id FROM supporter WHERE organization_id = :org AND erased_at IS NULL';
  const verdicts = groupVerdictSql(everybody, asking);
  const db = house.database.read(scope);
  const counts = async (sql: string) =>
    new Map((await db.sql<{ verdict: string; n: number }>(sql, bindingsOf(asking))).map((row) => [row.verdict, row.n]));
  const [mine, plain] = [new Map<string, number>(), new Map<string, number>()];
  const put = (into: Map<string, number>, from: Map<string, number>) => from.forEach((n, verdict) => into.set(verdict, n));
  // Each twice, the second counts: the first reads the pages.
  let [ours, yardstick] = [0, 0];
  for (let round = 0; round < 2; round++) {
    yardstick = await seconds(async () => put(plain, await counts(plainSql())));
    ours = await seconds(async () => put(mine, await counts(`SELECT verdict, COUNT(*) AS n FROM (${verdicts}) v GROUP BY verdict`)));
  }
  const same = mine.size === plain.size && [...mine].every(([verdict, n]) => plain.get(verdict) === n);
  if (!same) throw new Error(`expected the same counts, got ${JSON.stringify([...mine])} and ${JSON.stringify([...plain])}`);
  let differences = 0;
  const withEvidence = await seconds(async () => {
    await house.database
      .unscoped()
      .raw(
        'CREATE TABLE looked (supporter_id BIGINT UNSIGNED PRIMARY KEY, contact_point_id BIGINT UNSIGNED NULL, state VARCHAR(10), entry_id BIGINT UNSIGNED NULL, verdict VARCHAR(20))',
      );
    await house.database.write(scope, (tx) => tx.execute(`INSERT INTO looked ${verdicts}`, bindingsOf(asking)));
  });
  const answers = new Map<number, { contact_point_id: number | null; state: string; entry_id: number | null; verdict: string }>();
  let after = 0;
  const decided = households(PEOPLE, NOW);
  const deciding = await seconds(async () => {
    for (const household of decided) {
      for (const one of oneCopyPerAddress(decideFor(household))) {
        if (!answers.has(one.supporterId)) after = await readSome(house, after, answers);
        const answer = answers.get(one.supporterId);
        answers.delete(one.supporterId);
        const agree =
          answer?.verdict === one.verdict &&
          answer.state === one.state &&
          answer.contact_point_id === one.contactPointId &&
          answer.entry_id === one.entryId;
        if (!agree) differences += 1;
      }
    }
  });
  let people = 0;
  const bare = await seconds(async () => {
    for (const household of households(PEOPLE, NOW)) people += decideFor(household).length;
  });
  const inventing = await seconds(async () => {
    for (const household of households(PEOPLE, NOW)) people -= household.members.length;
  });
  if (people !== 0 || deciding <= 0) throw new Error('expected the same people in every round');
  await connection.end();
  await house.context.close();
  return { people: PEOPLE, ours, yardstick, withEvidence, decisionsPerSecond: PEOPLE / (bare - inventing), folded, differences };
}

async function readSome(
  house: House,
  after: number,
  into: Map<number, { contact_point_id: number | null; state: string; entry_id: number | null; verdict: string }>,
): Promise<number> {
  const [rows] = (await house.database.unscoped().raw('SELECT * FROM looked WHERE supporter_id > ? ORDER BY supporter_id LIMIT 20000', [after])) as [
    { supporter_id: number; contact_point_id: number | null; state: string; entry_id: number | null; verdict: string }[],
  ];
  for (const row of rows) into.set(row.supporter_id, row);
  return rows.at(-1)?.supporter_id ?? after;
}
