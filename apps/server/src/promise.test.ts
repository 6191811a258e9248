import { createTransport } from 'nodemailer';
import type { RecordView } from '@goodword/core/contract';
import type { IntakePlan } from '@goodword/core/intake';
import { startingRules } from '@goodword/core/permission';
import { MailInService } from './inbound/mail-in.service';
import { HoldsRepository } from './permission/holds.repository';
import { HouseRulesRepository } from './permission/house-rules.repository';
import { FoldingRepository } from './permission/ledger/folding.repository';
import { addressHash } from './platform/tokens';
import { houseDay, openTestHouse, pause, rulesOfTests, eventually, type TestHouse } from './testing/harness';
import { agreed, bringIn, draftEmail, lastLook, messageAt, moveTo, NOTHING, send } from './testing/steps';
import { mailTo, openFormAs, personBy, openedStatuses, Visitor } from './testing/supporter';

/*
 * Ways in which the promise was once broken, each over real mail, texts and pages: somebody said no, was told
 * so, and got the next message all the same.
 */
let house: TestHouse;
let visitor: Visitor;
let lists = 0;
beforeAll(async () => {
  house = await openTestHouse();
  house.app.get(MailInService).listen(house.config.INBOUND_SMTP_PORT, '127.0.0.1');
  house.startWorker();
  visitor = new Visitor(house.config.PUBLIC_URL);
});
afterAll(() => house.close());

interface Somebody {
  id: number;
  email: string;
  record(): Promise<RecordView>;
}

const BOTH: Partial<IntakePlan> = { permission: { email: agreed('marketing'), text: agreed('marketing') } };

async function somebody(name: string, mobile = '', plan: Partial<IntakePlan> = BOTH): Promise<Somebody> {
  const email = `${name}@example.org`;
  await bringIn(house.client, `Email,First,Last,Mobile\n${email},${name},Lin,${mobile}\n`, plan);
  const { id } = await personBy(house.client, email);
  return { id, email, record: () => house.client.get<RecordView>(`/api/supporters/${id}`) };
}

/** A group of these people alone. */
async function groupOf(...people: Somebody[]) {
  const list = await house.client.post<{ id: number }>('/api/lists', { name: `Group ${++lists}` });
  for (const { id } of people) await house.client.put(`/api/supporters/${id}/lists/${list.id}`);
  return { from: [{ kind: 'list' as const, id: list.id }] };
}

/** Where an email would go now: the addresses, or the reason why it would not. */
async function reach(one: Somebody, purpose = 'appeals'): Promise<string> {
  const { verdict, to } = await house.client.get<{ verdict: string; to: string | null }>(
    `/api/supporters/${one.id}/may-write?channel=email&purpose=${purpose}`,
  );
  return verdict === 'send' ? to! : verdict;
}

async function mailed(
  one: Somebody,
  purpose = 'appeals',
): Promise<{ leave: string; choices: string; replyTo: string; unsubscribe: string }> {
  const before = house.sink.mails.filter((mail) => mail.to === one.email).length;
  const id = await draftEmail(house.client, await groupOf(one), { purpose });
  await send(house.client, id);
  await messageAt(house.client, id, 'done');
  const mail = await mailTo(house, one.email, '/leave', before + 1);
  const unsubscribe = (
    mail.headers.get('list') as { unsubscribe?: { mail?: string } } | undefined
  )?.unsubscribe?.mail?.split('?')[0];
  return {
    leave: mail.link,
    choices: mail.link.replace('/leave/', '/choices/'),
    replyTo: mail.replyTo,
    unsubscribe: unsubscribe ?? '',
  };
}

const noes = (record: RecordView) =>
  record.entries
    .filter((entry) => entry.state === 'no' && !entry.takenBack)
    .map(({ scope, how }) => `${scope} ${how}`);
const hand = (one: Somebody, entry: object) =>
  house.client.call<{ detail: string }>('POST', `/api/supporters/${one.id}/permission`, entry);
const texted = (from: string, text: string) =>
  house.client.hook({ type: 'inbound', id: `t-${Math.random()}`, from, to: '+12065550100', text });
const addEmail = async (one: Somebody, text: string) => {
  await house.client.post(`/api/supporters/${one.id}/contact-points`, { kind: 'email', text });
};

