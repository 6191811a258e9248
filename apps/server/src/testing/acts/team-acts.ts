import { houseDay } from '../harness';
import { moveTo } from '../steps';
import type { Act, History, Merged } from './history';
import {
  MODEL_CHANNELS,
  COUNTRIES,
  KIND_OF,
  SCOPES,
  type ModelChannel,
  type ModelPlace,
  type Someone,
} from './model';

async function settle(h: History): Promise<string | null> {
  const where = h.one(h.places.filter((one) => one.questions.length > 0 && h.ownersOf(one).length > 0));
  if (!where) return null;
  const id = where.questions[0]!;
  const meant = h.random() < 0.5;
  const asked = await h.world.taskAt(id);
  await h.world.house.client.post(`/api/tasks/${id}/settle`, { outcome: meant ? 'meant' : 'not-meant' });
  if (meant)
    for (const who of h.ownersOf(where))
      h.say({ at: asked, who, where, channel: 'text', scope: 'all', what: 'no', own: true, stop: true });
  where.questions.shift();
  if (where.questions.length === 0) where.onHold = false;
  return `${where.normal}: ${meant ? 'meant stop' : 'did not mean it'}`;
}

async function release(h: History): Promise<string | null> {
  const where = h.one(h.places.filter((one) => one.onHold && h.ownersOf(one).length > 0));
  const who = where && h.ownersOf(where)[0];
  if (!who) return null;
  const { status } = await h.world.house.client.call(
    'POST',
    `/api/supporters/${who.id}/contact-points/${where.id}/release`,
  );
  if (where.questions.length > 0 && status !== 409)
    throw new Error('a hold was released while its question is open');
  if (where.questions.length === 0) [where.onHold, where.bounces] = [false, []];
  return `${where.normal} released (${status})`;
}

/** A day gone by: a No counts from its end, a Yes from its beginning. */
async function byHand(h: History): Promise<string | null> {
  const who = h.one(h.living);
  const channel = h.one(MODEL_CHANNELS)!;
  const where = who && h.addressOf(who, KIND_OF[channel]);
  if (!who || !where) return null;
  const scope = h.one(['appeals', 'news', 'marketing', 'all', h.world.list])!;
  const [state, how, own] = h.one([
    ['yes', 'paper', true],
    ['yes', 'phone', true],
    ['yes', 'feed', false],
    ['no', 'phone', true],
    ['no', 'reply', true],
  ] as const)!;
  const back = h.one([0, 0, 1, 20])!;
  const on = houseDay(-back);
  const { status, text } = await h.world.house.client.call('POST', `/api/supporters/${who.id}/permission`, {
    ...{ contactPointId: where.id, channel, scope, state, how, on },
    words: 'They said so at the landing',
  });
  if (status !== 204) throw new Error(`by hand answered ${status} ${text}`);
  const [start, end] = h.world.day(on);
  const at = state === 'yes' ? start : back === 0 ? Date.now() : end;
  const through = state === 'yes' || how === 'reply' ? where : null;
  h.say({
    at,
    who,
    where: through,
    channel,
    scope,
    what: state,
    own,
    ...(how === 'reply' && scope === 'all' ? { stop: true } : {}),
  });
  return `by hand ${who.name} ${state} ${channel} ${scope} ${how} on ${on}`;
}

async function objects(h: History): Promise<string | null> {
  const who = h.one(h.living);
  if (!who) return null;
  await h.world.house.client.post(`/api/supporters/${who.id}/objection`, {
    how: 'phone',
    on: houseDay(),
    words: 'No marketing, ever',
  });
  for (const channel of MODEL_CHANNELS)
    h.say({ who, where: null, channel, scope: 'marketing', what: 'no', own: true });
  return `${who.name} objects`;
}

async function gives(h: History): Promise<string | null> {
  const who = h.one(h.living);
  if (!who) return null;
  const on = houseDay(-h.one([0, 40])!);
  await h.world.house.client.post(`/api/supporters/${who.id}/gifts`, { amount: 2500, on });
  for (const where of who.addresses)
    for (const channel of MODEL_CHANNELS)
      if (channel !== 'text' && KIND_OF[channel] === where.kind)
        h.say({
          at: Date.parse(`${on}T12:00:00Z`),
          who,
          where,
          channel,
          scope: 'marketing',
          what: 'gift',
          own: false,
        });
  return `${who.name} gives`;
}

async function moves(h: History): Promise<string | null> {
  const who = h.one(h.living);
  const country = h.one(COUNTRIES)!;
  if (!who || h.merged || country === who.country) return null;
  await moveTo(h.world.house.client, who.id, country);
  who.before.push({ country: who.country, until: Date.now() });
  who.country = country;
  return `${who.name} moves to ${country}`;
}

