import sharp from 'sharp';
import type { RecordView } from '@goodword/core/contract';
import { FoldingRepository } from '../permission/ledger/folding.repository';
import { houseDay, openTestHouse, type TestHouse } from '../testing/harness';
import { bringIn, draftEmail, lastLook, messageAt, moveTo, NOTHING, send } from '../testing/steps';
import { personBy, openedStatuses } from '../testing/supporter';

let house: TestHouse;
beforeAll(async () => {
  house = await openTestHouse();
  house.startWorker();
});
afterAll(() => house.close());

const TODAY = houseDay();
const record = (id: number) => house.client.get<RecordView>(`/api/supporters/${id}`);

async function someone(
  name: string,
  mobile = '',
  said: 'nothing' | 'yes' = 'nothing',
): Promise<RecordView & { batchId: number }> {
  const batch = await bringIn(
    house.client,
    `Email,First,Last,Mobile\n${name}@example.org,${name},Moss,${mobile}\n`,
    said === 'nothing' ? { permission: { email: NOTHING, text: NOTHING } } : {},
  );
  return { ...(await personBy(house.client, `${name}@example.org`)), batchId: batch.id };
}

const entry = (person: RecordView, more: object) => ({
  contactPointId: person.contactPoints[0]!.id,
  channel: 'email',
  scope: 'appeals',
  state: 'yes',
  how: 'phone',
  on: '2026-03-01',
  words: 'Yes, write to me about the boats',
  ...more,
});

async function sheet(colour: string): Promise<Blob> {
  const png = await sharp({ create: { width: 40, height: 30, channels: 3, background: colour } })
    .png()
    .toBuffer();
  return new Blob([new Uint8Array(png)]);
}

function upload(id: number, name: string, bytes: Blob) {
  const form = new FormData();
  form.append('file', bytes, name);
  return house.client.call<{ id: number; detail: string }>('POST', `/api/supporters/${id}/evidence`, form);
}