describe('a no is always written down', () => {
  test('1. left everything, came back for appeals, left everything again', async () => {
    const ann = await somebody('ann');
    const first = await mailed(ann);
    await visitor.post(first.leave, { what: 'all' });
    await visitor.post(first.choices, [
      ['wasSaid', '1'],
      ['shown', 'email.appeals'],
      ['on', 'email.appeals'],
      ['act', 'choose'],
    ]);
    expect(await reach(ann)).toBe(ann.email);
    const second = await mailed(ann);
    expect((await visitor.post(second.leave, { what: 'all' })).html).toContain(
      'will send you nothing more by email',
    );
    expect([await reach(ann), noes(await ann.record())]).toEqual([
      'said-no',
      ['all one-click', 'all one-click'],
    ]);
  });

  test('2. one click, a yes by hand for everything else, one click again; the same by mail', async () => {
    const bo = await somebody('bo');
    const first = await mailed(bo);
    await visitor.post(first.leave, { 'List-Unsubscribe': 'One-Click' });
    // As it was written down yesterday, so that a day lies between.
    await house.database
      .unscoped()('permission_entry')
      .where({ supporter_id: bo.id, state: 'no' })
      .update({ said_at: new Date(Date.now() - 3 * 86_400_000) });
    await house.database.write(house.scope, async (tx) => {
      await new FoldingRepository().rebuild(tx);
    });
    const point = (await bo.record()).contactPoints[0]!.id;
    await hand(bo, {
      contactPointId: point,
      channel: 'email',
      scope: 'marketing',
      state: 'yes',
      how: 'paper',
      on: houseDay(-1),
      words: 'Signed again at the landing',
    });
    expect(await reach(bo)).toBe(bo.email);
    const second = await mailed(bo);
    await visitor.post(second.leave, { 'List-Unsubscribe': 'One-Click' });
    expect(await reach(bo)).toBe('said-no');
    expect(noes(await bo.record())).toEqual(['appeals one-click', 'appeals one-click']);
    // By mail to the address in List-Unsubscribe, though it stands at no already.
    const transport = createTransport({ host: '127.0.0.1', port: house.config.INBOUND_SMTP_PORT });
    await transport.sendMail({ from: bo.email, to: second.unsubscribe, subject: 'unsubscribe', text: '' });
    transport.close();
    await eventually('the entry', bo.record, (record) => noes(record).length === 3);
  });

  test('a box that was ticked when the page was shown and is unticked is a no, whatever changed meanwhile', async () => {
    const cy = await somebody('cy');
    const { choices } = await mailed(cy);
    const posted: [string, string][] = [
      ['wasSaid', '1'],
      ['shown', 'email.news'],
      ['was', 'email.news'],
      ['act', 'choose'],
    ];
    await visitor.post(choices, posted);
    await visitor.post(choices, posted);
    expect(noes(await cy.record())).toEqual(['news preferences', 'news preferences']);
  });
});

