import { simpleParser } from 'mailparser';
import { houseDay, type House } from '../harness';
import { KIND_OF, type Channel, type Model, type Place, type Saying, type Someone } from './model';

export const DAY_MS = 86_400_000;
export const COUNTRIES = ['US', 'CA', 'FR'];
export const SCOPES = ['appeals', 'news', 'service'];
const CHANNELS: Channel[] = ['email', 'text', 'call', 'post'];

/** The running services, as one history needs them. */
export interface Services {
  readonly house: House;
  /** The scope of the public list, and the form for it. */
  readonly list: string;
  readonly slug: string;
  readonly confirmDays: number;
  /** Beginning and end of a day in the zone of the house. */
  day(iso: string): [number, number];
  newAddress(h: History, who: Someone): Promise<Place>;
  /** An erased address: nobody knows it any more, but that it had refused. */
  forget(h: History, who: Someone, where: Place): void;
  mailIn(from: string, to: string, text: string): Promise<void>;
  textIn(from: string, text: string): Promise<void>;
  /** A report about the mail with this link. */
  reportSpam(leave: string): Promise<void>;
  /** The newest question at an address, and when it was asked. */
  newestTask(contactPointId: number): Promise<number>;
  taskAt(id: number): Promise<number>;
  /** Whether a request to confirm has gone out to an address and waits for its answer. */
  isAsked(contactPointId: number): Promise<boolean>;
}

/** Repeatable chance (mulberry32). */
export function chance(seed: number): () => number {
  let state = seed >>> 0;
  return () => {
    state = (state + 0x6d2b79f5) | 0;
    let x = Math.imul(state ^ (state >>> 15), 1 | state);
    x = (x + Math.imul(x ^ (x >>> 7), 61 | x)) ^ x;
    return ((x ^ (x >>> 14)) >>> 0) / 4294967296;
  };
}

/** A mail that arrived: its link is a key to leaving and choosing. */
export interface Mail {
  who: Someone;
  where: Place;
  scope: string;
  leave: string;
  replyTo: string;
  at: number;
  /** A provider's report about it counts once. */
  reported?: boolean;
}

/** A question that a form or page put to an address. */
interface Request {
  who: Someone;
  where: Place;
  channel: Channel;
  scope: string;
  at: number;
  /** How many mails had arrived before it. */
  from: number;
  done: boolean;
}

/** Two records that are one for a while: the addresses of the one that stays, and what the other came with. */
interface Merged {
  kept: Someone;
  gone: Someone;
  own: Place[];
  moved: Saying[];
  /** How many sayings there were. */
  from: number;
}

type Act = (h: History) => Promise<string | null>;

/** A few people who share some addresses, and all that is done to them; each act is told to the model too. */
export class History {
  readonly people: Someone[] = [];
  readonly places: Place[] = [];
  readonly mails: Mail[] = [];
  readonly requests: Request[] = [];
  readonly log: string[] = [];
  merged: Merged | null = null;
  readonly random: () => number;
  private readonly headers: Record<string, string>;

  constructor(
    readonly world: Services,
    readonly model: Model,
    readonly n: number,
    seed: number,
  ) {
    this.random = chance(seed);
    this.headers = { 'x-forwarded-for': `198.51.${(n >> 8) & 255}.${n & 255}` };
  }

  one<T>(from: readonly T[]): T | undefined {
    return from[Math.floor(this.random() * from.length)];
  }

  get living(): Someone[] {
    return this.people.filter((one) => !one.erased && !one.into);
  }

  addressOf(who: Someone, kind: Place['kind']): Place | undefined {
    return this.one(who.addresses.filter((one) => one.kind === kind));
  }

  ownersOf(where: Place): Someone[] {
    return this.living.filter((one) => one.addresses.includes(where));
  }

  say(saying: Omit<Saying, 'at'> & { at?: number }): void {
    this.model.say({ at: Date.now(), ...saying });
  }

  async post(path: string, fields: [string, string][] | Record<string, string>): Promise<number> {
    const body = new URLSearchParams(fields);
    return (await fetch(this.world.house.config.PUBLIC_URL + path, { method: 'POST', body, headers: this.headers, redirect: 'manual' })).status;
  }

  async step(): Promise<void> {
    for (let tries = 0; tries < 8; tries++) {
      const [name, act] = this.one(ACTS)!;
      const did = await act(this);
      if (did === null) continue;
      this.log.push(`${name}: ${did}`);
      return;
    }
  }
}

const name = (who: Someone) => who.name;
const alive = (who: Someone): Someone => (who.into ? alive(who.into) : who);

/** Links of mails to people who are here. */
function mailOf(h: History): Mail | undefined {
  const mail = h.one(h.mails.filter((one) => !alive(one.who).erased));
  return mail && { ...mail, who: alive(mail.who) };
}

