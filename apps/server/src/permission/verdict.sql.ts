import { isListScope, mayWrite, type Channel, type HouseRules, type Scope } from '@goodword/core/permission';
import type { Bound } from '../platform/database';

/*
 * The set-based twin of `decide` (core/permission): the same marks, the same order of reasons, over any number of
 * people in one statement. `verdict.test.ts` holds the two against each other on random populations.
 */

/** The later of two marks (moment, then entry id), each a pair of columns that may be NULL. */
function laterOf(a: string, b: string, at: string, entry: string): { at: string; entry: string } {
  const takeB = `(${b}.${at} IS NOT NULL AND (${a}.${at} IS NULL OR ${b}.${at} > ${a}.${at} OR (${b}.${at} = ${a}.${at} AND ${b}.${entry} > ${a}.${entry})))`;
  return { at: `IF(${takeB}, ${b}.${at}, ${a}.${at})`, entry: `IF(${takeB}, ${b}.${entry}, ${a}.${entry})` };
}

function stateJoin(alias: string, supporter: string, scope: string): string {
  return `LEFT JOIN permission_state ${alias} ON ${alias}.organization_id = :org AND ${alias}.contact_point_id = cp.id
    AND ${alias}.supporter_id = ${supporter} AND ${alias}.channel = :channel AND ${alias}.scope = ${scope}`;
}

/** One row for each person and address: the marks that bear on the question. `people` yields a column supporter_id. */
function marksSql(people: string): string {
  const marks = [
    ['no', laterOf('ns', 'na', 'no_at', 'no_entry')],
    ['own_yes', laterOf('ps', 'pa', 'own_yes_at', 'own_yes_entry')],
    ['yes', laterOf('ps', 'pa', 'yes_at', 'yes_entry')],
    ['implied', laterOf('ps', 'pa', 'implied_until', 'implied_entry')],
    ['asked', laterOf('ps', 'pa', 'asked_at', 'asked_entry')],
  ] as const;
  const columns = marks.map(([name, mark]) => `${mark.at} AS ${name}_at, ${mark.entry} AS ${name}_entry`).join(', ');
  return `SELECT p.supporter_id, cp.id AS contact_point_id, sc.position, cp.on_hold, cp.do_not_contact, ${columns}
    FROM (${people}) p
    LEFT JOIN (supporter_contact sc JOIN contact_point cp ON cp.id = sc.contact_point_id AND cp.organization_id = :org AND cp.kind = :kind)
      ON sc.supporter_id = p.supporter_id
    ${stateJoin('ns', '0', ':scope')} ${stateJoin('na', '0', "'all'")}
    ${stateJoin('ps', 'p.supporter_id', ':scope')} ${stateJoin('pa', 'p.supporter_id', "'all'")}`;
}

/** One row for each person and address: state, the entry it rests on, and the verdict there. */
export function addressVerdictSql(people: string): string {
  const standing = `SELECT m.*,
      CASE WHEN no_at IS NOT NULL AND NOT COALESCE(own_yes_at > no_at, FALSE) THEN 'no' WHEN yes_at IS NOT NULL THEN 'yes'
        WHEN implied_at >= :now THEN 'implied' WHEN asked_at IS NOT NULL THEN 'asked' ELSE 'never' END AS state
    FROM (${marksSql(people)}) m`;
  return `SELECT supporter_id, contact_point_id, position, state,
      CASE state WHEN 'no' THEN no_entry WHEN 'yes' THEN IF(no_at IS NULL, yes_entry, own_yes_entry) WHEN 'implied' THEN implied_entry WHEN 'asked' THEN asked_entry END AS entry_id,
      CASE WHEN contact_point_id IS NULL THEN 'no-address' WHEN do_not_contact THEN 'do-not-contact' WHEN state = 'no' THEN 'said-no' WHEN on_hold THEN 'on-hold'
        WHEN state = 'yes' OR (state = 'implied' AND :impliedServes) OR (state = 'never' AND :neverServes) THEN 'send'
        WHEN state = 'asked' THEN 'asked' ELSE 'no-permission' END AS verdict
    FROM (${standing}) s`;
}

/** One row for each person: the first address that may be written to, else the first address with its reason. */
export function personVerdictSql(people: string): string {
  return `SELECT * FROM (SELECT a.*, ROW_NUMBER() OVER (PARTITION BY supporter_id ORDER BY (verdict = 'send') DESC, position, contact_point_id) AS choice
    FROM (${addressVerdictSql(people)}) a) c WHERE choice = 1`;
}

/** As `personVerdictSql`, with one copy per address among these people. */
export function groupVerdictSql(people: string): string {
  return `SELECT supporter_id, contact_point_id, state, entry_id,
      IF(verdict = 'send' AND ROW_NUMBER() OVER (PARTITION BY contact_point_id, verdict ORDER BY supporter_id) > 1, 'shared-address', verdict) AS verdict
    FROM (${personVerdictSql(people)}) v`;
}

/** The question, as bindings of the statements above. */
export function questionOf(channel: Channel, scope: Scope, now: Date, rules: HouseRules): Record<string, Bound> {
  const purpose = isListScope(scope) || scope === 'all' ? 'lists' : scope;
  return {
    channel,
    kind: channel === 'email' ? 'email' : channel === 'post' ? 'post' : 'mobile',
    scope,
    now,
    impliedServes: mayWrite(rules, channel, purpose, 'implied'),
    neverServes: mayWrite(rules, channel, purpose, 'never'),
  };
}
