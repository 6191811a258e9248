import type { FormView, RecordView, SupporterRow } from '@goodword/core/contract';
import type { FormItem } from '@goodword/core/forms';
import { PRESETS, startingRules } from '@goodword/core/permission';
import { houseDay, openTestHouse, rulesOfTests, eventually, type TestHouse } from './testing/harness';
import { bringIn, draftEmail, lastLook } from './testing/steps';
import { mailTo, openFormAs, personBy, openedStatuses, textAsk, Visitor } from './testing/supporter';

let house: TestHouse;
let visitor: Visitor;
beforeAll(async () => {
  house = await openTestHouse();
  house.startWorker();
  visitor = new Visitor(house.config.PUBLIC_URL);
});
afterAll(() => house.close());

const confirming = (form: FormView['definition']): FormView['definition'] => ({
  ...form,
  confirm: { ...form.confirm, email: 'always' },
});

describe('joining by a form', () => {
  test('asks to confirm, sends nothing else until then, and keeps the words as evidence', async () => {
    const form = await openFormAs(house.client, 'River letters', confirming);
    const page = await visitor.open(`/join/${form.slug}`);
    expect([
      page.status,
      page.html.includes('<h1>River letters</h1>'),
      /checked/.test(page.html.split('<form')[1]!),
    ]).toEqual([200, true, false]);

    const sent = await visitor.post(`/join/${form.slug}`, {
      firstName: 'Nell',
      lastName: 'Quay',
      email: 'Nell.Quay@example.org',
      agree_0: '1',
    });
    expect([sent.status, sent.html.includes('Thank you')]).toEqual([200, true]);
    const asked = await personBy(house.client, 'nell.quay@example.org');
    expect(openedStatuses(asked)).toEqual([`email list:${form.listId} asked`]);
    expect(asked.lists.map((list) => list.id)).toEqual([form.listId]);

    const message = await draftEmail(
      house.client,
      { from: [{ kind: 'list', id: form.listId }] },
      { listId: form.listId },
    );
    expect(await lastLook(house.client, message)).toMatchObject({
      reached: 0,
      suppressed: [{ reason: 'asked', people: 1 }],
    });

    const mail = await mailTo(house, 'nell.quay@example.org', '/confirm');
    expect(mail.text).toContain(form.definition.asks[0]!.words);
    const look = await visitor.open(mail.link);
    expect([look.status, look.html.includes('Yes, that was me')]).toEqual([200, true]);
    expect(openedStatuses(await personBy(house.client, 'nell.quay'))).toEqual([
      `email list:${form.listId} asked`,
    ]);

    expect((await visitor.post(mail.link, {})).html).toContain('You have confirmed');
    expect((await visitor.post(mail.link, {})).status).toBe(200);
    const confirmed = await personBy(house.client, 'nell.quay');
    expect(openedStatuses(confirmed)).toEqual([`email list:${form.listId} yes`]);
    expect(confirmed.entries.map((entry) => [entry.state, entry.how, entry.words, entry.source])).toEqual([
      [
        'yes',
        'form',
        form.definition.asks[0]!.words,
        'Form “River letters”, version 2. Confirmed by the button in our mail',
      ],
      ['asked', 'form', form.definition.asks[0]!.words, 'Form “River letters”, version 2'],
    ]);
    expect((await lastLook(house.client, message)).reached).toBe(1);
    expect((await house.client.get<FormView>(`/api/forms/${form.id}`)).counts).toEqual({
      seen: 1,
      begun: 0,
      joined: 1,
      confirmed: 1,
    });
  });

  test('takes what needs more than one control, and a postal address becomes theirs with its place', async () => {
    const field = async (name: string, type: string, choices: string[] = []) =>
      (
        await house.client.post<{ id: number }>('/api/fields', {
          name,
          type,
          section: 'More',
          fallback: null,
          choices,
        })
      ).id;
    const [born, days] = [
      await field('Birthday of joiners', 'birthday'),
      await field('Days on board', 'choices', ['Friday', 'Saturday']),
    ];
    const more = [born, days, 'post', 'mobile'] as const;
    const asked = (of: FormItem['of']): FormItem => ({
      of,
      label: `Your ${of}`,
      help: '',
      required: false,
      show: 'asked',
      value: '',
    });
    const form = await openFormAs(house.client, 'Deck hands', (made) => ({
      ...made,
      items: [...made.items.filter(({ of }) => !more.includes(of as number)), ...more.map(asked)],
    }));
    const page = await visitor.open(`/join/${form.slug}`);
    expect(page.html).toContain(`name="field_${days}.1" value="Saturday"`);
    const post = (email: string, rest: Record<string, string>) =>
      visitor.post(`/join/${form.slug}`, { firstName: 'Hal', email, agree_0: '1', ...rest });
    const half = await post('hal.deck@example.org', {
      [`field_${born}.month`]: '2',
      'post.city': 'Se"attle',
    });
    expect([half.status, half.html.includes('value="Se&#34;attle"')]).toEqual([422, true]);
    await post('hal.deck@example.org', {
      ...{ [`field_${born}.month`]: '2', [`field_${born}.day`]: '29', [`field_${days}.1`]: 'Saturday' },
      ...{
        'post.street': '12 Quay Street',
        'post.city': 'Seattle',
        'post.region': 'WA',
        'post.postcode': '98101',
        'post.country': 'US',
      },
      ...{ mobile: '06 12 34 56 78', 'mobile.country': 'FR' },
    });
    const hal = await personBy(house.client, 'hal.deck');
    expect(hal.contactPoints.map(({ kind, shown }) => [kind, shown])).toEqual([
      ['email', 'hal.deck@example.org'],
      ['mobile', '+33 6 12 34 56 78'],
      ['post', '12 Quay Street, Seattle, WA 98101, US'],
    ]);
    expect(hal.place).toMatchObject({ country: 'US', region: 'WA' });
    const shown = (id: number) => hal.fields.find((one) => one.id === id)!.shown;
    expect([shown(born), shown(days)]).toEqual([expect.stringContaining('29'), 'Saturday']);

    // What stands on Hal's record alone is on no page for strangers.
    await house.database
      .unscoped()('field_value')
      .where({ field_id: days, supporter_id: hal.id })
      .update({ text_value: 'Saturday; with my sister' });
    await house.database.unscoped()('field').where({ id: days }).update({ choices: null });
    expect((await visitor.open(`/join/${form.slug}`)).html).not.toContain('sister');
    await house.database
      .unscoped()('field')
      .where({ id: days })
      .update({ choices: JSON.stringify(['Friday', 'Saturday']) });

    // A stranger who types Hal's address gives Hal no other home until Hal has answered.
    await post('hal.deck@example.org', {
      'post.street': '1 Elsewhere',
      'post.city': 'Tacoma',
      'post.country': 'US',
    });
    expect((await personBy(house.client, 'hal.deck')).contactPoints).toHaveLength(3);
  });

  test('reminds once, after three days, and never again', async () => {
    const form = await openFormAs(house.client, 'Reminder', confirming);
    await visitor.post(`/join/${form.slug}`, { firstName: 'Remy', email: 'remy@example.org', agree_0: '1' });
    await mailTo(house, 'remy@example.org', '/confirm');
    const row = () =>
      house.database
        .unscoped()('confirmation')
        .where({ form_id: form.id })
        .first('state', 'sent', 'due_at') as Promise<{
        state: string;
        sent: number;
        due_at: Date | null;
      }>;
    const first = await eventually('the first to be recorded', row, (one) => one.state === 'sent');
    expect([first.sent, Math.round((first.due_at!.getTime() - Date.now()) / 86_400_000)]).toEqual([1, 3]);
    await house.database
      .unscoped()('confirmation')
      .where({ form_id: form.id })
      .update({ due_at: new Date(0) });
    const reminder = await mailTo(house, 'remy@example.org', '/confirm', 2);
    const second = await eventually(
      'the reminder to be recorded',
      row,
      (one) => one.state === 'sent' && one.sent === 2,
    );
    expect([second.due_at, reminder.subject]).toEqual([null, `${form.definition.confirm.subject} (2)`]);
    await visitor.post(reminder.link, {});
    expect(openedStatuses(await personBy(house.client, 'remy@example.org'))).toEqual([
      `email list:${form.listId} yes`,
    ]);
  });

  test('a worker that died with a question under way sends it no second time, and reminds', async () => {
    const form = await openFormAs(house.client, 'Dead worker', confirming);
    await visitor.post(`/join/${form.slug}`, { firstName: 'Lost', email: 'lost@example.org', agree_0: '1' });
    await mailTo(house, 'lost@example.org', '/confirm');
    const rows = () => house.database.unscoped()('confirmation').where({ form_id: form.id });
    const row = () => rows().first('state', 'due_at') as Promise<{ state: string; due_at: Date | null }>;
    await eventually('it to be recorded', row, (one) => one.state === 'sent');
    // As it stands when a worker dies between the mail and its record, found two hours later.
    await rows().update({ state: 'in-flight', due_at: null, asked_at: new Date(Date.now() - 2 * 3_600_000) });
    const swept = await eventually('the sweep', row, (one) => one.state === 'sent');
    expect(Math.round((swept.due_at!.getTime() - Date.now()) / 86_400_000)).toBe(3);
    expect(house.sink.mails.filter((mail) => mail.to === 'lost@example.org')).toHaveLength(1);
  });

  test('without confirming, where the house rule and the form do not ask for it', async () => {
    const form = await openFormAs(house.client, 'At once');
    await visitor.post(`/join/${form.slug}`, { firstName: 'Otto', email: 'otto@example.org', agree_0: '1' });
    expect(openedStatuses(await personBy(house.client, 'otto@example.org'))).toEqual([
      `email list:${form.listId} yes`,
    ]);
    await visitor.post(`/join/${form.slug}`, {
      firstName: 'Ines',
      email: 'ines@example.org',
      mobile: '+33612345678',
      agree_0: '1',
    });
    const inFrance = await personBy(house.client, 'ines@example.org');
    expect([inFrance.place.country, inFrance.place.rulesOf, openedStatuses(inFrance)]).toEqual([
      'FR',
      'European Union',
      [`email list:${form.listId} asked`],
    ]);
  });

  test('nothing ticked is nothing agreed', async () => {
    const form = await openFormAs(house.client, 'No boxes');
    await visitor.post(`/join/${form.slug}`, { firstName: 'Pia', email: 'pia@example.org' });
    const pia = await personBy(house.client, 'pia@example.org');
    expect([pia.entries, pia.consent]).toEqual([[], []]);
  });

  test('by text alone: no email is needed, and the phone answers YES', async () => {
    const form = await openFormAs(house.client, 'Texts only', (made) => ({
      ...made,
      items: made.items.filter((item) => item.of !== 'email'),
      asks: made.asks.slice(1),
    }));
    await visitor.post(`/join/${form.slug}`, { firstName: 'Quin', mobile: '(206) 555-0150', agree_0: '1' });
    const asked = await eventually(
      'the question by text',
      () => house.gateway.texts,
      (texts) => texts.some((text) => text.to === '+12065550150'),
    );
    expect(asked.find((text) => text.to === '+12065550150')!.text).toMatch(/reply YES.*HELP.*STOP/);
    expect(openedStatuses(await personBy(house.client, '2065550150'))).toEqual([
      `text list:${form.listId} asked`,
    ]);
    await house.client.hook({
      type: 'inbound',
      id: 'yes-1',
      from: '+12065550150',
      to: '+12065550100',
      text: 'Yes!',
    });
    const quin = await personBy(house.client, '2065550150');
    expect(openedStatuses(quin)).toEqual([`text list:${form.listId} yes`]);
    expect(quin.entries[0]).toMatchObject({
      words: textAsk,
      source: 'Form “Texts only”, version 2. Confirmed by answering YES',
    });
  });
});