describe('a no holds at every address of the person', () => {
  test.each([
    ['one click', async (one: Somebody) => void (await visitor.post((await mailed(one)).leave, {}))],
    [
      'everything',
      async (one: Somebody) => void (await visitor.post((await mailed(one)).leave, { what: 'all' })),
    ],
    [
      'an objection',
      (one: Somebody) =>
        house.client.post(`/api/supporters/${one.id}/objection`, {
          how: 'phone',
          on: houseDay(),
          words: 'No more, thanks',
        }),
    ],
  ])(
    '3. %s closes a second address, one that comes later with a gift, and one that a file agrees for',
    async (name, act) => {
      const one = await somebody(`dee.${name.replace(/\W/g, '')}`);
      await addEmail(one, `second.${one.email}`);
      await moveTo(house.client, one.id, 'FR');
      await act(one);
      expect(await reach(one)).toBe('said-no');
      await bringIn(house.client, `Email,First,Last,Mobile\n${one.email},Dee,Lin,\n`, {
        permission: { email: agreed('all'), text: NOTHING },
      });
      await addEmail(one, `third.${one.email}`);
      await house.client.post(`/api/supporters/${one.id}/gifts`, { amount: 5000, on: houseDay(), note: '' });
      expect(await reach(one)).toBe('said-no');
    },
  );

  test('3. and a merge opens nothing, whichever record is kept', async () => {
    for (const keep of ['left', 'other'] as const) {
      const left = await somebody(`eve.${keep}`);
      const other = await somebody(`eve2.${keep}`);
      await visitor.post((await mailed(left)).leave, {});
      const kept = keep === 'left' ? left : other;
      const gone = keep === 'left' ? other : left;
      await house.client.post(`/api/supporters/${kept.id}/merging`, { goneId: gone.id, keep: {} });
      expect([keep, await reach(kept)]).toEqual([keep, 'said-no']);
    }
  });

  test('4. an address that they corrected takes the no along, and a gift opens nothing', async () => {
    const flo = await somebody('flo');
    const { leave } = await mailed(flo);
    await visitor.post(leave, {});
    await house.client.post(`/api/supporters/${flo.id}/choices-link`);
    const fresh = await mailTo(house, flo.email, '/choices', 2);
    await visitor.post(fresh.link, {
      firstName: 'Flo',
      lastName: 'Lin',
      email: 'flo.new@example.org',
      mobile: '',
      act: 'yours',
    });
    await visitor.post((await mailTo(house, 'flo.new@example.org', '/confirm')).link, {});
    await house.client.post(`/api/supporters/${flo.id}/gifts`, { amount: 5000, on: houseDay(), note: '' });
    expect([await reach(flo), await reach(flo, 'news')]).toEqual(['said-no', 'flo.new@example.org']);
    // The link of the old mail acts for the new address.
    await visitor.post(leave, { what: 'all' });
    expect(await reach(flo, 'news')).toBe('said-no');
  });

  test('5. a no to calls at one number: the number that may be called is the one that is shown', async () => {
    const gus = await somebody('gus', '206 555 0161');
    await house.client.post(`/api/supporters/${gus.id}/contact-points`, {
      kind: 'mobile',
      text: '206 555 0162',
    });
    const points = (await gus.record()).contactPoints.filter(({ kind }) => kind === 'mobile');
    await hand(gus, {
      contactPointId: points[0]!.id,
      channel: 'call',
      scope: 'marketing',
      state: 'no',
      how: 'phone',
      on: houseDay(-5),
      words: 'No calls please',
    });
    await hand(gus, {
      contactPointId: points[1]!.id,
      channel: 'call',
      scope: 'appeals',
      state: 'yes',
      how: 'paper',
      on: houseDay(-2),
      words: 'Call me at the second number',
    });
    const { id } = await house.client.post<{ id: number }>('/api/calls', {
      name: 'Calls',
      group: { ids: [gus.id] },
      campaignId: null,
      script: '',
      purpose: 'appeals',
    });
    const { rows } = await house.client.get<{ rows: { phone: string; suppressed: string | null }[] }>(
      `/api/calls/${id}/people?after=0&limit=10&who=all`,
    );
    expect(rows.map(({ phone, suppressed }) => [phone, suppressed])).toEqual([['+1 206 555 0162', null]]);
  });

  test('a STOP from a shared number closes each of those whose it is', async () => {
    const [hal, ida] = [await somebody('hal', '206 555 0163'), await somebody('ida', '206 555 0163')];
    await texted('+12065550163', 'STOP');
    for (const one of [hal, ida]) {
      await house.client.post(`/api/supporters/${one.id}/contact-points`, {
        kind: 'mobile',
        text: `206 555 01${one === hal ? 64 : 65}`,
      });
      expect(openedStatuses(await one.record())).toContain('text marketing no');
    }
  });
});

