import {
  askedFor,
  bearingScopes,
  ELSEWHERE,
  isPlaceKey,
  mayWrite,
  placeKeyOf,
  RELATIONSHIPS,
  UNION,
  UNION_COUNTRIES,
  type Channel,
  type HouseRules,
  type MarkKind,
  type PlaceKey,
  type PlaceRules,
  type Scope,
} from '@goodword/core/permission';
import type { Bound } from '../platform/database';
import { COLUMN_OF } from './ledger.repository';

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

/** The key of a supporter's place, as `placeKeyOf` finds it. */
function placeKeySql(rules: HouseRules): string {
  const keys = Object.keys(rules.places);
  const quoted = (some: readonly string[]) => some.map((key) => `'${key}'`).join(', ');
  const regions = keys.filter((key) => key.includes('-'));
  const countries = keys.filter((key) => key !== ELSEWHERE && key !== UNION && !key.includes('-'));
  const home = placeKeyOf(rules, { country: null, region: null });
  return `CASE WHEN s.country IS NULL THEN '${home}'
    ${regions.length > 0 ? `WHEN CONCAT(s.country, '-', COALESCE(s.region, '')) IN (${quoted(regions)}) THEN CONCAT(s.country, '-', s.region)` : ''}
    ${countries.length > 0 ? `WHEN s.country IN (${quoted(countries)}) THEN s.country` : ''}
    ${keys.includes(UNION) ? `WHEN s.country IN (${quoted(UNION_COUNTRIES)}) THEN '${UNION}'` : ''} ELSE '${ELSEWHERE}' END`;
}

/** An expression by class: a literal where all classes agree, else a CASE over the place. */
function byClass(classes: readonly RuleClass[], value: (rules: PlaceRules) => string): string {
  const values = classes.map((one) => value(one.rules));
  if (new Set(values).size === 1) return values[0]!;
  const cases = classes.map((one, i) => `WHEN m.place IN (${one.keys.map((key) => `'${key}'`).join(', ')}) THEN ${values[i]}`);
  return `(CASE ${cases.join(' ')} END)`;
}

/** Before every moment: what is absent is that old, so that one comparison serves. */
const ZERO = "TIMESTAMP'1000-01-01 00:00:00.000'";

/** Joins and expressions for the marks that bear: wider scopes on narrower ones, a no on everyone at the address. */
function bearing(scope: Scope): { joins: string; at(kind: MarkKind): string; entry(kind: MarkKind): string; pauseUntil: string } {
  const scopes = bearingScopes(scope);
  const named = (i: number) => (scopes[i] === scope ? ':scope' : `'${scopes[i]}'`);
  const join = (alias: string, person: string, i: number) =>
    `LEFT JOIN permission_state ${alias} ON ${alias}.organization_id = :org AND ${alias}.contact_point_id = cp.id AND ${alias}.supporter_id = ${person} AND ${alias}.channel = :channel AND ${alias}.scope = ${named(i)}`;
  const of = (kind: MarkKind) => scopes.map((_scope, i) => (kind === 'no' ? `n${i}` : `o${i}`));
  const greatest = (values: string[]) => (values.length === 1 ? values[0]! : `GREATEST(${values.join(', ')})`);
  const at = (kind: MarkKind) => greatest(of(kind).map((alias) => `COALESCE(${alias}.${COLUMN_OF[kind]}_at, ${ZERO})`));
  const entryAt = (kind: MarkKind, moment: string) =>
    greatest(of(kind).map((alias) => `IF(${alias}.${COLUMN_OF[kind]}_at = ${moment}, ${alias}.${COLUMN_OF[kind]}_entry, 0)`));
  const pause = of('pause').map(
    (alias) => `IF(${alias}.pause_at = ${at('pause')} AND ${alias}.pause_entry = ${entryAt('pause', at('pause'))}, ${alias}.pause_until, ${ZERO})`,
  );
  return {
    joins: scopes.map((_scope, i) => `${join(`n${i}`, '0', i)} ${join(`o${i}`, 'p.supporter_id', i)}`).join('\n'),
    at,
    entry: (kind) => entryAt(kind, at(kind)),
    pauseUntil: greatest(pause),
  };
}

/** One row for each person and address: the marks that bear on the question. `people` yields a column supporter_id. */
function marksSql(people: string, asking: Asking, placed: boolean): string {
  const marks = bearing(asking.scope);
  const kinds: MarkKind[] = ['no', 'ownYes', 'yes', 'stated', ...RELATIONSHIPS, 'asked'];
  const columns = kinds.flatMap((kind) => [`${marks.at(kind)} AS ${COLUMN_OF[kind]}_at`, `${marks.entry(kind)} AS ${COLUMN_OF[kind]}_entry`]);
  return `SELECT p.supporter_id, cp.id AS contact_point_id, sc.position, cp.on_hold, cp.do_not_contact, ${columns.join(', ')},
      ${marks.pauseUntil} AS pause_until${placed ? `, ${placeKeySql(asking.rules)} AS place` : ''}
    FROM (${people}) p ${placed ? 'JOIN supporter s ON s.organization_id = :org AND s.id = p.supporter_id' : ''}
    LEFT JOIN (supporter_contact sc JOIN contact_point cp ON cp.id = sc.contact_point_id AND cp.organization_id = :org AND cp.kind = :kind)
      ON sc.supporter_id = p.supporter_id
    ${marks.joins}`;
}