async function addsAddress(h: History): Promise<string | null> {
  const who = h.one(h.living);
  if (!who || h.merged || who.addresses.length > 4) return null;
  const place = await h.world.newAddress(h, who);
  return `${who.name} has ${place.normal} too`;
}

async function dropsAddress(h: History): Promise<string | null> {
  const who = h.one(h.living.filter((one) => one.addresses.length > 2));
  const where = who && h.one(who.addresses);
  if (!where || h.merged) return null;
  await h.world.house.client.call('DELETE', `/api/supporters/${who.id}/contact-points/${where.id}`);
  who.addresses = who.addresses.filter((one) => one !== where);
  return `${where.normal} is taken off ${who.name}`;
}

async function putsFirst(h: History): Promise<string | null> {
  const who = h.one(h.living.filter((one) => one.addresses.length > 1));
  const where = who && h.one(who.addresses);
  if (!where || h.merged) return null;
  await h.world.house.client.post(`/api/supporters/${who.id}/contact-points/${where.id}/first`);
  who.addresses = [where, ...who.addresses.filter((one) => one !== where)];
  return `${where.normal} comes first`;
}

async function merges(h: History): Promise<string | null> {
  if (h.merged) return parts(h, h.merged);
  const [kept, gone] = h.living;
  if (!kept || !gone || kept.country !== gone.country) return null;
  const before = closedFor(h, [kept, gone]);
  await h.world.house.client.post(`/api/supporters/${kept.id}/merging`, { goneId: gone.id, keep: {} });
  const moved = h.model.sayings.filter((one) => one.who === gone);
  h.merged = { kept, gone, own: kept.addresses, moved, from: h.model.sayings.length };
  for (const saying of moved) saying.who = kept;
  kept.addresses = [...kept.addresses, ...gone.addresses.filter((one) => !kept.addresses.includes(one))];
  gone.into = kept;
  // What was closed for either is closed.
  for (const { where, channel, scope } of before)
    if (!h.model.standingNo(kept, where, channel, scope))
      h.say({ who: kept, where: null, channel, scope, what: 'no', own: false, byMerge: true });
  return 'brought together';
}

/** Parting gives each what they came with; a No that was said in the time together stays with both. */
async function parts(h: History, { kept, gone, own, moved, from }: Merged): Promise<string | null> {
  if (kept.erased) return null;
  const { client } = h.world.house;
  const together = await client.get<{ mergedFrom: { mergingId: number }[] }>(`/api/supporters/${kept.id}`);
  await client.call('DELETE', `/api/supporters/${kept.id}/merging/${together.mergedFrom[0]!.mergingId}`);
  const since = h.model.sayings.slice(from);
  for (const saying of since) if (saying.byMerge) saying.takenBack = true;
  for (const saying of moved) saying.who = gone;
  for (const saying of since)
    if (saying.who === kept && saying.what === 'no' && !saying.takenBack)
      h.model.say({ ...saying, who: gone });
  gone.into = null;
  kept.addresses = own;
  h.merged = null;
  return 'parted';
}

function closedFor(
  h: History,
  two: Someone[],
): { where: ModelPlace; channel: ModelChannel; scope: string }[] {
  const out: { where: ModelPlace; channel: ModelChannel; scope: string }[] = [];
  for (const where of new Set(two.flatMap((one) => one.addresses)))
    for (const channel of MODEL_CHANNELS)
      for (const scope of [...SCOPES, h.world.list, 'volunteering'])
        if (two.some((who) => h.model.closed(who, where, channel, scope)))
          out.push({ where, channel, scope });
  return out;
}

async function erases(h: History): Promise<string | null> {
  const who = h.one(h.living);
  if (!who || h.merged || h.random() < 0.6 || h.living.length < 2) return null;
  await h.world.house.client.call('DELETE', `/api/supporters/${who.id}`);
  for (const where of who.addresses) {
    if (h.living.some((one) => one !== who && one.addresses.includes(where))) continue;
    h.world.forget(h, who, where);
  }
  who.erased = true;
  who.addresses = [];
  return `${who.name} is erased`;
}

/** What the team does. */
export const TEAM_ACTS: [string, Act][] = [
  ['settle', settle],
  ['release', release],
  ['hand', byHand],
  ['hand', byHand],
  ['hand', byHand],
  ['object', objects],
  ['gift', gives],
  ['move', moves],
  ['move', moves],
  ['add', addsAddress],
  ['drop', dropsAddress],
  ['first', putsFirst],
  ['merge', merges],
  ['erase', erases],
];
