import {
  askedFor,
  bearingScopes,
  isPlaceKey,
  mayWrite,
  RELATIONSHIPS,
  type Channel,
  type HouseRules,
  type MarkKind,
  type PlaceKey,
  type PlaceRules,
  type Scope,
} from '@goodword/core/permission';
import type { Bound } from '../platform/database';
import { COLUMN_OF } from './ledger.repository';
import { placeKeySql, quotedList } from './place.sql';

/*
 * The set-based twin of `decide` (core/permission): the same marks, the same order of reasons, over any number of
 * people in one statement. `verdict.test.ts` holds the two against each other on random populations.
 */

/** What a verdict is asked for, beside the people. */
export interface Asking {
  channel: Channel;
  scope: Scope;
  rules: HouseRules;
  now: Date;
}

/** The values that the statements below are bound to. */
export function bindingsOf(asking: Asking, messageId = 0): Record<string, Bound> {
  const kind = asking.channel === 'email' ? 'email' : asking.channel === 'post' ? 'post' : 'mobile';
  return { channel: asking.channel, kind, scope: asking.scope, now: asking.now, askingMessage: messageId };
}

/** Places whose rules come to the same for this question; the statement tells people apart by these only. */
interface RuleClass {
  keys: PlaceKey[];
  rules: PlaceRules;
}

function classesOf({ rules, channel, scope }: Asking): RuleClass[] {
  const classes = new Map<string, RuleClass>();
  for (const [key, place] of Object.entries(rules.places)) {
    if (!isPlaceKey(key)) throw new Error(`expected a place such as US, US-FL, EU or *, got "${key}"`);
    const cap = scope === 'service' ? null : place.caps[channel];
    const bearing = JSON.stringify([serves(place, channel, scope), place.lasts, place.impliedFrom, cap]);
    const known = classes.get(bearing);
    if (known) known.keys.push(key);
    else classes.set(bearing, { keys: [key], rules: place });
  }
  return [...classes.values()];
}

function serves(rules: PlaceRules, channel: Channel, scope: Scope): { implied: boolean; never: boolean } {
  return { implied: mayWrite(rules, channel, askedFor(scope), 'implied'), never: mayWrite(rules, channel, askedFor(scope), 'never') };
}

/** An expression by class: a literal where all classes agree, else a CASE over the class of the row. */
function byClass(classes: readonly RuleClass[], of: string, value: (rules: PlaceRules) => string): string {
  const values = classes.map((one) => value(one.rules));
  if (new Set(values).size === 1) return values[0]!;
  return `(CASE ${of} ${values.map((one, i) => `WHEN ${i} THEN ${one}`).join(' ')} END)`;
}

/** Before every moment: what is absent is that old, so that one comparison serves. */
const ZERO = "TIMESTAMP'1000-01-01 00:00:00.000'";

/**
 * Keeps the optimizer from merging a derived table into the query around it: merged, each expression would be worked
 * out again wherever it is named.
 */
const ONCE = 'LIMIT 18446744073709551615';

/** The people, each with the class of their place's rules. `people` yields a column supporter_id. */
function placedSql(people: string, asking: Asking, classes: readonly RuleClass[]): string {
  if (classes.length === 1) return `SELECT supporter_id, 0 AS class FROM (${people}) w`;
  const cases = classes.map(
    (one, i) => `WHEN ${placeKeySql(asking.rules, { country: 's.country', region: 's.region' })} IN (${quotedList(one.keys)}) THEN ${i}`,
  );
  return `SELECT w.supporter_id, CASE ${cases.slice(0, -1).join(' ')} ELSE ${classes.length - 1} END AS class
    FROM (${people}) w JOIN supporter s ON s.organization_id = :org AND s.id = w.supporter_id ${ONCE}`;
}

/** The scopes that bear, as a list in SQL: those that are no list of people are the program's own words. */
function scopesSql(scope: Scope): string {
  return bearingScopes(scope)
    .map((one) => (one === scope ? ':scope' : `'${one}'`))
    .join(', ');
}

