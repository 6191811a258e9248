import { simpleParser } from 'mailparser';
import type { Act, History, ArrivedMail, ModelRequest } from './history';
import { alive, MODEL_CHANNELS, DAY_MS } from './model';

/** Links of mails to people who are here. */
function mailOf(h: History): ArrivedMail | undefined {
  const mail = h.one(h.mails.filter((one) => !alive(one.who).erased));
  return mail && { ...mail, who: alive(mail.who) };
}

/** What was left by a link is kept by its mail, so that "undo" finds it. */
const keyOf = (h: History, mail: ArrivedMail) => h.mails.find((one) => one.leave === mail.leave)!;

async function leave(h: History, what: 'this' | 'all'): Promise<string | null> {
  const mail = mailOf(h);
  if (!mail) return null;
  const status = await h.post(mail.leave, what === 'this' ? { 'List-Unsubscribe': 'One-Click' } : { what });
  if (status !== 200) throw new Error(`leaving answered ${status}`);
  const scope = what === 'this' ? mail.scope : 'all';
  h.say({
    who: mail.who,
    where: mail.where,
    channel: 'email',
    scope,
    what: 'no',
    own: true,
    mail: keyOf(h, mail),
  });
  return `${mail.who.name} at ${mail.where.normal} left ${scope}`;
}

async function undo(h: History): Promise<string | null> {
  const mail = mailOf(h);
  if (!mail) return null;
  await h.post(mail.leave, { what: 'back' });
  for (const one of h.model.sayings)
    if (one.mail === keyOf(h, mail) && Date.now() - one.at < 7 * DAY_MS) one.takenBack = true;
  return `${mail.who.name} undid the leaving of one mail`;
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
  const fields: [string, string][] = [
    ['act', 'choose'],
    ['wasSaid', '1'],
    ['shown', key],
    on ? ['on', key] : ['was', key],
  ];
  const status = await h.post(mail.leave.replace('/leave/', '/choices/'), fields);
  if (status !== 200) throw new Error(`choosing answered ${status}: ${h.log.join(' | ')}`);
  const inTime = Date.now() - mail.at <= 30 * DAY_MS;
  if (!on)
    h.say({
      who: mail.who,
      where: channel === 'email' ? where : null,
      channel,
      scope,
      what: 'no',
      own: true,
    });
  else if (inTime && channel === 'email')
    h.say({ who: mail.who, where, channel, scope, what: 'yes', own: true });
  else if (inTime && h.model.state(mail.who, where, channel, scope, Date.now()) !== 'yes') {
    h.say({ who: mail.who, where, channel, scope, what: 'asked', own: true });
    h.requests.push({
      who: mail.who,
      where,
      channel,
      scope,
      at: Date.now(),
      from: h.world.house.sink.mails.length,
      done: false,
    });
  }
  return `${mail.who.name} at ${where.normal} ${on ? 'ticked' : 'unticked'} ${key}${inTime ? '' : ' by an old link'}`;
}

async function pause(h: History): Promise<string | null> {
  const mail = mailOf(h);
  if (!mail || h.merged) return null;
  const days = h.random() < 0.7 ? 30 : 0;
  if (days === 0 && Date.now() - mail.at > 30 * DAY_MS) return null;
  await h.post(mail.leave.replace('/leave/', '/choices/'), { act: `pause-${days}` });
  const until = days === 0 ? Date.now() : Math.floor(Date.now() / DAY_MS + days) * DAY_MS + DAY_MS - 1;
  for (const channel of MODEL_CHANNELS)
    h.say({ who: mail.who, where: null, channel, scope: 'all', what: 'pause', own: true, until });
  return `${mail.who.name} pauses ${days} days`;
}

/** "Nothing more": every channel, through the address of the mail for email. */
async function nothing(h: History): Promise<string | null> {
  const mail = mailOf(h);
  if (!mail || !mail.who.addresses.includes(mail.where)) return null;
  await h.post(mail.leave.replace('/leave/', '/choices/'), { act: 'nothing' });
  for (const channel of MODEL_CHANNELS)
    h.say({
      who: mail.who,
      where: channel === 'email' ? mail.where : null,
      channel,
      scope: 'all',
      what: 'no',
      own: true,
    });
  return `${mail.who.name} wants nothing more`;
}

const STOPS = ['Please unsubscribe me.', 'STOP', 'unsubscribe'];

async function reply(h: History): Promise<string | null> {
  const mail = mailOf(h);
  if (!mail) return null;
  const text = h.one(STOPS)!;
  await h.world.mailIn(mail.where.normal, mail.replyTo, text);
  h.say({
    who: mail.who,
    where: mail.where,
    channel: 'email',
    scope: 'all',
    what: 'no',
    own: true,
    stop: true,
  });
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
  if (words === 'STOP')
    for (const who of owners)
      h.say({ who, where, channel: 'text', scope: 'all', what: 'no', own: true, stop: true });
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
function confirmed(h: History, requests: ModelRequest[]): void {
  for (const request of requests) {
    const { channel, scope, where } = request;
    const who = alive(request.who);
    const since = h.model.sayings.filter(
      (one) => !one.takenBack && one.what === 'no' && one.channel === channel && one.at >= request.at,
    );
    const dead =
      since.some((one) => one.where === where || one.who === who) ||
      Date.now() - request.at > h.world.confirmDays * DAY_MS;
    if (request.done || dead || who.erased) continue;
    request.done = true;
    h.say({ who, where, channel, scope, what: 'yes', own: true });
    if (!who.addresses.includes(where)) who.addresses.push(where);
  }
}

async function joins(h: History): Promise<string | null> {
  const who = h.one(h.living);
  const where = who && h.addressOf(who, 'email');
  if (!where || h.merged || h.requests.some((one) => one.where === where && !one.done)) return null;
  const scope = h.world.list;
  await h.post(`/join/${h.world.slug}`, {
    firstName: who.name,
    lastName: 'Lin',
    email: where.normal,
    agree_0: '1',
  });
  h.say({ who, where, channel: 'email', scope, what: 'asked', own: true });
  if (h.model.state(who, where, 'email', scope, Date.now()) !== 'yes')
    h.requests.push({
      who,
      where,
      channel: 'email',
      scope,
      at: Date.now(),
      from: h.world.house.sink.mails.length,
      done: false,
    });
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

/** What supporters do, and strangers with their addresses. */
export const SUPPORTER_ACTS: [string, Act][] = [
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
  ['join', joins],
  ['join', joins],
  ['press', presses],
  ['press', presses],
];