describe('somebody already known', () => {
  test('is found, gets the same page as a stranger, and stays as they are until they have confirmed', async () => {
    const form = await openFormAs(house.client, 'Known', confirming);
    await bringIn(house.client, 'Email,First,Last,Mobile\nrue@example.org,Rue,,\n');
    const stranger = await visitor.post(`/join/${form.slug}`, {
      firstName: 'Sal',
      email: 'sal@example.org',
      agree_0: '1',
    });
    const known = await visitor.post(`/join/${form.slug}`, {
      firstName: 'Rue',
      lastName: 'Bell',
      email: 'rue@example.org',
      mobile: '2065550151',
      agree_0: '1',
    });
    expect([known.status, known.html]).toEqual([stranger.status, stranger.html]);
    const rue = async () => {
      const { firstName, lastName, contactPoints } = await personBy(house.client, 'rue@example.org');
      return [firstName, lastName, contactPoints.map((point) => point.kind)];
    };
    expect(await rue()).toEqual(['Rue', '', ['email']]);
    const mail = await mailTo(house, 'rue@example.org', '/confirm');
    expect(mail.text).toMatch(/- Bell\n- Mobile: \+1 206 555 0151/);
    await visitor.post(mail.link, {});
    expect(await rue()).toEqual(['Rue', 'Bell', ['email', 'mobile']]);
  });

  test('a button pressed many times at once makes one person', async () => {
    const form = await openFormAs(house.client, 'Impatient');
    const fields = { firstName: 'Imp', email: 'imp@example.org', mobile: '2065550159', agree_0: '1' };
    const answers = await Promise.all(
      Array.from({ length: 8 }, () => visitor.post(`/join/${form.slug}`, fields)),
    );
    expect(answers.map((answer) => answer.status)).toEqual(Array.from({ length: 8 }, () => 200));
    expect((await personBy(house.client, 'imp@example.org')).contactPoints).toHaveLength(2);
  });

  test('an address that is never to be written to may be typed in, and stays closed', async () => {
    const form = await openFormAs(house.client, 'Closed address', confirming);
    await house.client.post('/api/do-not-contact', { lines: '@shut.example.net', note: '' });
    await visitor.post(`/join/${form.slug}`, {
      firstName: 'Shu',
      email: 'shu@shut.example.net',
      agree_0: '1',
    });
    await personBy(house.client, 'shu@shut.example.net');
    const row = (await house.database
      .unscoped()('contact_point')
      .where('normal', 'shu@shut.example.net')
      .first('do_not_contact')) as {
      do_not_contact: number;
    };
    const dropped = () =>
      house.database.unscoped()('confirmation').where({ form_id: form.id }).first('state') as Promise<{
        state: string;
      }>;
    await eventually('the question to be dropped', dropped, (one) => one.state === 'dropped');
    expect([
      row.do_not_contact,
      house.sink.mails.filter((mail) => mail.to === 'shu@shut.example.net'),
    ]).toEqual([1, []]);
  });

  test('another name at the same address is another person of the household', async () => {
    const form = await openFormAs(house.client, 'Household');
    await visitor.post(`/join/${form.slug}`, { firstName: 'Tom', email: 'both@example.org', agree_0: '1' });
    await visitor.post(`/join/${form.slug}`, { firstName: 'Una', email: 'both@example.org' });
    const rows = (await house.client.get<{ rows: SupporterRow[] }>('/api/supporters?search=both@example.org'))
      .rows;
    const records = await Promise.all(
      rows.map((row) => house.client.get<RecordView>(`/api/supporters/${row.id}`)),
    );
    expect(records.map((record) => [record.firstName, openedStatuses(record)])).toEqual([
      ['Tom', [`email list:${form.listId} yes`]],
      ['Una', []],
    ]);
  });

  test('who said no is asked to confirm wherever they are, and stays at no until they do', async () => {
    const form = await openFormAs(house.client, 'Coming back');
    await bringIn(house.client, 'Email,First,Last,Mobile\nvic@example.org,Vic,Rowe,\n');
    const vic = await personBy(house.client, 'vic@example.org');
    await house.client.post(`/api/supporters/${vic.id}/permission`, {
      contactPointId: vic.contactPoints[0]!.id,
      channel: 'email',
      scope: 'all',
      state: 'no',
      how: 'phone',
      on: '2026-02-01',
      words: 'Leave me be',
    });
    await visitor.post(`/join/${form.slug}`, { firstName: 'Vic', email: 'vic@example.org', agree_0: '1' });
    expect(openedStatuses(await personBy(house.client, 'vic@example.org'))).toContain(
      `email list:${form.listId} no`,
    );
    const mail = await mailTo(house, 'vic@example.org', '/confirm');
    await visitor.post(mail.link, {});
    const back = openedStatuses(await personBy(house.client, 'vic@example.org'));
    expect(back).toContain(`email list:${form.listId} yes`);
    expect(back).toContain('email all no');
  });

  test('a number that has stopped us gets no question: only START from the phone lifts that', async () => {
    const form = await openFormAs(house.client, 'After a stop');
    await house.client.hook({
      type: 'inbound',
      id: 'stop-9',
      from: '+12065550152',
      to: '+12065550100',
      text: 'STOP',
    });
    await eventually(
      'the answer to STOP',
      () => house.gateway.texts,
      (texts) => texts.some((text) => text.to === '+12065550152'),
    );
    await visitor.post(`/join/${form.slug}`, { firstName: 'Wes', mobile: '2065550152', agree_1: '1' });
    await visitor.post(`/join/${form.slug}`, { firstName: 'Xan', email: 'xan@example.org', agree_0: '1' });
    await eventually(
      'Xan',
      () => personBy(house.client, 'xan@example.org'),
      () => true,
    );
    expect(house.gateway.texts.filter((text) => text.to === '+12065550152')).toHaveLength(1);
    expect(openedStatuses(await personBy(house.client, '2065550152'))).toContain(
      `text list:${form.listId} no`,
    );
  });
});

