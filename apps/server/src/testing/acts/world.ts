import { createTransport } from 'nodemailer';
import { simpleParser } from 'mailparser';
import type { IntakePlan } from '@goodword/core/intake';
import { startingRules, type HouseRules, type PlaceRules } from '@goodword/core/permission';
import { startOfDay, parseIsoDay, type Day } from '@goodword/core/common';
import { HouseRulesRepository } from '../../permission/house-rules.repository';
import { FactsRepository } from '../../permission/ledger/facts.repository';
import { FoldingRepository } from '../../permission/ledger/folding.repository';
import { eventually, type TestHouse } from '../harness';
import {
  agreed,
  batchAt,
  bringIn,
  STEP_COLUMNS,
  draftEmail,
  draftText,
  lastLook,
  letterOf,
  messageAt,
  NOTHING,
} from '../steps';
import { openFormAs } from '../supporter';
import { History, type Services } from './history';
import { SUPPORTER_ACTS } from './supporter-acts';
import { TEAM_ACTS } from './team-acts';
import {
  COUNTRIES,
  DAY_MS,
  KIND_OF,
  Model,
  SCOPES,
  type ModelAnswer,
  type ModelChannel,
  type ModelPlace,
  type Rules,
  type Someone,
} from './model';

const ACTS = [...SUPPORTER_ACTS, ...TEAM_ACTS];
const ZONE = 'America/Los_Angeles';
const AREAS = [
  201, 202, 203, 205, 206, 207, 208, 209, 210, 212, 213, 214, 215, 216, 217, 218, 219, 224, 225, 228,
];
const MORE = [
  229, 231, 234, 239, 240, 248, 251, 252, 253, 254, 256, 260, 262, 267, 269, 270, 301, 302, 303, 304,
];

/** What the house of the histories asks for: not what any law says, but different from place to place. */
const LOOSE = { list: 'yes', service: 'nothing', other: 'nothing' } as const;
const MIDDLE = { list: 'yes', service: 'nothing', other: 'implied' } as const;
const STRICT = { list: 'yes', service: 'implied', other: 'yes' } as const;
export const RULES: Rules = {
  needs: {
    US: { email: MIDDLE, call: LOOSE, post: LOOSE },
    CA: { email: MIDDLE, call: MIDDLE, post: LOOSE },
    FR: { email: STRICT, call: STRICT, post: MIDDLE },
  },
  gift: { US: 24, CA: 3, FR: null },
};

function houseRules(confirmDays: number): HouseRules {
  const base = startingRules('US');
  const place = (country: string): PlaceRules => {
    const { email, call, post } = RULES.needs[country]!;
    const of = ({ list, service, other }: typeof email) => ({
      news: other,
      appeals: other,
      volunteering: other,
      service,
      lists: list,
    });
    const yes = { news: 'yes', appeals: 'yes', volunteering: 'yes', service: 'yes', lists: 'yes' } as const;
    return {
      ...base.places['*']!,
      charityOnly: [],
      impliedFrom: null,
      needs: { email: of(email), call: of(call), post: of(post), text: yes },
      lasts: { gift: RULES.gift[country]!, membership: null, volunteering: null, inquiry: null },
      hours: { call: null, text: null },
      caps: { email: null, text: null, call: null, post: null },
      confirm: { email: true, text: true, call: true, withinDays: confirmDays },
    };
  };
  return {
    ...base,
    home: 'US',
    places: { '*': place('US'), ...Object.fromEntries(COUNTRIES.map((one) => [one, place(one)])) },
  };
}

/** What a difference looks like. */
export interface ModelDifference {
  history: number;
  who: string;
  at: string;
  asked: string;
  model: string;
  program: string;
  log: string[];
}

