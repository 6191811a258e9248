import type { RecordView } from '@goodword/core/contract';
import { Tokens } from './platform/tokens';
import { openTestHouse, eventually, type TestHouse } from './testing/harness';
import { agreed, bringIn, draftEmail, lastLook, messageAt, send } from './testing/steps';
import { mailTo, openFormAs, personBy, openedStatuses, Visitor } from './testing/supporter';

let house: TestHouse;
let visitor: Visitor;
let listId: number;
beforeAll(async () => {
  house = await openTestHouse();
  house.startWorker();
  visitor = new Visitor(house.config.PUBLIC_URL);
  ({ listId } = await openFormAs(house.client, 'River letters'));
});
afterAll(() => house.close());

/** The path of the page that a link leads to which was sent to them. */
async function freshLink(id: number, to: string): Promise<string> {
  expect(await house.client.post(`/api/supporters/${id}/choices-link`)).toEqual({ to });
  return (await mailTo(house, to, '/choices')).link;
}

/** A person who said yes to news and appeals by email, and the path of a fresh preference page. */
async function someone(
  name: string,
  mobile = '',
): Promise<{ id: number; path: string; record(): Promise<RecordView> }> {
  const batch = await bringIn(
    house.client,
    `Email,First,Last,Mobile\n${name}@example.org,${name},Lin,${mobile}\n`,
  );
  expect(batch.problem).toBeNull();
  const { id } = await personBy(house.client, `${name}@example.org`);
  const path = await freshLink(id, `${name}@example.org`);
  return { id, path, record: () => house.client.get<RecordView>(`/api/supporters/${id}`) };
}

const boxes = (html: string) =>
  [...html.matchAll(/name="on" value="([^"]+)"( checked)?/g)].map(
    (found) => `${found[1]}${found[2] ? ' on' : ''}`,
  );
const shown = (html: string): [string, string][] =>
  [...html.matchAll(/name="shown" value="([^"]+)"/g)].map((found) => ['shown', found[1]!]);