/** What was left by a link is kept by its mail, so that "undo" finds it. */
const keyOf = (h: History, mail: Mail) => h.mails.find((one) => one.leave === mail.leave)!;

async function leave(h: History, what: 'this' | 'all'): Promise<string | null> {
  const mail = mailOf(h);
  if (!mail) return null;
  const status = await h.post(mail.leave, what === 'this' ? { 'List-Unsubscribe': 'One-Click' } : { what });
  if (status !== 200) throw new Error(`leaving answered ${status}`);
  const scope = what === 'this' ? mail.scope : 'all';
  h.say({ who: mail.who, where: mail.where, channel: 'email', scope, what: 'no', own: true, mail: keyOf(h, mail) });
  return `${name(mail.who)} at ${mail.where.normal} left ${scope}`;
}

async function undo(h: History): Promise<string | null> {
  const mail = mailOf(h);
  if (!mail) return null;
  await h.post(mail.leave, { what: 'back' });
  for (const one of h.model.sayings) if (one.mail === keyOf(h, mail) && Date.now() - one.at < 7 * DAY_MS) one.takenBack = true;
  return `${name(mail.who)} undid the leaving of one mail`;
}

async function choose(h: History): Promise<string | null> {
  const mail = mailOf(h);
  if (!mail) return null;
  const channel = h.random() < 0.75 ? 'email' : 'text';
  const scope = h.one(channel === 'email' ? ['appeals', 'news', h.world.list] : ['appeals', 'news'])!;
  const on = h.random() < 0.6;
  const where = channel === 'email' ? mail.where : mail.who.addresses.find((one) => one.kind === 'mobile');
  if (!where || !mail.who.addresses.includes(mail.where)) return null;
  // A box of a channel that a STOP closed is not on the page.
  if (channel === 'text' && h.model.standingNo(mail.who, where, 'text', 'all')) return null;
  const key = `${channel}.${scope}`;
  const fields: [string, string][] = [['act', 'choose'], ['wasSaid', '1'], ['shown', key], on ? ['on', key] : ['was', key]];
  const status = await h.post(mail.leave.replace('/leave/', '/choices/'), fields);
  if (status !== 200) throw new Error(`choosing answered ${status}: ${h.log.join(' | ')}`);
  const inTime = Date.now() - mail.at <= 30 * DAY_MS;
  if (!on) h.say({ who: mail.who, where: channel === 'email' ? where : null, channel, scope, what: 'no', own: true });
  else if (inTime && channel === 'email') h.say({ who: mail.who, where, channel, scope, what: 'yes', own: true });
  else if (inTime && h.model.state(mail.who, where, channel, scope, Date.now()) !== 'yes') {
    h.say({ who: mail.who, where, channel, scope, what: 'asked', own: true });
    h.requests.push({ who: mail.who, where, channel, scope, at: Date.now(), from: h.world.house.sink.mails.length, done: false });
  }
  return `${name(mail.who)} at ${where.normal} ${on ? 'ticked' : 'unticked'} ${key}${inTime ? '' : ' by an old link'}`;
}

async function pause(h: History): Promise<string | null> {
  const mail = mailOf(h);
  if (!mail || h.merged) return null;
  const days = h.random() < 0.7 ? 30 : 0;
  if (days === 0 && Date.now() - mail.at > 30 * DAY_MS) return null;
  await h.post(mail.leave.replace('/leave/', '/choices/'), { act: `pause-${days}` });
  const until = days === 0 ? Date.now() : Math.floor(Date.now() / DAY_MS + days) * DAY_MS + DAY_MS - 1;
  for (const channel of CHANNELS) h.say({ who: mail.who, where: null, channel, scope: 'all', what: 'pause', own: true, until });
  return `${name(mail.who)} pauses ${days} days`;
}

/** "Nothing more": every channel, through the address of the mail for email. */
async function nothing(h: History): Promise<string | null> {
  const mail = mailOf(h);
  if (!mail || !mail.who.addresses.includes(mail.where)) return null;
  await h.post(mail.leave.replace('/leave/', '/choices/'), { act: 'nothing' });
  for (const channel of CHANNELS)
    h.say({ who: mail.who, where: channel === 'email' ? mail.where : null, channel, scope: 'all', what: 'no', own: true });
  return `${name(mail.who)} wants nothing more`;
}

const STOPS = ['Please unsubscribe me.', 'STOP', 'unsubscribe'];

async function reply(h: History): Promise<string | null> {
  const mail = mailOf(h);
  if (!mail) return null;
  const text = h.one(STOPS)!;
  await h.world.mailIn(mail.where.normal, mail.replyTo, text);
  h.say({ who: mail.who, where: mail.where, channel: 'email', scope: 'all', what: 'no', own: true, stop: true });
  return `${mail.where.normal} answered “${text}”`;
}