describe('entries by hand', () => {
  test('carry the sheet that was signed, which comes back as a picture and under no other name', async () => {
    const ann = await someone('ann');
    const evidence = await upload(ann.id, '../../sheet of ännchen.png', await sheet('#0F766B'));
    expect(evidence.status).toBe(201);
    await house.client.post(
      `/api/supporters/${ann.id}/permission`,
      entry(ann, { how: 'paper', evidenceId: evidence.body.id }),
    );
    expect((await record(ann.id)).entries[0]).toMatchObject({
      evidence: { id: evidence.body.id, name: expect.stringContaining('ännchen') },
    });
    const file = await fetch(
      `${house.config.PUBLIC_URL}/api/supporters/${ann.id}/evidence/${evidence.body.id}`,
    );
    expect(file.status).toBe(401);
    const own = await house.client.call('GET', `/api/supporters/${ann.id}/evidence/${evidence.body.id}`);
    expect([own.status, own.headers.get('content-type'), own.headers.get('content-disposition')]).toEqual([
      200,
      'image/jpeg',
      expect.stringContaining('attachment'),
    ]);
    const other = await someone('other');
    expect(
      (await house.client.call('GET', `/api/supporters/${other.id}/evidence/${evidence.body.id}`)).status,
    ).toBe(404);
    expect(
      (
        await house.client.call(
          'POST',
          `/api/supporters/${other.id}/permission`,
          entry(other, { evidenceId: evidence.body.id }),
        )
      ).status,
    ).toBe(404);
  });

  test('evidence is a picture or a PDF by its bytes, and bounded', async () => {
    const bo = await someone('bo');
    expect((await upload(bo.id, 'sheet.pdf', new Blob(['%PDF-1.7\n%…']))).status).toBe(201);
    const script = await upload(bo.id, 'sheet.png', new Blob(['<script>alert(1)</script>']));
    expect([script.status, script.body.detail]).toEqual([409, expect.stringContaining('picture')]);
    expect((await upload(bo.id, 'big.pdf', new Blob([new Uint8Array(11 * 1024 * 1024)]))).status).toBe(413);
  });

  const refused: [string, object, string][] = [
    ['a yes without words', { words: 'Yes' }, 'words'],
    ['a day to come', { on: '2099-01-01' }, 'on'],
    ['a channel that the address does not have', { channel: 'text' }, 'channel'],
    ['an implied permission by phone', { state: 'implied' }, 'how'],
    ['a pause without an end', { state: 'pause' }, 'until'],
    ['a pause that ended already', { state: 'pause', until: '2020-01-01' }, 'until'],
    ['a pause for ever', { state: 'pause', until: '2199-01-01' }, 'until'],
  ];
  test.each(refused)('%s is refused with a sentence', async (_name, more, field) => {
    const person = await someone(`r${crypto.randomUUID().slice(0, 8)}`);
    const answer = await house.client.call<{ faults: { field: string }[] }>(
      'POST',
      `/api/supporters/${person.id}/permission`,
      entry(person, more),
    );
    expect([answer.status, answer.body.faults[0]!.field]).toEqual([422, field]);
  });

  test('of one day the no counts, whatever was written down last, and it is a yes of a later day that lifts it', async () => {
    const person = await someone('today');
    const say = (more: object) =>
      house.client.post(`/api/supporters/${person.id}/permission`, entry(person, more));
    const stands = async () =>
      (await record(person.id)).consent.find((one) => one.scope === 'appeals')!.state;
    await say({ on: TODAY });
    await say({ on: houseDay(-1), state: 'no', words: '' });
    expect(await stands()).toBe('yes');
    await say({ on: TODAY, state: 'no', words: '' });
    await say({ on: TODAY });
    expect(await stands()).toBe('no');
    const other = await someone('otherday');
    for (const state of ['no', 'yes'])
      await house.client.post(
        `/api/supporters/${other.id}/permission`,
        entry(other, { on: '2026-03-01', state }),
      );
    expect((await record(other.id)).consent.find((one) => one.scope === 'appeals')!.state).toBe('no');
  });

  test('a relationship implies where the place lets it, and never a text', async () => {
    const cy = await someone('cy', '2065550161');
    await house.client.post(
      `/api/supporters/${cy.id}/permission`,
      entry(cy, { state: 'implied', how: 'volunteering', on: TODAY, scope: 'marketing', words: '' }),
    );
    expect(openedStatuses(await record(cy.id))).toContain('email marketing implied');
    await moveTo(house.client, cy.id, 'FR');
    expect((await record(cy.id)).place.rulesOf).toBe('European Union');
    expect(openedStatuses(await record(cy.id))).toContain('email marketing never');
    const mobile = cy.contactPoints.find((point) => point.kind === 'mobile')!;
    const text = await house.client.call(
      'POST',
      `/api/supporters/${cy.id}/permission`,
      entry(cy, { state: 'implied', how: 'gift', channel: 'text', contactPointId: mobile.id }),
    );
    expect(text.status).toBe(422);
    expect(
      (
        await house.client.call('PUT', `/api/supporters/${cy.id}/place`, {
          country: null,
          region: 'FL',
          was: { country: 'FR', region: null },
        })
      ).status,
    ).toBe(422);
  });

  test('a gift implies until it lapses, and never turns a no into anything', async () => {
    const di = await someone('di');
    await house.client.post(`/api/supporters/${di.id}/gifts`, { amount: 5000, on: TODAY, note: '' });
    const given = (await record(di.id)).consent.find((one) => one.channel === 'email')!;
    expect([given.state, given.until !== null]).toEqual(['implied', true]);
    await house.client.post(
      `/api/supporters/${di.id}/permission`,
      entry(di, { state: 'no', scope: 'all', on: '2020-01-01', words: '' }),
    );
    await house.client.post(`/api/supporters/${di.id}/gifts`, { amount: 5000, on: TODAY, note: '' });
    expect(openedStatuses(await record(di.id))).toEqual(
      expect.arrayContaining(['email all no', 'email marketing no']),
    );
  });

  test('an objection is one act that closes every channel at every address, and leaves the receipt', async () => {
    const ed = await someone('ed', '2065550162', 'yes');
    await house.client.post(`/api/supporters/${ed.id}/objection`, {
      how: 'phone',
      on: TODAY,
      words: 'No advertising of any kind',
    });
    expect(openedStatuses(await record(ed.id))).toEqual(
      expect.arrayContaining([
        'call marketing no',
        'email appeals no',
        'email marketing no',
        'text appeals no',
      ]),
    );
    const group = { from: [{ kind: 'batch' as const, id: ed.batchId }] };
    expect((await lastLook(house.client, await draftEmail(house.client, group))).suppressed).toEqual([
      { reason: 'said-no', people: 1 },
    ]);
    expect(
      (await lastLook(house.client, await draftEmail(house.client, group, { purpose: 'service' }))).reached,
    ).toBe(1);
  });

  test('old evidence is pointed out by the rule of the place', async () => {
    const flo = await someone('flo');
    await house.client.post(`/api/supporters/${flo.id}/permission`, entry(flo, { on: '2015-05-05' }));
    await house.client.post(`/api/supporters/${flo.id}/permission`, entry(flo, { scope: 'news', on: TODAY }));
    expect((await record(flo.id)).entries.map((one) => [one.scope, one.old])).toEqual([
      ['news', false],
      ['appeals', true],
    ]);
  });
});