/** The running services, in which many histories happen side by side, act by act. */
export class World implements Services {
  readonly histories: History[] = [];
  readonly confirmDays = 20;
  list = '';
  slug = '';
  private listId = 0;
  private everybody = 0;
  private numbers = 0;
  private mailsSeen = 0;
  private sends = 0;
  private readonly transport;
  /** Files that were brought in and can be taken back out. */
  private readonly batches: { id: number }[] = [];

  private constructor(
    readonly house: TestHouse,
    private readonly random: () => number,
  ) {
    this.transport = createTransport({ host: '127.0.0.1', port: house.config.INBOUND_SMTP_PORT, pool: true });
  }

  static async open(house: TestHouse, random: () => number): Promise<World> {
    const world = new World(house, random);
    const rules = houseRules(world.confirmDays);
    await house.database.write(house.scope, (tx) =>
      new HouseRulesRepository().keep(tx, { rules, words: 'For histories', effects: [] }),
    );
    const form = await openFormAs(house.client, 'Acts');
    world.everybody = (await house.client.post<{ id: number }>('/api/lists', { name: 'Everybody' })).id;
    world.slug = form.slug;
    world.listId = form.listId;
    world.list = `list:${form.listId}`;
    return world;
  }

  /**
   * Two people in each history, who may share an address or both, brought in by one file; some numbers are
   * landlines.
   */
  async begin(seeds: readonly number[]): Promise<void> {
    const rows: string[] = [];
    const first = this.histories.length;
    for (const [i, seed] of seeds.entries()) {
      const h = new History(this, new Model(RULES), first + i, seed);
      this.histories.push(h);
      const own = (kind: 'email' | 'mobile'): ModelPlace => {
        const made = this.place(
          kind,
          kind === 'email' ? `h${h.n}.${h.places.length}@example.org` : this.number(),
        );
        h.places.push(made);
        return made;
      };
      const [mail, phone] = [own('email'), own('mobile')];
      const second = [h.random() < 0.4 ? mail : own('email'), h.random() < 0.4 ? phone : own('mobile')];
      for (const [name, addresses] of [
        ['Ada', [mail, phone]],
        ['Bo', second],
      ] as const) {
        const country = h.one(COUNTRIES)!;
        h.people.push({
          id: 0,
          name: `${name}${h.n}`,
          addresses: [...addresses],
          country,
          before: [],
          erased: false,
          into: null,
        });
        rows.push(
          `${addresses[0]!.normal},${name}${h.n},Lin,${addresses[1]!.normal},${h.n} ${name} Lane,${country}`,
        );
      }
    }
    const columns = [...STEP_COLUMNS, { to: 'street' as const }, { to: 'country' as const }];
    await this.bring(
      rows,
      { columns, permission: { email: NOTHING, text: NOTHING }, listIds: [this.everybody] },
      ',Street,Country',
    );
    await this.learn(first);
  }

  private place(kind: ModelPlace['kind'], normal: string): ModelPlace {
    return { kind, normal, id: 0, onHold: false, bounces: [], closed: false, landline: false, questions: [] };
  }

  private number(): string {
    const n = this.numbers++;
    const area = [...AREAS, ...MORE][Math.floor(n / 100)];
    if (area === undefined) throw new Error('there are no more numbers for stories');
    return `+1${area}55501${String(n % 100).padStart(2, '0')}`;
  }

  private async bring(rows: string[], plan: Partial<IntakePlan>, more = ''): Promise<number> {
    const batch = await bringIn(
      this.house.client,
      `Email,First,Last,Mobile${more}\n${rows.join('\n')}\n`,
      plan,
    );
    if (batch.state !== 'done')
      throw new Error(`a batch of the histories ended as ${batch.state}: ${batch.problem}`);
    return batch.id;
  }