test('a box for calls at a number that has refused calls is kept as asked, and nothing is sent', async () => {
  const form = await openFormAs(house.client, 'Calls', (made) => ({
    ...made,
    asks: [{ channel: 'call', scope: 'news', words: 'You may call me about the news.' }],
  }));
  await visitor.post(`/join/${form.slug}`, { firstName: 'Cal', mobile: '2065550158', agree_0: '1' });
  const cal = await personBy(house.client, '2065550158');
  expect(openedStatuses(cal)).toEqual(['call news yes']);
  const no = {
    contactPointId: cal.contactPoints[0]!.id,
    channel: 'call',
    scope: 'all',
    state: 'no',
    how: 'phone',
    on: houseDay(),
    words: 'No calls',
  };
  await house.client.post(`/api/supporters/${cal.id}/permission`, no);
  expect(
    (await visitor.post(`/join/${form.slug}`, { firstName: 'Cal', mobile: '2065550158', agree_0: '1' }))
      .status,
  ).toBe(200);
  expect(openedStatuses(await personBy(house.client, '2065550158'))).toContain('call news no');
  expect(house.gateway.texts.filter((text) => text.to === '+12065550158')).toEqual([]);
});

describe('what robots and mistakes send', () => {
  test('a form with the trap filled in is thanked and forgotten', async () => {
    const form = await openFormAs(house.client, 'Trap');
    const sent = await visitor.post(`/join/${form.slug}`, {
      firstName: 'Bot',
      email: 'bot@example.org',
      agree_0: '1',
      gw_leave_empty: 'http://spam.test',
    });
    expect([sent.status, sent.html.includes('Thank you')]).toEqual([200, true]);
    expect((await house.client.get<{ total: number }>('/api/supporters?search=bot@example.org')).total).toBe(
      0,
    );
  });

  test('faults are told at their inputs, in the language of the form, and nothing typed is lost', async () => {
    const form = await openFormAs(house.client, 'Deutsch', (made) => ({ ...made, language: 'de' }));
    const sent = await visitor.post(`/join/${form.slug}`, {
      firstName: '"><script>alert(1)</script>',
      email: 'kein',
      agree_0: '1',
    });
    expect(sent.status).toBe(422);
    expect(sent.html).toContain('„kein“ ist keine E-Mail-Adresse');
    expect(sent.html).toContain('value="&#34;&#62;&#60;script&#62;alert(1)&#60;/script&#62;"');
    expect(sent.html).not.toContain('<script>alert');
    expect(sent.html).toContain('name="agree_0" value="1" checked');
    expect(sent.html).toContain('lang="de"');
  });

  test('a field of 1 MB, a form that is closed, one that never was: a kind page and the right status', async () => {
    const form = await openFormAs(house.client, 'Closing');
    const big = await visitor.post(`/join/${form.slug}`, { firstName: 'x'.repeat(1_000_000) });
    expect([big.status, big.html.includes('That was too much at once')]).toEqual([413, true]);
    await house.client.put(`/api/forms/${form.id}/open`, { open: false });
    expect((await visitor.open(`/join/${form.slug}`)).status).toBe(410);
    expect((await visitor.post(`/join/${form.slug}`, { email: 'a@example.org' })).html).toContain(
      'This form is closed',
    );
    expect((await visitor.open('/join/never-was')).status).toBe(404);
  });

  test('thousands of posts from one address are turned away with a kind page, others come through', async () => {
    const form = await openFormAs(house.client, 'Flood');
    const robot = new Visitor(house.config.PUBLIC_URL, { 'x-forwarded-for': '203.0.113.9' });
    const answers = await Promise.all(
      Array.from({ length: 90 }, () => robot.post(`/join/${form.slug}`, { email: 'broken' })),
    );
    expect(answers.filter((answer) => answer.status === 429)).toHaveLength(30);
    expect(answers.find((answer) => answer.status === 429)!.html).toContain('Wait ten minutes');
    expect(
      (await visitor.post(`/join/${form.slug}`, { firstName: 'Yan', email: 'yan@example.org' })).status,
    ).toBe(200);
  });

  test('an address that is typed in again and again gets two mails in all until it answers', async () => {
    const form = await openFormAs(house.client, 'Bother', confirming);
    for (let i = 0; i < 5; i++)
      await visitor.post(`/join/${form.slug}`, { firstName: 'Zoe', email: 'zoe@example.org', agree_0: '1' });
    await visitor.post(`/join/${form.slug}`, { firstName: 'Abe', email: 'abe@example.org', agree_0: '1' });
    await mailTo(house, 'abe@example.org', '/confirm');
    expect(house.sink.mails.filter((mail) => mail.to === 'zoe@example.org')).toHaveLength(2);
  });

  test('a confirmation that is forged, altered, or for something else is refused; an expired one says so', async () => {
    const form = await openFormAs(house.client, 'Links', confirming);
    await visitor.post(`/join/${form.slug}`, { firstName: 'Bea', email: 'bea@example.org', agree_0: '1' });
    const { link } = await mailTo(house, 'bea@example.org', '/confirm');
    const altered = link.slice(0, -2) + (link.endsWith('aa') ? 'bb' : 'aa');
    for (const bad of [
      altered,
      '/confirm/aaaa',
      link.replace('/confirm/', '/choices/'),
      link.replace('/confirm/', '/leave/'),
    ])
      expect([bad, (await visitor.post(bad, {})).status]).toEqual([bad, 404]);
    await house.database
      .unscoped()('confirmation')
      .where({ organization_id: house.scope.organizationId })
      .whereNot('state', 'confirmed')
      .update({ expires_at: new Date(0) });
    const late = await visitor.post(link, {});
    expect([late.status, late.html.includes('too old')]).toEqual([410, true]);
    expect(openedStatuses(await personBy(house.client, 'bea@example.org'))).toEqual([
      `email list:${form.listId} asked`,
    ]);
  });
});