/** A provider reports that somebody called a mail spam: the channel and the address are closed, for good. */
async function complains(h: History): Promise<string | null> {
  const mail = mailOf(h);
  if (!mail || h.random() < 0.5) return null;
  await h.world.reportSpam(mail.leave);
  if (!keyOf(h, mail).reported) {
    h.say({ who: mail.who, where: mail.where, channel: 'email', scope: 'all', what: 'no', own: true });
    const here = h.places.find((one) => one.id === mail.where.id);
    if (here) here.closed = true;
    mail.where.closed = true;
  }
  keyOf(h, mail).reported = true;
  return `${mail.where.normal} called a mail spam`;
}

/** STOP closes each whose number it is. */
async function texted(h: History, words: string): Promise<string | null> {
  const where = h.one(h.places.filter((one) => one.kind === 'mobile' && h.ownersOf(one).length > 0));
  if (!where) return null;
  // Only a question that has reached the phone can be answered.
  const reached = words === 'YES' && (await h.world.isAsked(where.id));
  await h.world.textIn(where.normal, words);
  const owners = h.ownersOf(where);
  if (words === 'STOP') for (const who of owners) h.say({ who, where, channel: 'text', scope: 'all', what: 'no', own: true, stop: true });
  if (words === 'START') {
    h.say({ who: owners[0]!, where, channel: 'text', scope: 'all', what: 'start', own: true });
    if (where.questions.length > 0) where.onHold = false;
    where.questions = [];
  }
  if (words.startsWith('please')) {
    where.onHold = true;
    where.questions.push(await h.world.newestTask(where.id));
  }
  if (reached)
    confirmed(
      h,
      h.requests.filter((one) => one.where === where),
    );
  return `${where.normal} texted ${words}`;
}

/** An older request dies with a No, or with time. */
function confirmed(h: History, requests: Request[]): void {
  for (const request of requests) {
    const { channel, scope, where } = request;
    const who = alive(request.who);
    const since = h.model.sayings.filter((one) => !one.takenBack && one.what === 'no' && one.channel === channel && one.at >= request.at);
    const dead = since.some((one) => one.where === where || one.who === who) || Date.now() - request.at > h.world.confirmDays * DAY_MS;
    if (request.done || dead || who.erased) continue;
    request.done = true;
    h.say({ who, where, channel, scope, what: 'yes', own: true });
    if (!who.addresses.includes(where)) who.addresses.push(where);
  }
}

async function settle(h: History): Promise<string | null> {
  const where = h.one(h.places.filter((one) => one.questions.length > 0 && h.ownersOf(one).length > 0));
  if (!where) return null;
  const id = where.questions[0]!;
  const meant = h.random() < 0.5;
  const asked = await h.world.taskAt(id);
  await h.world.house.client.post(`/api/tasks/${id}/settle`, { outcome: meant ? 'meant' : 'not-meant' });
  if (meant) for (const who of h.ownersOf(where)) h.say({ at: asked, who, where, channel: 'text', scope: 'all', what: 'no', own: true, stop: true });
  where.questions.shift();
  if (where.questions.length === 0) where.onHold = false;
  return `${where.normal}: ${meant ? 'meant stop' : 'did not mean it'}`;
}

async function release(h: History): Promise<string | null> {
  const where = h.one(h.places.filter((one) => one.onHold && h.ownersOf(one).length > 0));
  const who = where && h.ownersOf(where)[0];
  if (!who) return null;
  const { status } = await h.world.house.client.call('POST', `/api/supporters/${who.id}/contact-points/${where.id}/release`);
  if (where.questions.length > 0 && status !== 409) throw new Error('a hold was released while its question is open');
  if (where.questions.length === 0) [where.onHold, where.bounces] = [false, []];
  return `${where.normal} released (${status})`;
}

/** A day gone by: a No counts from its end, a Yes from its beginning. */
async function byHand(h: History): Promise<string | null> {
  const who = h.one(h.living);
  const channel = h.one(CHANNELS)!;
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
  h.say({ at, who, where: through, channel, scope, what: state, own, ...(how === 'reply' && scope === 'all' ? { stop: true } : {}) });
  return `by hand ${name(who)} ${state} ${channel} ${scope} ${how} on ${on}`;
}

async function objects(h: History): Promise<string | null> {
  const who = h.one(h.living);
  if (!who) return null;
  await h.world.house.client.post(`/api/supporters/${who.id}/objection`, { how: 'phone', on: houseDay(), words: 'No marketing, ever' });
  for (const channel of CHANNELS) h.say({ who, where: null, channel, scope: 'marketing', what: 'no', own: true });
  return `${name(who)} objects`;
}