  /** The ids of those who came in; a tenth of the numbers turn out to be landlines. */
  private async learn(first: number): Promise<void> {
    const knex = this.house.database.unscoped();
    const people = (await knex('supporter').select('id', 'first_name')) as {
      id: number;
      first_name: string;
    }[];
    const points = (await knex('contact_point').select('id', 'kind', 'normal')) as {
      id: number;
      kind: string;
      normal: string;
    }[];
    const personOf = new Map(people.map((one) => [one.first_name, one.id]));
    const pointOf = new Map(points.map((one) => [`${one.kind}:${one.normal}`, one.id]));
    const landlines: number[] = [];
    const posted = (await knex('supporter_contact')
      .where('kind', 'post')
      .select('supporter_id', 'contact_point_id')) as {
      supporter_id: number;
      contact_point_id: number;
    }[];
    const postOf = new Map(posted.map((row) => [row.supporter_id, row.contact_point_id]));
    const normalOf = new Map(points.map((one) => [one.id, one.normal]));
    for (const h of this.histories.slice(first)) {
      for (const who of h.people) {
        who.id = personOf.get(who.name)!;
        const place = this.place('post', normalOf.get(postOf.get(who.id)!)!);
        who.addresses.push(place);
        h.places.push(place);
      }
      for (const where of h.places) {
        where.id = pointOf.get(`${where.kind}:${where.normal}`)!;
        if (where.kind === 'mobile' && h.random() < 0.1) {
          where.landline = true;
          landlines.push(where.id);
        }
      }
    }
    await this.house.database.write(this.house.scope, async (tx) => {
      for (const id of landlines) {
        tx.reached.add(id);
        await tx.execute(
          "UPDATE contact_point SET line = 'landline' WHERE organization_id = :org AND id = :id",
          { id },
        );
      }
      tx.changed('nothing', 0, []);
    });
  }

  /** A few at a time: as many people at once as a busy hour has. */
  private async each(histories: readonly History[], act: (h: History) => Promise<void>): Promise<void> {
    const waiting = [...histories];
    const one = async () => {
      for (let h = waiting.shift(); h; h = waiting.shift()) await act(h);
    };
    await Promise.all(Array.from({ length: 8 }, one));
  }

  /** One act in each history. */
  async step(): Promise<void> {
    await this.each(this.histories, (h) => h.step(ACTS));
    await this.settled();
  }

  /** Requests that are due have gone out. */
  private async settled(): Promise<void> {
    const due = () =>
      this.house.database
        .unscoped()('confirmation')
        .whereIn('state', ['waiting', 'in-flight'])
        .where('due_at', '<=', new Date());
    await eventually(
      'the requests to confirm',
      () => due().count({ n: '*' }),
      ([row]) => Number((row as { n: number }).n) === 0,
    );
  }

  /** Somebody of each history with an email and a mobile. */
  private someone(): { h: History; who: Someone; mail: ModelPlace; phone: ModelPlace }[] {
    return this.histories.flatMap((h) => {
      const who = h.one(h.living);
      const [mail, phone] = [who && h.addressOf(who, 'email'), who && h.addressOf(who, 'mobile')];
      return who && mail && phone && !h.merged ? [{ h, who, mail, phone }] : [];
    });
  }

  /**
   * A file about one person of each history: a yes in words for all, or a yes or a no in a column about news.
   */
  async importAll(column = false): Promise<void> {
    const at = column ? Date.parse('2026-01-15T12:00:00Z') : this.day('2026-01-15')[0];
    const all = this.someone().map((one) => ({ ...one, yes: !column || one.h.random() < 0.5 }));
    if (all.length === 0) return;
    const email = { ...agreed('news'), from: 'column' as const };
    const rows = all.map(
      ({ who, mail, phone, yes }) =>
        `${mail.normal},${who.name},Lin,${phone.normal}${column ? `,${yes ? 'yes' : 'no'}` : ''}`,
    );
    const id = column
      ? await this.bring(
          rows,
          {
            columns: [...STEP_COLUMNS, { to: 'consent', channel: 'email' }],
            permission: { email, text: NOTHING },
          },
          ',OK',
        )
      : await this.bring(rows, { permission: { email: agreed('appeals', 'news'), text: agreed('appeals') } });
    const batch = { id };
    this.batches.push(batch);
    for (const { h, who, mail, phone, yes } of all) {
      h.log.push(`file ${id} says ${yes ? 'yes' : 'no to news'} for ${who.name} at ${mail.normal}`);
      // A no in a file about the person is said without an address.
      if (!yes)
        h.say({ at, who, where: null, channel: 'email', scope: 'news', what: 'no', own: false, batch });
      else
        for (const scope of column ? ['news'] : ['appeals', 'news'])
          h.say({ at, who, where: mail, channel: 'email', scope, what: 'yes', own: false, batch });
      if (!column)
        h.say({ at, who, where: phone, channel: 'text', scope: 'appeals', what: 'yes', own: false, batch });
    }
  }