describe('holds, texts and links', () => {
  test('6. "Please stop texting me" holds until somebody decides; releasing is refused, START answers it', async () => {
    const jo = await somebody('jo', '206 555 0166');
    await texted('+12065550166', 'Please stop texting me');
    const point = (await jo.record()).contactPoints.find(({ kind }) => kind === 'mobile')!;
    expect(point.onHold).toBe(true);
    const release = await house.client.call<{ detail: string }>(
      'POST',
      `/api/supporters/${jo.id}/contact-points/${point.id}/release`,
    );
    expect([release.status, release.body.detail]).toEqual([409, expect.stringContaining('still open')]);
    await texted('+12065550166', 'START');
    const after = (await jo.record()).contactPoints.find(({ kind }) => kind === 'mobile')!;
    const { stops } = await house.client.get<{ stops: { supporterId: number }[] }>('/api/today');
    expect([after.onHold, stops.filter(({ supporterId }) => supporterId === jo.id)]).toEqual([false, []]);
  });

  test('an answer releases what was asked, and leaves a hold for what bounced', async () => {
    const jan = await somebody('jan', '206 555 0172');
    const mobile = async () => (await jan.record()).contactPoints.find(({ kind }) => kind === 'mobile')!;
    await texted('+12065550172', 'Please stop texting me');
    const { id } = await mobile();
    await house.database.write(house.scope, async (tx) => {
      tx.unchanged();
      await house.app.get(HoldsRepository).putOnHold(tx, id, 'The network could not deliver');
    });
    const { stops } = await house.client.get<{ stops: { taskId: number; supporterId: number }[] }>(
      '/api/today',
    );
    const { taskId } = stops.find(({ supporterId }) => supporterId === jan.id)!;
    await house.client.post(`/api/tasks/${taskId}/settle`, { outcome: 'not-meant' });
    expect(await mobile()).toMatchObject({ onHold: true, holdReason: 'The network could not deliver' });
    await house.client.post(`/api/supporters/${jan.id}/contact-points/${id}/release`);
    expect(await mobile()).toMatchObject({ onHold: false, holdReason: null });
  });

  test('7. a link in a mail ticks texts: the phone is asked, and an old link opens nothing', async () => {
    const kim = await somebody('kim', '206 555 0167', {
      permission: { email: agreed('marketing'), text: NOTHING },
    });
    const { choices } = await mailed(kim);
    const tick: [string, string][] = [
      ['wasSaid', '1'],
      ['shown', 'text.news'],
      ['on', 'text.news'],
      ['act', 'choose'],
    ];
    expect((await visitor.post(choices, tick)).html).toContain('once you answer YES to the text');
    expect(openedStatuses(await kim.record())).toContain('text news asked');
    await eventually(
      'the question',
      () => house.gateway.texts,
      (all) => all.some(({ to, text }) => to === '+12065550167' && text.includes('reply YES')),
    );
    await texted('+12065550167', 'Yes');
    expect(openedStatuses(await kim.record())).toContain('text news yes');
    await house.database
      .unscoped()('delivery')
      .where({ supporter_id: kim.id })
      .update({ sent_at: new Date(Date.now() - 40 * 86_400_000) });
    await visitor.post(choices, [
      ['wasSaid', '1'],
      ['shown', 'email.volunteering'],
      ['on', 'email.volunteering'],
      ['shown', 'email.appeals'],
      ['was', 'email.appeals'],
      ['act', 'choose'],
    ]);
    const stands = openedStatuses(await kim.record());
    expect([stands.includes('email appeals no'), stands.includes('email volunteering yes')]).toEqual([
      true,
      false,
    ]);
  });

  test('8. objected by telephone: the way back of an old leave page undoes just that leaving', async () => {
    const lee = await somebody('lee');
    const { leave } = await mailed(lee);
    await visitor.post(leave, {});
    await house.client.post(`/api/supporters/${lee.id}/objection`, {
      how: 'phone',
      on: houseDay(),
      words: 'I object to all of it',
    });
    await visitor.post(leave, { what: 'back' });
    expect(await reach(lee)).toBe('said-no');
    const mo = await somebody('mo');
    const out = await mailed(mo);
    await visitor.post(out.leave, {});
    await visitor.post(out.leave, { what: 'back' });
    expect([await reach(mo), (await mo.record()).consent.some(({ state }) => state === 'no')]).toEqual([
      mo.email,
      false,
    ]);
    // Pressed without having left there, it does nothing.
    await visitor.post(out.choices, { act: 'nothing' });
    await visitor.post(out.leave, { what: 'back' });
    expect(await reach(mo)).toBe('said-no');
  });

  test('9. left appeals, STOP, START: appeals stay left, and the file stays a file', async () => {
    const ned = await somebody('ned', '206 555 0168');
    const { choices } = await mailed(ned);
    await visitor.post(choices, [
      ['wasSaid', '1'],
      ['shown', 'text.appeals'],
      ['was', 'text.appeals'],
      ['act', 'choose'],
    ]);
    await texted('+12065550168', 'STOP');
    expect(openedStatuses(await ned.record())).toContain('text marketing no');
    await texted('+12065550168', 'START');
    const stands = openedStatuses(await ned.record());
    expect(stands).toEqual(expect.arrayContaining(['text appeals no', 'text marketing yes']));
    expect(
      (await ned.record()).entries.filter(({ state, how }) => state === 'yes' && how === 'keyword'),
    ).toEqual([]);
  });
});