/** The last moment of each implied permission, named as the column of its entry: as `lapseOf`, or never. */
function impliedSql(classes: readonly RuleClass[]): { kind: string; at: string }[] {
  const lasting = RELATIONSHIPS.filter((relationship) => classes.some((one) => one.rules.lasts[relationship] !== null));
  const relationship = (kind: (typeof RELATIONSHIPS)[number]) => {
    const months = byClass(classes, (rules) => String(rules.lasts[kind] ?? 'NULL'));
    const from = byClass(classes, (rules) => (rules.impliedFrom === null ? ZERO : `TIMESTAMP'${rules.impliedFrom} 00:00:00.000'`));
    return `IF(m.${kind}_at > ${ZERO} AND m.${kind}_at >= ${from}, COALESCE(TIMESTAMP(DATE(m.${kind}_at) + INTERVAL ${months} MONTH, '23:59:59.999'), ${ZERO}), ${ZERO})`;
  };
  return [{ kind: 'stated', at: 'm.stated_at' }, ...lasting.map((kind) => ({ kind, at: relationship(kind) }))];
}

/** One row for each person and address: state, the entry it rests on, and the verdict there. */
export function addressVerdictSql(people: string, asking: Asking): string {
  const classes = classesOf(asking);
  const implied = impliedSql(classes);
  const untils = implied.map((one) => `${one.at} AS until_${one.kind}`).join(', ');
  const until = implied.length === 1 ? 'until_stated' : `GREATEST(${implied.map((one) => `until_${one.kind}`).join(', ')})`;
  const impliedEntry = implied.map((one) => `WHEN until_${one.kind} THEN ${one.kind}_entry`).join(' ');
  const bool = (value: boolean) => (value ? 'TRUE' : 'FALSE');
  const impliedServes = byClass(classes, (rules) => bool(serves(rules, asking.channel, asking.scope).implied));
  const neverServes = byClass(classes, (rules) => bool(serves(rules, asking.channel, asking.scope).never));
  const enough = enoughSql(classes, asking);
  const standing = `SELECT m.*, ${untils},
      CASE WHEN no_at > ${ZERO} AND NOT own_yes_at > no_at THEN 'no' WHEN yes_at > ${ZERO} THEN 'yes' ELSE 'open' END AS spoken
    FROM (${marksSql(people, asking, classes.length > 1)}) m`;
  const states = `SELECT m.*, ${until} AS implied_until,
      CASE WHEN spoken <> 'open' THEN spoken WHEN ${until} >= :now THEN 'implied' WHEN asked_at > ${ZERO} THEN 'asked' ELSE 'never' END AS state FROM (${standing}) m`;
  return `SELECT m.supporter_id, m.contact_point_id, m.position, m.state, IF(m.state = 'implied', m.implied_until, NULL) AS implied_until,
      CAST(CASE m.state WHEN 'no' THEN m.no_entry WHEN 'yes' THEN IF(m.no_at > ${ZERO}, m.own_yes_entry, m.yes_entry)
        WHEN 'implied' THEN CASE m.implied_until ${impliedEntry} END WHEN 'asked' THEN m.asked_entry END AS UNSIGNED) AS entry_id,
      CASE WHEN m.contact_point_id IS NULL THEN 'no-address' WHEN m.do_not_contact THEN 'do-not-contact' WHEN m.state = 'no' THEN 'said-no' WHEN m.on_hold THEN 'on-hold'
        WHEN NOT (m.state = 'yes' OR (m.state = 'implied' AND ${impliedServes}) OR (m.state = 'never' AND ${neverServes})) THEN IF(m.state = 'asked', 'asked', 'no-permission')
        ${asking.scope === 'service' ? '' : "WHEN m.pause_until >= :now THEN 'paused'"} ${enough} ELSE 'send' END AS verdict
    FROM (${states}) m`;
}

/** The cap: messages of this channel that the person got in the days before, and those on their way this moment. */
function enoughSql(classes: readonly RuleClass[], { channel, scope }: Asking): string {
  if (scope === 'service' || classes.every((one) => one.rules.caps[channel] === null)) return '';
  const since = byClass(classes, (rules) => `:now - INTERVAL ${rules.caps[channel]?.days ?? 0} DAY`);
  const most = byClass(classes, (rules) => String(rules.caps[channel]?.messages ?? 'NULL'));
  return `WHEN (SELECT COUNT(*) FROM delivery d WHERE d.organization_id = :org AND d.supporter_id = m.supporter_id AND d.channel = :channel AND d.counts = 1
    AND d.message_id <> :askingMessage AND ((d.sent_at > ${since} AND d.state IN ('sent', 'delivered')) OR d.state IN ('handing', 'unsure'))) >= ${most} THEN 'had-enough'`;
}

/** One row for each person: the first address that may be written to, else the first address with its reason. */
export function personVerdictSql(people: string, asking: Asking): string {
  return `SELECT * FROM (SELECT a.*, ROW_NUMBER() OVER (PARTITION BY supporter_id ORDER BY (verdict = 'send') DESC, position, contact_point_id) AS choice
    FROM (${addressVerdictSql(people, asking)}) a) c WHERE choice = 1`;
}

/** As `personVerdictSql`, with one copy per address among these people. */
export function groupVerdictSql(people: string, asking: Asking): string {
  return `SELECT supporter_id, contact_point_id, state, entry_id,
      IF(verdict = 'send' AND ROW_NUMBER() OVER (PARTITION BY contact_point_id, verdict ORDER BY supporter_id) > 1, 'shared-address', verdict) AS verdict
    FROM (${personVerdictSql(people, asking)}) v`;
}