  /** A file of addresses that left, bounced or complained somewhere else. */
  async refusals(): Promise<void> {
    const all = this.someone().filter(({ h }) => h.random() < 0.3);
    if (all.length === 0) return;
    const said = all.map((one) => ({
      ...one,
      status: one.h.one(['Unsubscribed', 'Hard bounce', 'Marked as spam'])!,
    }));
    const at = Date.now();
    const file = await bringIn(
      this.house.client,
      `Email,Status\n${said.map(({ mail, status }) => `${mail.normal},${status}`).join('\n')}\n`,
      {
        what: 'refusals',
        columns: [{ to: 'email' }, { to: 'status' }],
        permission: { email: NOTHING, text: NOTHING },
      },
    );
    if (file.state !== 'done') throw new Error(`a file of refusals ended as ${file.state}: ${file.problem}`);
    const batch = { id: file.id };
    this.batches.push(batch);
    for (const { h, mail, status } of said) {
      h.log.push(`file ${file.id} says ${status} of ${mail.normal}`);
      if (status !== 'Hard bounce')
        for (const who of h.ownersOf(mail))
          h.say({ at, who, where: mail, channel: 'email', scope: 'all', what: 'no', own: false, batch });
      if (status === 'Unsubscribed') continue;
      mail.onHold = true;
      mail.bounces.push(batch);
    }
  }

  /**
   * One of the files is taken back out: its Yes goes along, its No stays, and so do addresses that bounce for
   * another reason.
   */
  async takeOut(): Promise<void> {
    const [batch] = this.batches.splice(Math.floor(this.random() * this.batches.length), 1);
    if (!batch) return;
    await this.house.client.post(`/api/batches/${batch.id}/take-out`);
    const { problem } = await batchAt(this.house.client, batch.id, 'taken-out');
    if (problem) throw new Error(`taking out ended with ${problem}`);
    for (const h of this.histories) {
      h.log.push(`file ${batch.id} is taken back out`);
      for (const said of h.model.sayings)
        if (said.batch === batch && said.what !== 'no') said.takenBack = true;
      for (const where of h.places) {
        if (!where.bounces.includes(batch)) continue;
        where.bounces = where.bounces.filter((one) => one !== batch);
        where.onHold = where.bounces.length > 0 || where.questions.length > 0;
      }
    }
  }

  /** Days go by: every moment in the database and in the model lies so much further back. */
  async pass(days: number): Promise<void> {
    const knex = this.house.database.unscoped();
    const [columns] = (await knex.raw(
      `SELECT table_name AS t, GROUP_CONCAT(column_name) AS columns FROM information_schema.columns
        WHERE table_schema = DATABASE() AND data_type = 'datetime' AND table_name NOT LIKE 'knex%'
          AND table_name NOT LIKE '%session%'
        GROUP BY table_name`,
    )) as [{ t: string; columns: string }[]];
    for (const { t, columns: names } of columns) {
      const back = names.split(',').map((name) => `\`${name}\` = \`${name}\` - INTERVAL ${days} DAY`);
      await knex.raw(`UPDATE \`${t}\` SET ${back.join(', ')}`);
    }
    await knex.raw('UPDATE gift SET given_on = given_on - ?', [days]);
    await this.house.database.write(this.house.scope, (tx) => new FoldingRepository().rebuild(tx));
    for (const h of this.histories) {
      h.log.push(`${days} days go by`);
      for (const said of h.model.sayings) {
        said.at -= days * DAY_MS;
        if (said.until) said.until -= days * DAY_MS;
      }
      for (const one of [...h.mails, ...h.requests]) one.at -= days * DAY_MS;
      for (const who of h.people) for (const one of who.before) one.until -= days * DAY_MS;
    }
  }

