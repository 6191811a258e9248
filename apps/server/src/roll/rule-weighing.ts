import { Bits } from '@goodword/core/common';
import type { Channel, HouseRules, Scope as PermissionScope } from '@goodword/core/permission';
import type { Scoped } from '../platform/scoped';
import { ConsentColumns } from './consent-columns';
import type { Ordinals } from './ordinals';

/** A change of rules, weighed for one question. */
export interface MovedQuestion {
  channel: Channel;
  scope: PermissionScope;
  /** Only those on this list; null for everybody. */
  listId: number | null;
  before: HouseRules;
  after: HouseRules;
}

/**
 * Rules by which everything is read that either of two sets needs: as many messages back as the longer cap
 * looks.
 */
function withLongestCaps(before: HouseRules, after: HouseRules): HouseRules {
  return {
    ...after,
    places: {
      ...after.places,
      ...Object.fromEntries(Object.entries(before.places).map(([key, place]) => [`${key} before`, place])),
    },
  };
}

/**
 * How many of some people a change of rules opens and closes. Read for the question and not kept: rules are
 * weighed seldom.
 */
export async function weighed(
  db: Scoped,
  people: Ordinals,
  among: Bits,
  { channel, scope, before, after }: MovedQuestion,
): Promise<{ opens: number; closes: number }> {
  const rules = withLongestCaps(before, after);
  const consent = new ConsentColumns(people, { channel, scope, rules, now: new Date() });
  await consent.read(db, Promise.resolve());
  const could = new Bits(people.size);
  consent.decide((ordinal, { verdict }) => {
    if (verdict === 'send') could.add(ordinal);
  }, before);
  let [opens, closes] = [0, 0];
  consent.decide((ordinal, { verdict }) => {
    if (!among.has(ordinal) || (verdict === 'send') === could.has(ordinal)) return;
    if (verdict === 'send') opens++;
    else closes++;
  }, after);
  return { opens, closes };
}