describe('the preference page', () => {
  test('shows what they get and why, in their language, and needs no script', async () => {
    const ann = await someone('ann');
    const page = await visitor.open(ann.path);
    expect(page.status).toBe(200);
    expect(boxes(page.html)).toEqual([
      `email.list:${listId}`,
      'email.news on',
      'email.appeals on',
      'email.volunteering',
    ]);
    expect(page.html).toContain('Why we write to you: You asked for it at the landing.');
    expect(page.html).not.toContain('<script');
    expect(Buffer.byteLength(page.html)).toBeLessThan(60_000);
    const spanish = new Visitor(house.config.PUBLIC_URL, { 'accept-language': 'es-MX,es;q=0.9' });
    expect((await spanish.open(ann.path)).html).toContain('Lo que recibe de Lantern Ferry Trust');
    expect((await visitor.open(`${ann.path}?lang=fr`)).html).toContain('Enregistrer mes choix');
  });

  test('records only what was changed, with the words beside the box', async () => {
    const bo = await someone('bo');
    const page = await visitor.open(bo.path);
    const saved = await visitor.post(bo.path, [
      ...shown(page.html),
      ['on', 'email.news'],
      ['on', `email.list:${listId}`],
      ['act', 'choose'],
    ]);
    expect(boxes(saved.html)).toEqual([
      `email.list:${listId} on`,
      'email.news on',
      'email.appeals',
      'email.volunteering',
    ]);
    const record = await bo.record();
    expect(
      record.entries
        .filter((entry) => entry.how === 'preferences')
        .map((entry) => [entry.state, entry.scope, entry.words]),
    ).toEqual([
      ['no', 'appeals', 'appeals for support'],
      ['yes', `list:${listId}`, 'River letters list'],
    ]);
    expect(record.lists.map((list) => list.id)).toEqual([listId]);
    await visitor.post(bo.path, [
      ...shown(saved.html),
      ['on', 'email.news'],
      ['on', `email.list:${listId}`],
      ['act', 'choose'],
    ]);
    expect((await bo.record()).entries).toHaveLength(record.entries.length);
  });

  test('a box that was not shown is never changed, whatever is posted', async () => {
    const cy = await someone('cy');
    await visitor.post(cy.path, [
      ['shown', 'email.news'],
      ['on', 'email.news'],
      ['on', 'email.volunteering'],
      ['on', 'email.list:999999'],
      ['act', 'choose'],
    ]);
    expect((await cy.record()).entries.filter((entry) => entry.how === 'preferences')).toEqual([]);
  });

  test('everything off, and back by ticking', async () => {
    const di = await someone('di', '2065550160');
    const off = await visitor.post(di.path, { act: 'nothing' });
    expect(off.html).toContain('You get nothing from us any more');
    expect(openedStatuses(await di.record())).toEqual(
      expect.arrayContaining(['email all no', 'text all no', 'call all no']),
    );
    const page = await visitor.open(di.path);
    expect(page.html).toContain('text START to +12065550100');
    await visitor.post(di.path, [...shown(page.html), ['on', 'email.news'], ['act', 'choose']]);
    const back = openedStatuses(await di.record());
    expect(back).toContain('email news yes');
    expect(back).toContain('email appeals no');
    expect(back).toContain('text appeals no');
  });

  test('a pause holds what would go, a receipt passes, and it can be ended', async () => {
    const ed = await someone('ed');
    const paused = await visitor.post(ed.path, { act: 'pause-60' });
    expect(paused.html).toMatch(/Paused until \w+ \d+, \d{4}/);
    const consent = (await ed.record()).consent.filter((one) => one.channel === 'email');
    expect(consent.every((one) => one.pausedUntil !== null)).toBe(true);
    const group = { from: [], minus: [], without: [] };
    const list = await house.client.post<{ id: number }>('/api/lists', { name: 'Only Ed' });
    await house.client.put(`/api/supporters/${ed.id}/lists/${list.id}`);
    const to = { ...group, from: [{ kind: 'list' as const, id: list.id }] };
    expect(await lastLook(house.client, await draftEmail(house.client, to))).toMatchObject({
      reached: 0,
      suppressed: [{ reason: 'paused', people: 1 }],
    });
    expect(
      (await lastLook(house.client, await draftEmail(house.client, to, { purpose: 'service' }))).reached,
    ).toBe(1);
    expect((await visitor.post(ed.path, { act: 'pause-0' })).html).not.toContain('Paused until');
    expect((await lastLook(house.client, await draftEmail(house.client, to))).reached).toBe(1);
    expect((await visitor.post(ed.path, { act: 'pause-9999' })).status).toBe(200);
    expect((await lastLook(house.client, await draftEmail(house.client, to))).reached).toBe(1);
  });

  test('a name is corrected at once, a new address when it is confirmed, and what they agreed to goes with it', async () => {
    const flo = await someone('flo');
    const yours = {
      firstName: 'Florence',
      lastName: 'Lin',
      email: 'flo.new@example.org',
      mobile: '',
      act: 'yours',
    };
    expect((await visitor.post(flo.path, { ...yours, email: 'nonsense' })).status).toBe(422);
    const saved = await visitor.post(flo.path, yours);
    expect([saved.status, saved.html.includes('For a new address')]).toEqual([200, true]);
    expect((await flo.record()).contactPoints.map((point) => point.shown)).toEqual(['flo@example.org']);
    const { link } = await mailTo(house, 'flo.new@example.org', '/confirm');
    await visitor.post(link, {});
    const record = await flo.record();
    expect([record.firstName, record.contactPoints.map((point) => point.shown)]).toEqual([
      'Florence',
      ['flo.new@example.org'],
    ]);
    expect(openedStatuses(record)).toEqual(expect.arrayContaining(['email news yes', 'email appeals yes']));
  });

  test('gives a copy of all that is held', async () => {
    const gus = await someone('gus');
    const { html, headers } = await visitor.open(`${gus.path}/data.json`);
    expect(headers.get('content-disposition')).toContain('what-we-hold.json');
    const copy = JSON.parse(html) as {
      name: object;
      addresses: object[];
      permission: { entries: { words: string }[] };
    };
    expect(copy).toMatchObject({
      name: { first: 'gus', last: 'Lin' },
      addresses: [{ kind: 'email', address: 'gus@example.org' }],
    });
    expect(copy.permission.entries[0]!.words).toContain('Please write to me about the ferry');
  });

  test('a request to be erased is a task for the owner alone, once', async () => {
    const hal = await someone('hal');
    await visitor.post(hal.path, { act: 'erase' });
    expect((await visitor.post(hal.path, { act: 'erase' })).html).toContain('You asked to be erased');
    const asked = async (role: string) =>
      (
        await (await house.as(role)).get<{ erasures: { supporterId: number }[] }>('/api/today')
      ).erasures.filter((one) => one.supporterId === hal.id);
    expect([(await asked('owner')).length, (await asked('organizer')).length]).toEqual([1, 0]);
  });
});