  /** Beginning and end of a day in the zone of the house. */
  day(iso: string): [number, number] {
    const day = parseIsoDay(iso)!;
    return [startOfDay(day, ZONE), startOfDay((day + 1) as Day, ZONE) - 1];
  }

  async newAddress(h: History, who: Someone): Promise<ModelPlace> {
    const kind = h.random() < 0.5 ? 'email' : 'mobile';
    const others = h.places.filter((one) => one.kind === kind && !who.addresses.includes(one));
    const again = h.random() < 0.4 ? h.one(others) : undefined;
    const place =
      again ?? this.place(kind, kind === 'email' ? `h${h.n}.${h.places.length}@example.org` : this.number());
    await this.house.client.post(`/api/supporters/${who.id}/contact-points`, { kind, text: place.normal });
    const row = (await this.house.database
      .unscoped()('contact_point')
      .where({ kind, normal: place.normal })
      .first('id')) as { id: number };
    place.id = row.id;
    if (!again) h.places.push(place);
    who.addresses.push(place);
    return place;
  }

  /** An erased address: nobody knows it any more, but that it had refused. Typed again it is a new one. */
  forget(h: History, who: Someone, where: ModelPlace): void {
    const refused = h.model.sayings.some(
      (one) =>
        one.what === 'no' &&
        !one.takenBack &&
        KIND_OF[one.channel] === where.kind &&
        (one.where === where || one.who === who),
    );
    const closed = where.closed || refused || where.questions.length > 0;
    h.places.splice(h.places.indexOf(where), 1, { ...this.place(where.kind, where.normal), closed });
  }

  async mailIn(from: string, to: string, text: string): Promise<void> {
    await this.transport.sendMail({ from, to, subject: 'Re: Hello', text });
  }

  async reportSpam(leave: string): Promise<void> {
    const [of, part] = [
      `Content-Type: multipart/report; report-type=feedback-report; boundary="b"`,
      '--b\nContent-Type: ',
    ];
    const report = `From: <feedback@provider.test>\nSubject: Abuse report\nMIME-Version: 1.0\n${of}\n\n${part}text/plain\n\nA report.\n${part}message/feedback-report\n\nFeedback-Type: abuse\nVersion: 1\n\n${part}message/rfc822\n\nList-Unsubscribe: <${this.house.config.PUBLIC_URL}${leave}>\nSubject: Hello\n\nHello\n--b--\n`;
    const to = 'complaints@lists.lanternferry.test';
    await this.transport.sendMail({
      envelope: { from: 'feedback@provider.test', to },
      raw: report.replaceAll('\n', '\r\n'),
    });
  }

  private texts = 0;
  async textIn(from: string, text: string): Promise<void> {
    await this.house.client.hook({
      type: 'inbound',
      id: `acts-${this.texts++}`,
      from,
      to: '+12065550100',
      text,
    });
  }

  async newestTask(contactPointId: number): Promise<number> {
    const row = (await this.house.database
      .unscoped()('task')
      .where('contact_point_id', contactPointId)
      .orderBy('id', 'desc')
      .first('id')) as {
      id: number;
    };
    return row.id;
  }

  async isAsked(contactPointId: number): Promise<boolean> {
    const open = await this.house.database
      .unscoped()('confirmation')
      .where({ contact_point_id: contactPointId, state: 'sent' })
      .first('id');
    return open !== undefined;
  }