describe('10. whoever types somebody else’s address', () => {
  beforeAll(async () => {
    // As every house starts.
    const starting = startingRules('US');
    const rules = {
      ...starting,
      places: Object.fromEntries(
        Object.entries(starting.places).map(([key, place]) => [
          key,
          { ...place, hours: { call: null, text: null } },
        ]),
      ),
    };
    await house.database.write(
      house.scope,
      (tx) => (
        tx.changed('reach', 0, 'everybody'),
        new HouseRulesRepository().keep(tx, { rules, words: 'As it starts', effects: [] })
      ),
    );
  });
  afterAll(() =>
    house.database.write(
      house.scope,
      (tx) => (
        tx.changed('reach', 0, 'everybody'),
        new HouseRulesRepository().keep(tx, { rules: rulesOfTests(), words: 'For tests', effects: [] })
      ),
    ),
  );

  test('opens nothing and changes nothing of whoever is known: in the United States, Canada, the United Kingdom', async () => {
    const form = await openFormAs(house.client, 'Strangers');
    for (const country of ['US', 'CA', 'GB']) {
      const pat = await somebody(`pat.${country.toLowerCase()}`, '', {
        permission: { email: NOTHING, text: NOTHING },
      });
      await moveTo(house.client, pat.id, country);
      await visitor.post(`/join/${form.slug}`, {
        firstName: `Pat.${country}`,
        email: pat.email,
        mobile: '206 555 0169',
        agree_0: '1',
      });
      const record = await pat.record();
      expect(openedStatuses(record)).toEqual([`email list:${form.listId} asked`]);
      expect([record.lastName, record.contactPoints.length, record.lists.length]).toEqual(['Lin', 1, 0]);
    }
    const unknown = await somebody('quy', '', { permission: { email: NOTHING, text: NOTHING } });
    await visitor.post(`/join/${form.slug}`, {
      firstName: 'quy',
      email: unknown.email,
      mobile: '+44 20 7946 0018',
      agree_0: '1',
    });
    expect((await unknown.record()).place.country).toBeNull();
  });

  test('gets two requests in all to a mailbox, however it is spelled and over whatever forms; none after "never again"', async () => {
    const [one, two] = [
      await openFormAs(house.client, 'Form one'),
      await openFormAs(house.client, 'Form two'),
    ];
    const mails = () =>
      house.sink.mails.filter(
        ({ to, raw }) => /^rae(\+\d)?@example\.org$/.test(to) && raw.includes('/confirm/'),
      );
    for (const [form, email] of [
      [one, 'rae@example.org'],
      [two, 'rae@example.org'],
      [one, 'rae+1@example.org'],
      [two, 'rae+2@example.org'],
    ] as const)
      await visitor.post(`/join/${form.slug}`, { firstName: 'Rae', email, agree_0: '1' });
    await eventually(
      'the requests to be settled',
      () =>
        house.database
          .unscoped()('confirmation')
          .where('mailbox', 'rae@example.org')
          .whereIn('state', ['waiting', 'in-flight']),
      (rows) => (rows as object[]).length === 0,
    );
    expect(mails()).toHaveLength(2);
    expect(mails()[0]!.raw).toMatch(/^List-Unsubscribe:/m);

    await visitor.post(`/join/${one.slug}`, { firstName: 'Sol', email: 'sol@example.org', agree_0: '1' });
    const { link } = await mailTo(house, 'sol@example.org', '/never-ask');
    // The mail may be read before the gateway's answer is: the link acts on a request still under way.
    await house.database
      .unscoped()('confirmation')
      .where({ mailbox: 'sol@example.org' })
      .update({ state: 'in-flight', due_at: null });
    expect((await visitor.open(link)).html).toContain('Never ask me again');
    expect((await visitor.post(link, { 'List-Unsubscribe': 'One-Click' })).status).toBe(200);
    await visitor.post(`/join/${two.slug}`, { firstName: 'Sol', email: 'sol@example.org', agree_0: '1' });
    await eventually(
      'it to be dropped',
      () => house.database.unscoped()('confirmation').where({ mailbox: 'sol@example.org', state: 'dropped' }),
      (rows) => (rows as object[]).length === 2,
    );
    expect(house.sink.mails.filter(({ to }) => to === 'sol@example.org')).toHaveLength(1);
  });

  test('after a no one request, without a reminder, and an older one is dead', async () => {
    const form = await openFormAs(house.client, 'Before and after');
    const tam = await somebody('tam', '', { permission: { email: NOTHING, text: NOTHING } });
    const join = () =>
      visitor.post(`/join/${form.slug}`, { firstName: 'tam', email: tam.email, agree_0: '1' });
    await join();
    const older = await mailTo(house, tam.email, '/confirm');
    await house.client.post(`/api/supporters/${tam.id}/objection`, {
      how: 'phone',
      on: houseDay(),
      words: 'I object',
    });
    expect((await visitor.post(older.link, {})).status).toBe(410);
    expect(openedStatuses(await tam.record())).toContain(`email list:${form.listId} no`);
    // The one that was asked before counts: not within thirty days.
    await join();
    const waiting = () =>
      house.database
        .unscoped()('confirmation')
        .where({ supporter_id: tam.id })
        .whereIn('state', ['waiting', 'in-flight']) as Promise<object[]>;
    await eventually('it to be settled', waiting, (rows) => rows.length === 0);
    expect(house.sink.mails.filter(({ to }) => to === tam.email)).toHaveLength(1);
    await house.database
      .unscoped()('confirmation_sent')
      .where('mailbox', tam.email)
      .update({ at: new Date(Date.now() - 31 * 86_400_000) });
    await join();
    await mailTo(house, tam.email, '/confirm', 2);
    const newest = () =>
      house.database
        .unscoped()('confirmation')
        .where({ supporter_id: tam.id })
        .orderBy('id', 'desc')
        .first('state', 'due_at') as Promise<{
        state: string;
        due_at: Date | null;
      }>;
    expect((await eventually('it to be sent', newest, ({ state }) => state === 'sent')).due_at).toBeNull();
  });
});