/** Marks of a person's own; a no is the address's and stands in rows of nobody's. */
const OWN = ['ownYes', 'yes', 'stated', ...RELATIONSHIPS, 'asked'] as const satisfies readonly MarkKind[];
/** One row for each person and address: the newest mark of each kind among the scopes that bear. */
function marksSql(people: string, asking: Asking, classes: readonly RuleClass[]): string {
  const own = [...OWN, 'pause' as const].map(
    (kind) => `MAX(IF(ps.supporter_id = p.supporter_id, ps.${COLUMN_OF[kind]}_at, NULL)) AS ${COLUMN_OF[kind]}_at`,
  );
  return `SELECT p.supporter_id, p.class, cp.id AS contact_point_id, sc.position, cp.on_hold, cp.do_not_contact, MAX(ps.no_at) AS no_at, ${own.join(', ')}
    FROM (${placedSql(people, asking, classes)}) p
    LEFT JOIN (supporter_contact sc JOIN contact_point cp ON cp.id = sc.contact_point_id AND cp.organization_id = :org AND cp.kind = :kind${asking.channel === 'text' ? " AND NOT (cp.line <=> 'landline')" : ''})
      ON sc.supporter_id = p.supporter_id
    LEFT JOIN permission_state ps ON ps.organization_id = :org AND ps.contact_point_id = cp.id AND ps.supporter_id IN (0, p.supporter_id)
      AND ps.channel = :channel AND ps.scope IN (${scopesSql(asking.scope)})
    GROUP BY p.supporter_id, cp.id`;
}

/** The last moment of each implied permission: as `lapseOf`, or ZERO. */
function impliedSql(classes: readonly RuleClass[]): { kind: MarkKind; at: string }[] {
  const lasting = RELATIONSHIPS.filter((relationship) => classes.some((one) => one.rules.lasts[relationship] !== null));
  const relationship = (kind: (typeof RELATIONSHIPS)[number]) => {
    const months = byClass(classes, 'm.class', (rules) => String(rules.lasts[kind] ?? 'NULL'));
    const lapse = `COALESCE(TIMESTAMP(DATE(m.${kind}_at) + INTERVAL ${months} MONTH, '23:59:59.999'), ${ZERO})`;
    const from = byClass(classes, 'm.class', (rules) => (rules.impliedFrom === null ? ZERO : `TIMESTAMP'${rules.impliedFrom} 00:00:00.000'`));
    return from === ZERO ? lapse : `IF(m.${kind}_at >= ${from}, ${lapse}, ${ZERO})`;
  };
  return [{ kind: 'stated', at: `COALESCE(m.stated_at, ${ZERO})` }, ...lasting.map((kind) => ({ kind, at: relationship(kind) }))];
}

/** What each state rests on: the kind of mark, from which the state itself follows. */
const STATE_OF =
  "CASE b.basis WHEN 'no' THEN 'no' WHEN 'yes' THEN 'yes' WHEN 'own_yes' THEN 'yes' WHEN 'asked' THEN 'asked' WHEN 'never' THEN 'never' ELSE 'implied' END";

/** One row for each person and address: state, what it rests on, and the verdict there. */
export function addressVerdictSql(people: string, asking: Asking): string {
  const classes = classesOf(asking);
  const implied = impliedSql(classes);
  const untils = implied.map((one, i) => `${one.at} AS u${i}`).join(', ');
  const until = implied.length === 1 ? 'u0' : `GREATEST(${implied.map((_one, i) => `u${i}`).join(', ')})`;
  const basis = `SELECT supporter_id, class, contact_point_id, position, on_hold, do_not_contact, pause_at, ${until} AS until,
      CASE WHEN no_at IS NOT NULL AND NOT COALESCE(own_yes_at > no_at, FALSE) THEN 'no' WHEN yes_at IS NOT NULL THEN IF(no_at IS NULL, 'yes', 'own_yes')
        WHEN ${until} >= :now THEN CASE ${until} ${implied.map((one, i) => `WHEN u${i} THEN '${one.kind}'`).join(' ')} END
        WHEN asked_at IS NOT NULL THEN 'asked' ELSE 'never' END AS basis
    FROM (SELECT m.*, ${untils} FROM (${marksSql(people, asking, classes)}) m) u ${ONCE}`;
  const bool = (value: boolean) => (value ? 'TRUE' : 'FALSE');
  const impliedServes = byClass(classes, 'm.class', (rules) => bool(serves(rules, asking.channel, asking.scope).implied));
  const neverServes = byClass(classes, 'm.class', (rules) => bool(serves(rules, asking.channel, asking.scope).never));
  return `SELECT m.supporter_id, m.contact_point_id, m.position, m.state, m.basis, IF(m.state = 'implied', m.until, NULL) AS implied_until,
      CASE WHEN m.contact_point_id IS NULL THEN 'no-address' WHEN m.do_not_contact THEN 'do-not-contact' WHEN m.state = 'no' THEN 'said-no' WHEN m.on_hold THEN 'on-hold'
        WHEN NOT (m.state = 'yes' OR (m.state = 'implied' AND ${impliedServes}) OR (m.state = 'never' AND ${neverServes})) THEN IF(m.state = 'asked', 'asked', 'no-permission')
        ${asking.scope === 'service' ? '' : `WHEN m.pause_at IS NOT NULL AND ${pauseSql(asking.scope)} >= :now THEN 'paused'`} ${enoughSql(classes, asking)} ELSE 'send' END AS verdict
    FROM (SELECT b.*, ${STATE_OF} AS state FROM (${basis}) b) m`;
}