describe('erasing', () => {
  test('takes names, addresses and words, and leaves dates, states and every count as they were', async () => {
    const ida = await someone('ida', '2065550163', 'yes');
    const message = await draftEmail(house.client, { from: [{ kind: 'batch', id: ida.batchId }] });
    await send(house.client, message);
    await messageAt(house.client, message, 'done');
    await house.client.post(
      `/api/supporters/${ida.id}/permission`,
      entry(ida, { state: 'no', scope: 'all', on: TODAY, words: 'Enough, said Ida Moss' }),
    );
    await upload(ida.id, 'ida.png', await sheet('#A62B45'));
    const states = () =>
      house.database.read(house.scope).sql(
        `SELECT *
            FROM permission_state
            WHERE organization_id = :org
            ORDER BY contact_point_id, supporter_id, channel, scope`,
      );
    const results = () => house.client.get(`/api/messages/${message}/results`);
    const [statesBefore, resultsBefore] = [await states(), await results()];

    expect((await (await house.as('organizer')).call('DELETE', `/api/supporters/${ida.id}`)).status).toBe(
      403,
    );
    expect((await house.client.call('DELETE', `/api/supporters/${ida.id}`)).status).toBe(204);

    expect(await states()).toEqual(statesBefore);
    expect(await results()).toEqual(resultsBefore);
    expect((await house.client.call('GET', `/api/supporters/${ida.id}`)).status).toBe(404);
    expect((await house.client.get<{ total: number }>('/api/supporters?search=ida')).total).toBe(0);
    const left = await house.database
      .read(house.scope)
      .sql<{ words: string; said_at: Date }>(
        'SELECT words, said_at FROM permission_entry WHERE organization_id = :org AND supporter_id = :id',
        {
          id: ida.id,
        },
      );
    expect(left.length).toBeGreaterThan(3);
    expect(left.every((row) => row.words === '' || row.words === '(erased)')).toBe(true);
    expect(
      await house.database.write(house.scope, (tx) => new FoldingRepository().differences(tx)),
    ).toMatchObject({ differing: 0 });
  });

  test('leaves no trace of name, address or words in any table', async () => {
    const secret = 'quillon';
    const jo = await someone(secret, '2065550164', 'yes');
    await house.client.post(
      `/api/supporters/${jo.id}/permission`,
      entry(jo, { state: 'no', words: `No, said ${secret}` }),
    );
    await house.client.call('PATCH', `/api/supporters/${jo.id}`, { firstName: secret, lastName: 'Moss' });
    await house.client.call('DELETE', `/api/supporters/${jo.id}`);
    const found = await tablesWith(secret);
    expect(found).toEqual([]);
    expect(await tablesWith('12065550164')).toEqual([]);
  });

  test('a file that brings the address back finds it closed by its hash alone, where it had said no', async () => {
    const ken = await someone('ken', '', 'yes');
    await house.client.post(
      `/api/supporters/${ken.id}/permission`,
      entry(ken, { state: 'no', scope: 'all', on: TODAY }),
    );
    const lou = await someone('lou', '', 'yes');
    for (const person of [ken, lou]) await house.client.call('DELETE', `/api/supporters/${person.id}`);
    const batch = await bringIn(
      house.client,
      'Email,First,Last,Mobile\nken@example.org,Ken,Moss,\nlou@example.org,Lou,Moss,\n',
    );
    const look = await lastLook(
      house.client,
      await draftEmail(house.client, { from: [{ kind: 'batch', id: batch.id }] }),
    );
    expect([look.reached, look.suppressed]).toEqual([1, [{ reason: 'do-not-contact', people: 1 }]]);
    for (const name of ['ken', 'lou'])
      await house.client.call(
        'DELETE',
        `/api/supporters/${(await personBy(house.client, `${name}@example.org`)).id}`,
      );
  });

  test('an address that somebody else has too stays theirs', async () => {
    await bringIn(
      house.client,
      'Email,First,Last,Mobile\npair@example.org,Mia,Moss,\npair@example.org,Noa,Moss,\n',
    );
    const rows = (
      await house.client.get<{ rows: { id: number; firstName: string }[] }>(
        '/api/supporters?search=pair@example.org',
      )
    ).rows;
    await house.client.call('DELETE', `/api/supporters/${rows.find((row) => row.firstName === 'Mia')!.id}`);
    const noa = await personBy(house.client, 'pair@example.org');
    expect([noa.firstName, openedStatuses(noa)]).toEqual([
      'Noa',
      expect.arrayContaining(['email appeals yes']),
    ]);
  });
});

/** Every table and column that holds a text, in any row, in any case. */
async function tablesWith(text: string): Promise<string[]> {
  const knex = house.database.unscoped();
  const [columns] = (await knex.raw(
    `SELECT table_name AS t, column_name AS c
      FROM information_schema.columns
      WHERE table_schema = DATABASE() AND data_type IN ('varchar', 'text', 'longtext', 'char')`,
  )) as [{ t: string; c: string }[]];
  const found: string[] = [];
  for (const { t, c } of columns) {
    const rows = await knex(t)
      .whereRaw('LOWER(CAST(?? AS CHAR)) LIKE ?', [c, `%${text}%`])
      .limit(1);
    if (rows.length > 0) found.push(`${t}.${c}`);
  }
  return found;
}