async function gives(h: History): Promise<string | null> {
  const who = h.one(h.living);
  if (!who) return null;
  const on = houseDay(-h.one([0, 40])!);
  await h.world.house.client.post(`/api/supporters/${who.id}/gifts`, { amount: 2500, on });
  for (const where of who.addresses)
    for (const channel of CHANNELS)
      if (channel !== 'text' && KIND_OF[channel] === where.kind)
        h.say({ at: Date.parse(`${on}T12:00:00Z`), who, where, channel, scope: 'marketing', what: 'gift', own: false });
  return `${name(who)} gives`;
}

async function moves(h: History): Promise<string | null> {
  const who = h.one(h.living);
  const country = h.one(COUNTRIES)!;
  if (!who || h.merged || country === who.country) return null;
  await h.world.house.client.put(`/api/supporters/${who.id}/place`, { country, region: null });
  who.before.push({ country: who.country, until: Date.now() });
  who.country = country;
  return `${name(who)} moves to ${country}`;
}

async function addsAddress(h: History): Promise<string | null> {
  const who = h.one(h.living);
  if (!who || h.merged || who.addresses.length > 4) return null;
  const place = await h.world.newAddress(h, who);
  return `${name(who)} has ${place.normal} too`;
}

async function dropsAddress(h: History): Promise<string | null> {
  const who = h.one(h.living.filter((one) => one.addresses.length > 2));
  const where = who && h.one(who.addresses);
  if (!where || h.merged) return null;
  await h.world.house.client.call('DELETE', `/api/supporters/${who.id}/contact-points/${where.id}`);
  who.addresses = who.addresses.filter((one) => one !== where);
  return `${where.normal} is taken off ${name(who)}`;
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
    if (!h.model.standingNo(kept, where, channel, scope)) h.say({ who: kept, where: null, channel, scope, what: 'no', own: false, byMerge: true });
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
  for (const saying of since) if (saying.who === kept && saying.what === 'no' && !saying.takenBack) h.model.say({ ...saying, who: gone });
  gone.into = null;
  kept.addresses = own;
  h.merged = null;
  return 'parted';
}

function closedFor(h: History, two: Someone[]): { where: Place; channel: Channel; scope: string }[] {
  const out: { where: Place; channel: Channel; scope: string }[] = [];
  for (const where of new Set(two.flatMap((one) => one.addresses)))
    for (const channel of CHANNELS)
      for (const scope of [...SCOPES, h.world.list, 'volunteering'])
        if (two.some((who) => h.model.closed(who, where, channel, scope))) out.push({ where, channel, scope });
  return out;
}

async function joins(h: History): Promise<string | null> {
  const who = h.one(h.living);
  const where = who && h.addressOf(who, 'email');
  if (!where || h.merged || h.requests.some((one) => one.where === where && !one.done)) return null;
  const scope = h.world.list;
  await h.post(`/join/${h.world.slug}`, { firstName: who.name, lastName: 'Lin', email: where.normal, agree_0: '1' });
  h.say({ who, where, channel: 'email', scope, what: 'asked', own: true });
  if (h.model.state(who, where, 'email', scope, Date.now()) !== 'yes')
    h.requests.push({ who, where, channel: 'email', scope, at: Date.now(), from: h.world.house.sink.mails.length, done: false });
  return `somebody types ${where.normal} into the form`;
}

async function presses(h: History): Promise<string | null> {
  const request = h.one(h.requests.filter((one) => one.channel === 'email' && !one.done));
  const since = request ? h.world.house.sink.mails.slice(request.from) : [];
  const mail = since.filter((one) => one.to === request?.where.normal && /confirm\//.test(one.raw)).at(-1);
  if (!request || !mail) return null;
  const parsed = await simpleParser(mail.raw);
  const link = /\/confirm\/[a-z0-9]+/.exec(`${parsed.text ?? ''} ${parsed.html || ''}`)?.[0];
  if (!link) return null;
  const status = await h.post(link, {});
  confirmed(h, [request]);
  return `${request.where.normal} presses the button (${status})`;
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
  return `${name(who)} is erased`;
}

const ACTS: [string, Act][] = [
  ['leave', (h) => leave(h, 'this')],
  ['leave', (h) => leave(h, 'this')],
  ['leave all', (h) => leave(h, 'all')],
  ['undo', undo],
  ['choose', choose],
  ['choose', choose],
  ['choose', choose],
  ['pause', pause],
  ['nothing', nothing],
  ['reply', reply],
  ['spam', complains],
  ['stop', (h) => texted(h, 'STOP')],
  ['start', (h) => texted(h, 'START')],
  ['start', (h) => texted(h, 'START')],
  ['hold', (h) => texted(h, 'please stop texting me')],
  ['yes', (h) => texted(h, 'YES')],
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
  ['join', joins],
  ['join', joins],
  ['press', presses],
  ['press', presses],
  ['erase', erases],
];