/** Where the newest pause ends; asked only for those who would be written to. */
function pauseSql(scope: Scope): string {
  return `(SELECT e.pause_until FROM permission_state e WHERE e.organization_id = :org AND e.contact_point_id = m.contact_point_id AND e.supporter_id = m.supporter_id
    AND e.channel = :channel AND e.scope IN (${scopesSql(scope)}) AND e.pause_at IS NOT NULL ORDER BY e.pause_at DESC, e.pause_entry DESC LIMIT 1)`;
}

/** The entry behind a row's basis: the newest of its kind, looked up for the one address that was chosen. */
function entrySql(scope: Scope): string {
  const newest = (kind: MarkKind) => {
    const column = COLUMN_OF[kind];
    return `WHEN '${column}' THEN (SELECT e.${column}_entry FROM permission_state e WHERE e.organization_id = :org AND e.contact_point_id = c.contact_point_id
      AND e.supporter_id = ${kind === 'no' ? '0' : 'c.supporter_id'} AND e.channel = :channel AND e.scope IN (${scopesSql(scope)}) AND e.${column}_at IS NOT NULL
      ORDER BY e.${column}_at DESC, e.${column}_entry DESC LIMIT 1)`;
  };
  return `CASE c.basis ${(['no', ...OWN] as const).map(newest).join(' ')} END`;
}

/** The cap: messages of this channel that the person got in the days before, and those on their way this moment. */
function enoughSql(classes: readonly RuleClass[], { channel, scope }: Asking): string {
  if (scope === 'service' || classes.every((one) => one.rules.caps[channel] === null)) return '';
  const since = byClass(classes, 'm.class', (rules) => `:now - INTERVAL ${rules.caps[channel]?.days ?? 0} DAY`);
  const most = byClass(classes, 'm.class', (rules) => String(rules.caps[channel]?.messages ?? 'NULL'));
  return `WHEN (SELECT COUNT(*) FROM delivery d WHERE d.organization_id = :org AND d.supporter_id = m.supporter_id AND d.channel = :channel AND d.counts = 1
    AND d.message_id <> :askingMessage AND ((d.sent_at > ${since} AND d.state IN ('sent', 'delivered')) OR d.state IN ('handing', 'unsure'))) >= ${most} THEN 'had-enough'`;
}

/** One row for each person: the first address that may be written to, else the first address with its reason. */
export function personVerdictSql(people: string, asking: Asking): string {
  return `SELECT * FROM (SELECT a.*, ROW_NUMBER() OVER (PARTITION BY supporter_id ORDER BY (verdict = 'send') DESC, position, contact_point_id) AS choice
    FROM (${addressVerdictSql(people, asking)}) a) chosen WHERE choice = 1`;
}

/** As `personVerdictSql`, with one copy per address among these people, and with the entry that each verdict rests on. */
export function groupVerdictSql(people: string, asking: Asking): string {
  return `SELECT c.supporter_id, c.contact_point_id, c.state, ${entrySql(asking.scope)} AS entry_id,
      IF(c.verdict = 'send' AND c.copy > 1, 'shared-address', c.verdict) AS verdict
    FROM (SELECT v.*, ROW_NUMBER() OVER (PARTITION BY contact_point_id, verdict ORDER BY supporter_id) AS copy FROM (${personVerdictSql(people, asking)}) v) c`;
}