describe('links', () => {
  test('the way out of a message leads to the choices; data want a link of their own, and an old one shows ways out alone', async () => {
    const ida = await someone('ida');
    const list = await house.client.post<{ id: number }>('/api/lists', { name: 'Only Ida' });
    await house.client.put(`/api/supporters/${ida.id}/lists/${list.id}`);
    const message = await draftEmail(
      house.client,
      { from: [{ kind: 'list', id: list.id }] },
      { subject: 'To Ida' },
    );
    await send(house.client, message);
    await messageAt(house.client, message, 'done');
    const mail = await mailTo(house, 'ida@example.org', '/leave');
    const path = mail.link.replace('/leave/', '/choices/');
    expect((await visitor.open(mail.link)).html).toContain(`href="${path}?lang=en"`);
    // The way out of a message is no key to the person, however new the message is.
    const choosing = await visitor.open(path);
    expect([
      choosing.html.includes('name="on"'),
      choosing.html.includes('Download it all'),
      choosing.html.includes('ida@example.org'),
    ]).toEqual([true, false, false]);
    await visitor.post(path, { act: 'erase' });
    await house.database
      .unscoped()('delivery')
      .where('message_id', message)
      .update({ sent_at: new Date(Date.now() - 31 * 86_400_000) });
    const stale = await visitor.open(path);
    expect([stale.html.includes('ida@example.org'), stale.html.includes('name="on"')]).toEqual([
      false,
      false,
    ]);
    await visitor.post(path, [
      ['shown', 'email.volunteering'],
      ['on', 'email.volunteering'],
      ['act', 'choose'],
    ]);
    expect(openedStatuses(await ida.record())).not.toContain('email volunteering yes');
    expect((await visitor.open(`${path}/data.json`)).html).not.toContain('ida@example.org');
    await visitor.post(path, {
      act: 'yours',
      firstName: 'Mallory',
      lastName: '',
      email: 'mallory@example.org',
      mobile: '',
    });
    expect((await ida.record()).firstName).toBe('ida');
    expect((await visitor.post(path, { act: 'fresh' })).html).toContain('A fresh link is on its way');
    const fresh = await eventually(
      'the fresh link',
      () => mailTo(house, 'ida@example.org', '/choices', 3),
      (found) => found.link !== '',
    );
    expect((await visitor.open(fresh.link)).html).toContain('ida@example.org');
    expect((await visitor.post(path, { act: 'nothing' })).html).toContain('You get nothing from us any more');
  });

  test('a fresh link goes to no address that is closed, and the page says of each press what came of it', async () => {
    const { path } = await someone('moe');
    const links = () =>
      house.sink.mails.filter((mail) => mail.to === 'moe@example.org' && mail.raw.includes('/choices'))
        .length;
    const before = links();
    const press = async () => (await visitor.post(path, { act: 'fresh' })).html;
    await house.database
      .unscoped()('contact_point')
      .where('normal', 'moe@example.org')
      .update({ do_not_contact: 1 });
    const closed = await press();
    expect(closed).toContain('the addresses we have take no mail from us');
    // Where one is to write instead stands on the page.
    const { postal_address } = (await house.database.unscoped()('organization').first('postal_address')) as {
      postal_address: string;
    };
    expect(closed).toContain(postal_address);
    await house.database
      .unscoped()('contact_point')
      .where('normal', 'moe@example.org')
      .update({ do_not_contact: 0, on_hold: 1 });
    expect(await press()).toContain('the addresses we have take no mail from us');
    await house.database
      .unscoped()('contact_point')
      .where('normal', 'moe@example.org')
      .update({ on_hold: 0 });
    house.sink.options.answer = () => 451;
    expect(await press()).toContain('The link could not be sent just now');
    house.sink.options.answer = undefined;
    expect(links()).toBe(before);
    // What was not sent does not count towards the three of a day.
    for (let n = 1; n <= 3; n++) expect(await press()).toContain('A fresh link is on its way');
    expect(await press()).toContain('Three links went to the address we have within a day');
    expect(links()).toBe(before + 3);
  });

  test('forged, altered, swapped and of somebody erased: refused with a kind page, nothing leaked', async () => {
    const [jo, ken] = [await someone('jo'), await someone('ken')];
    const token = (path: string) => path.split('/').at(-1)!;
    const swapped = `/choices/${token(jo.path).slice(0, 26)}${token(ken.path).slice(26)}`;
    const altered = jo.path.slice(0, -1) + (jo.path.endsWith('a') ? 'b' : 'a');
    const foreign = `/choices/${new Tokens('another secret').make('choices', jo.id, 1)}`;
    for (const bad of [
      swapped,
      altered,
      foreign,
      '/choices/x',
      '/choices/aaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaa',
    ]) {
      const page = await visitor.open(bad);
      expect([
        bad,
        page.status,
        page.html.includes('leads nowhere'),
        page.html.includes('example.org'),
      ]).toEqual([bad, 404, true, false]);
      expect((await visitor.post(bad, { act: 'nothing' })).status).toBe(404);
    }
    await house.client.call('DELETE', `/api/supporters/${ken.id}`);
    expect((await visitor.open(ken.path)).status).toBe(404);
    expect(openedStatuses(await jo.record())).not.toContain('email all no');
  });
});

test('what a chapter brought in is found by its own preference page too', async () => {
  const batch = await bringIn(house.client, 'Email,First,Last,Mobile\nlou@example.org,Lou,Lin,\n', {
    permission: { email: agreed('news'), text: { said: 'nothing' } },
  });
  expect(batch.state).toBe('done');
  const lou = await personBy(house.client, 'lou@example.org');
  expect(boxes((await visitor.open(await freshLink(lou.id, 'lou@example.org'))).html)).toContain(
    'email.news on',
  );
});