describe('what else opened a door', () => {
  test('12. erasing reaches addresses taken off before and what was written of them', async () => {
    const uma = await somebody('uma');
    await addEmail(uma, 'uma.before@example.org');
    const before = (await uma.record()).contactPoints.find(
      ({ shown }) => shown === 'uma.before@example.org',
    )!;
    await hand(uma, {
      contactPointId: before.id,
      channel: 'email',
      scope: 'news',
      state: 'yes',
      how: 'paper',
      on: houseDay(-1),
      words: 'Signed at the landing',
    });
    await house.client.call('DELETE', `/api/supporters/${uma.id}/contact-points/${before.id}`);
    const other = await somebody('vi');
    await house.client.post(`/api/supporters/${uma.id}/messages`, {
      channel: 'email',
      purpose: 'appeals',
      subject: 'Uma',
      letter: { type: 'doc', content: [{ type: 'paragraph', content: [{ type: 'text', text: 'Hello' }] }] },
      text: '',
    });
    await house.client.call('DELETE', `/api/supporters/${uma.id}`);
    const kept = await house.database.unscoped()('contact_point').where('shown', 'like', '%uma%');
    const audit = await house.database.unscoped()('audit').where('words', 'like', '%uma Lin%');
    expect([kept, audit, (await other.record()).contactPoints.length]).toEqual([[], [], 1]);
  });

  test.each(['file', 'gift', 'feed', 'complaint', 'hand'])(
    '13. a yes by hand with how = %s lifts no no',
    async (how) => {
      const wes = await somebody(`wes.${how}`);
      const point = (await wes.record()).contactPoints[0]!.id;
      await hand(wes, {
        contactPointId: point,
        channel: 'email',
        scope: 'all',
        state: 'no',
        how: 'phone',
        on: houseDay(-9),
        words: 'Leave me be',
      });
      await hand(wes, {
        contactPointId: point,
        channel: 'email',
        scope: 'all',
        state: 'yes',
        how,
        on: houseDay(-1),
        words: 'They are happy to hear from us',
      });
      expect(await reach(wes)).toBe('said-no');
      await hand(wes, {
        contactPointId: point,
        channel: 'email',
        scope: 'appeals',
        state: 'yes',
        how: 'paper',
        on: houseDay(-9),
        words: 'Signed on the same day',
      });
      expect(await reach(wes)).toBe('said-no');
      await hand(wes, {
        contactPointId: point,
        channel: 'email',
        scope: 'appeals',
        state: 'yes',
        how: 'paper',
        on: houseDay(-8),
        words: 'Signed on the day after',
      });
      expect(await reach(wes)).toBe(wes.email);
    },
  );

  test('14. a changed country opens no gift: it needs the rule of both places', async () => {
    const xan = await somebody('xan', '', { permission: { email: NOTHING, text: NOTHING } });
    await moveTo(house.client, xan.id, 'GB');
    await house.client.post(`/api/supporters/${xan.id}/gifts`, { amount: 5000, on: houseDay(-1), note: '' });
    expect(await reach(xan)).toBe('no-permission');
    await moveTo(house.client, xan.id, 'US');
    expect(await reach(xan)).toBe('no-permission');
    const yan = await somebody('yan', '', { permission: { email: NOTHING, text: NOTHING } });
    await moveTo(house.client, yan.id, 'US');
    await house.client.post(`/api/supporters/${yan.id}/gifts`, { amount: 5000, on: houseDay(-1), note: '' });
    expect(await reach(yan)).toBe(yan.email);
  });

  test('15. a domain on do-not-contact closes what lies under it, on file and to come', async () => {
    await bringIn(house.client, 'Email,First,Last,Mobile\nzed@post.shut.example.net,Zed,Lin,\n', BOTH);
    await house.client.post('/api/do-not-contact', { lines: '@shut.example.net', note: '' });
    await bringIn(
      house.client,
      'Email,First,Last,Mobile\nzoe@a.b.shut.example.net,Zoe,Lin,\nzac@unshut.example.net,Zac,Lin,\n',
      BOTH,
    );
    const of = async (search: string) => reach({ id: (await personBy(house.client, search)).id } as Somebody);
    expect([await of('zed@'), await of('zoe@'), await of('zac@')]).toEqual([
      'do-not-contact',
      'do-not-contact',
      'zac@unshut.example.net',
    ]);
    const row = await house.database
      .unscoped()('do_not_contact')
      .where('key_hash', addressHash(house.config.SECRET, 'domain', 'shut.example.net'))
      .first('id');
    await house.client.call('DELETE', `/api/do-not-contact/${(row as { id: number }).id}`);
    expect(await of('zoe@')).toBe('zoe@a.b.shut.example.net');
  });

  test('16. the forecast of a batch is what it writes; who agreed to more is not asked again', async () => {
    const today = houseDay();
    const abe = await somebody('abe');
    const plan: Partial<IntakePlan> = {
      confirm: { subject: 'Was it you?', body: 'Please confirm.' },
      permission: { email: { ...agreed('news'), on: today } as never, text: NOTHING },
    };
    const batch = await bringIn(
      house.client,
      `Email,First,Last,Mobile\n${abe.email},abe,Lin,\nbess@example.org,Bess,Lin,\n`,
      plan,
    );
    const written = async (search: string) =>
      (await personBy(house.client, search)).entries
        .filter(({ scope }) => scope === 'news')
        .map(({ state }) => state);
    expect(batch.will!.entries.email).toEqual({ yes: 1, no: 0, asked: 1 });
    expect([await written('abe@example.org'), await written('bess@')]).toEqual([['yes'], ['asked']]);
  });

  test('what is answered to opens nothing: the token of Reply-To is no way in', async () => {
    const cal = await somebody('cal.reply');
    const { replyTo } = await mailed(cal);
    const token = /^answer-([a-z2-7]+)@/.exec(replyTo)![1]!;
    for (const path of ['leave', 'choices', 'confirm', 'never-ask'])
      expect([path, (await visitor.open(`/${path}/${token}`)).status]).toEqual([path, 404]);
    await pause(1);
    expect((await lastLook(house.client, await draftEmail(house.client, await groupOf(cal)))).reached).toBe(
      1,
    );
  });
});