describe('a form in other pages', () => {
  test('may be framed only by the origins that it names, and its scripts are served', async () => {
    const closed = await openFormAs(house.client, 'Unframed');
    const open = await openFormAs(house.client, 'Framed', (made) => ({
      ...made,
      embedOn: ['https://www.example.org'],
    }));
    const policy = async (slug: string) =>
      (await visitor.open(`/join/${slug}?frame=1`)).headers.get('content-security-policy')!;
    expect(await policy(closed.slug)).toContain("frame-ancestors 'none'");
    expect(await policy(open.slug)).toContain("frame-ancestors 'self' https://www.example.org");
    expect((await visitor.open('/join/frame.js')).headers.get('content-type')).toContain('javascript');
    expect((await visitor.open(`/join/${open.slug}/qr.svg`)).html).toContain('<svg');
  });

  test('goes on to a page of the organization where it says so', async () => {
    const form = await openFormAs(house.client, 'Onward', (made) => ({
      ...made,
      thanks: { words: '', redirect: 'https://www.example.org/thanks' },
    }));
    const sent = await visitor.post(`/join/${form.slug}`, { firstName: 'Cy', email: 'cy@example.org' });
    expect([sent.status, sent.headers.get('location')]).toEqual([303, 'https://www.example.org/thanks']);
  });

  test('counts who began', async () => {
    const form = await openFormAs(house.client, 'Begun');
    expect((await visitor.post(`/join/${form.slug}/begun`, {})).status).toBe(204);
    expect((await house.client.get<FormView>(`/api/forms/${form.id}`)).counts.begun).toBe(1);
  });
});