  async taskAt(id: number): Promise<number> {
    return (
      (await this.house.database.unscoped()('task').where({ id }).first('asked_at')) as { asked_at: Date }
    ).asked_at.getTime();
  }

  /** Everybody in every history is written to; `meanwhile` happens while the message is under way. */
  async send(
    channel: 'email' | 'text',
    scope: string,
    meanwhile?: () => Promise<void>,
  ): Promise<ModelDifference[]> {
    const everybody = this.histories.flatMap((h) => h.living.map((who) => ({ h, who })));
    const group = { from: [{ kind: 'list' as const, id: this.everybody }] };
    const words = { letter: letterOf('The ferry leaves the landing at noon'), subject: 'Hello' };
    const about = scope.startsWith('list:') ? { listId: this.listId } : { purpose: scope };
    const id =
      channel === 'email'
        ? await draftEmail(this.house.client, group, { ...words, ...about })
        : await draftText(this.house.client, group);
    const planned = this.expected(everybody, channel, scope);
    const { reached } = await lastLook(this.house.client, id);
    if (reached === 0)
      return planned.size === 0 ? [] : this.missing(everybody, planned, new Map(), `${channel} ${scope}`);
    await this.house.client.post(`/api/messages/${id}/test`);
    const { digest } = await lastLook(this.house.client, id);
    this.house.sink.options.answer = meanwhile ? () => 451 : undefined;
    this.house.gateway.status = meanwhile ? 503 : null;
    await this.house.client.post(`/api/messages/${id}/send`, { at: null, digest });
    if (meanwhile) {
      await this.underWay(id);
      await meanwhile();
      this.house.sink.options.answer = undefined;
      this.house.gateway.status = null;
      await this.house.database
        .unscoped()('delivery')
        .where({ message_id: id, state: 'ready' })
        .update({ not_before: null });
    }
    await messageAt(this.house.client, id, 'done');
    const wanted = meanwhile ? this.stillAllowed(everybody, planned, channel, scope) : planned;
    const sent = (await this.house.database
      .unscoped()('delivery')
      .where('message_id', id)
      .whereIn('state', ['sent', 'delivered'])) as {
      supporter_id: number;
      contact_point_id: number;
    }[];
    this.sends += sent.length;
    if (channel === 'email') await this.collect(everybody, scope);
    return this.missing(
      everybody,
      wanted,
      new Map(sent.map((one) => [one.supporter_id, one.contact_point_id])),
      `${channel} ${scope}`,
    );
  }

  /** Prepared, and tried in vain: a server that can't be reached is not asked for the next ones. */
  private async underWay(id: number): Promise<void> {
    const tried = () =>
      this.house.database.unscoped()('delivery').where({ message_id: id }).whereNotNull('detail');
    await messageAt(this.house.client, id, 'sending');
    await eventually(
      'the first tries',
      () => tried().count({ n: '*' }),
      ([row]) => Number((row as { n: number }).n) > 0,
    );
  }

  /** Who gets it, at which address: one copy to an address, to whoever has the lowest number. */
  private expected(
    everybody: readonly { h: History; who: Someone }[],
    channel: ModelChannel,
    scope: string,
  ): Map<number, number> {
    const [out, taken] = [new Map<number, number>(), new Set<number>()];
    for (const { h, who } of [...everybody].sort((a, b) => a.who.id - b.who.id)) {
      const { to } = h.model.person(who, channel, scope, Date.now());
      if (!to || taken.has(to.id)) continue;
      taken.add(to.id);
      out.set(who.id, to.id);
    }
    return out;
  }

  private stillAllowed(
    everybody: readonly { h: History; who: Someone }[],
    planned: Map<number, number>,
    channel: ModelChannel,
    scope: string,
  ): Map<number, number> {
    const out = new Map<number, number>();
    for (const { h, who } of everybody) {
      const to = planned.get(who.id);
      const where = [...h.places, ...who.addresses].find((one) => one.id === to);
      const now = who.into ?? who;
      if (to && where && !who.erased && h.model.at(now, where, channel, scope, Date.now()) === 'send')
        out.set(now.id, to);
    }
    return out;
  }