describe('making forms', () => {
  test('a form with faults is kept and can not be opened; an open one can not be saved with them', async () => {
    const form = await openFormAs(house.client, 'Faulty');
    const broken = {
      ...form.definition,
      asks: [{ channel: 'text', scope: `list:${form.listId}`, words: 'Text me please' }],
    };
    const body = { name: form.name, slug: form.slug, version: form.version, definition: broken };
    const refused = await house.client.call<{ faults: { message: string }[] }>(
      'PUT',
      `/api/forms/${form.id}`,
      body,
    );
    expect([refused.status, refused.body.faults.map((fault) => fault.message).join(' ')]).toEqual([
      422,
      expect.stringContaining('that STOP ends it'),
    ]);
    await house.client.put(`/api/forms/${form.id}/open`, { open: false });
    await house.client.put(`/api/forms/${form.id}`, body);
    const opening = await house.client.call<{ detail: string }>('PUT', `/api/forms/${form.id}/open`, {
      open: true,
    });
    expect([opening.status, opening.body.detail]).toEqual([
      409,
      expect.stringContaining('how often texts come'),
    ]);
  });

  test('two people at one form: the second is told and overwrites nothing', async () => {
    const form = await openFormAs(house.client, 'Twice');
    const body = { name: form.name, slug: form.slug, version: form.version, definition: form.definition };
    await house.client.put(`/api/forms/${form.id}`, {
      ...body,
      definition: { ...form.definition, title: 'First' },
    });
    expect(
      (
        await house.client.call('PUT', `/api/forms/${form.id}`, {
          ...body,
          definition: { ...form.definition, title: 'Second' },
        })
      ).status,
    ).toBe(409);
    expect((await house.client.get<FormView>(`/api/forms/${form.id}`)).definition.title).toBe('First');
  });

  test('an address or keyword that is taken is refused, and so is a keyword that means something', async () => {
    const one = await openFormAs(house.client, 'Keyword one', (made) => ({ ...made, keyword: 'OARS' }));
    const two = await openFormAs(house.client, 'Keyword two');
    const save = (change: object) =>
      house.client.call('PUT', `/api/forms/${two.id}`, {
        name: two.name,
        slug: two.slug,
        version: two.version,
        definition: two.definition,
        ...change,
      });
    expect((await save({ slug: one.slug })).status).toBe(409);
    expect((await save({ definition: { ...two.definition, keyword: 'OARS' } })).status).toBe(409);
    expect((await save({ definition: { ...two.definition, keyword: 'QUIT' } })).status).toBe(422);
  });
});

test('a house that confirms by default asks everybody', async () => {
  const rules = rulesOfTests();
  const us = { ...rules.places.US!, confirm: { ...PRESETS.strict.rules.confirm } };
  const { version } = await house.client.get<{ version: number }>('/api/house-rules');
  await house.client.put('/api/house-rules', {
    rules: { ...rules, places: { ...rules.places, US: us } },
    basedOn: version,
  });
  const form = await openFormAs(house.client, 'By rule');
  await visitor.post(`/join/${form.slug}`, { firstName: 'Dee', email: 'dee@example.org', agree_0: '1' });
  expect(openedStatuses(await personBy(house.client, 'dee@example.org'))).toEqual([
    `email list:${form.listId} asked`,
  ]);
  expect(startingRules('US').places.US!.confirm).toEqual({
    email: true,
    text: true,
    call: true,
    withinDays: 30,
  });
});