  private missing(
    everybody: readonly { h: History; who: Someone }[],
    wanted: Map<number, number>,
    got: Map<number, number>,
    asked: string,
  ): ModelDifference[] {
    return everybody.flatMap(({ h, who }) => {
      const [model, program] = [wanted.get(who.id), got.get(who.id)];
      if (model === program) return [];
      const name = (id: number | undefined) =>
        id === undefined ? 'nothing' : (h.places.find((one) => one.id === id)?.normal ?? `point ${id}`);
      return [
        {
          history: h.n,
          who: who.name,
          at: 'a message',
          asked,
          model: name(model),
          program: name(program),
          log: h.log,
        },
      ];
    });
  }

  /** Links in the mails that arrived. */
  private async collect(everybody: readonly { h: History; who: Someone }[], scope: string): Promise<void> {
    const at = new Map(
      everybody.flatMap((one) =>
        one.who.addresses.map((where) => [where.normal, { ...one, where }] as const),
      ),
    );
    const fresh = this.house.sink.mails.slice(this.mailsSeen);
    this.mailsSeen = this.house.sink.mails.length;
    const rows = (await this.house.database
      .unscoped()('delivery')
      .select('provider_key', 'supporter_id')) as {
      provider_key: string;
      supporter_id: number;
    }[];
    const whose = new Map(rows.map((row) => [row.provider_key, row.supporter_id]));
    for (const raw of fresh) {
      const known = at.get(raw.to);
      const id = whose.get(/<([^@>]+)@/.exec(raw.messageId)?.[1] ?? '');
      const who = known?.h.people.find((one) => one.id === id);
      if (!known || !who) continue;
      const mail = await simpleParser(raw.raw);
      const leave = /\/leave\/[a-z0-9]+/.exec(`${mail.text ?? ''} ${mail.html || ''}`)?.[0];
      if (leave)
        known.h.mails.push({
          who,
          where: known.where,
          scope,
          leave,
          replyTo: mail.replyTo?.value[0]?.address ?? '',
          at: Date.now(),
        });
    }
  }

  /** The model and the program on every person, address, channel and scope: what is asked at the door. */
  async compare(): Promise<{ compared: number; differences: ModelDifference[] }> {
    const { database, scope, app } = this.house;
    const facts = app.get(FactsRepository);
    const rules = await new HouseRulesRepository().rules(database.read(scope));
    const differences: ModelDifference[] = [];
    let compared = 0;
    for (const channel of ['email', 'text', 'call', 'post'] as const) {
      const asked = this.histories.flatMap((h) =>
        h.living.flatMap((who) =>
          who.addresses.filter((one) => one.kind === KIND_OF[channel]).map((where) => ({ h, who, where })),
        ),
      );
      for (const about of [...SCOPES, this.list, 'volunteering']) {
        const now = new Date();
        const pairs = asked.map(({ who, where }) => ({ supporterId: who.id, contactPointId: where.id }));
        const said = await facts.decideAt(database.read(scope), pairs, {
          channel,
          scope: about as never,
          rules,
          now,
        });
        asked.forEach(({ h, who, where }, i) => {
          compared++;
          const model: ModelAnswer = h.model.at(who, where, channel, about, now.getTime());
          const program = said[i]!.decision.verdict;
          if (model !== program)
            differences.push({
              history: h.n,
              who: who.name,
              at: where.normal,
              asked: `${channel} ${about}`,
              model,
              program,
              log: h.log,
            });
        });
      }
    }
    return { compared, differences };
  }

  get mailsAndTexts(): number {
    return this.sends;
  }

  close(): void {
    this.transport.close();
  }
}
