import type { BatchPreview, BatchView, JobView, LayoutView } from '@goodword/core/contract';
import type { ColumnChoice, IntakePlan } from '@goodword/core/intake';
import { gathering, HEAD } from '../testing/gathering';
import { openTestHouse, eventually, type TestHouse } from '../testing/harness';
import { batchAt, bringIn, STEP_COLUMNS, planFor, takeFile } from '../testing/steps';

let house: TestHouse;
beforeAll(async () => {
  house = await openTestHouse();
  house.startWorker();
});
afterAll(() => house.close());
const { find, record, rowsOf } = gathering(() => house);

describe('reading and settling over the API', () => {
  test('what was found is told with its confidence, can be changed, and every row is read before anything is written', async () => {
    const id = await takeFile(
      house.client,
      'Members 2026;;\nCorreo electrónico;Nombre;Apellidos\nana@example.org;Ana;Núñez\nTotal;1;\n',
      'miembros.csv',
    );
    const preview = await house.client.get<BatchPreview>(`/api/batches/${id}/preview`);
    expect(preview.found).toMatchObject({
      delimiter: ';',
      headerLine: 2,
      titles: ['Members 2026'],
      rows: 2,
      asides: { total: 1 },
    });
    expect(preview.guesses.map(({ choice, confidence }) => [choice.to, confidence > 0.8])).toEqual([
      ['email', true],
      ['firstName', true],
      ['lastName', true],
    ]);
    await house.client.put(`/api/batches/${id}/reading`, { reading: { headerLine: 1 } });
    await eventually(
      'the file to be read anew',
      () => house.client.get<BatchView>(`/api/batches/${id}`),
      (batch) => batch.state === 'draft',
    );
    expect((await house.client.get<BatchPreview>(`/api/batches/${id}/preview`)).found.header).toEqual([
      'Members 2026',
    ]);
    await house.client.put(`/api/batches/${id}/reading`, { reading: { headerLine: 2, keepAside: false } });
    await batchAt(house.client, id, 'draft');
    await house.client.put(
      `/api/batches/${id}/plan`,
      planFor({ columns: [{ to: 'email' }, { to: 'firstName' }, { to: 'lastName' }] }),
    );
    await batchAt(house.client, id, 'checked');
    expect((await rowsOf(id)).rows).toMatchObject([
      { row: 1, verdict: 'new', email: 'ana@example.org', firstName: 'Ana', lastName: 'Núñez', reason: '' },
      { row: 2, verdict: 'aside', reason: 'skipped: total row' },
    ]);
    expect(await find('ana@')).toEqual([]);
  });

  test('mends are made before cells are read: an edit, swapped cells, spellings, a piece of text', async () => {
    const columns: ColumnChoice[] = [
      { to: 'email' },
      { to: 'mobile' },
      { to: 'firstName' },
      { to: 'newField', name: 'Shirt', type: 'choice' },
    ];
    const mends: IntakePlan['mends'] = [
      { kind: 'swap', a: 1, b: 2 },
      { kind: 'write', column: 4, from: ['medium', 'Med'], to: 'M' },
      { kind: 'strip', column: 3, text: ' (guest)' },
      { kind: 'edit', row: 2, column: 1, value: 'mended@example.org' },
    ];
    const batch = await bringIn(
      house.client,
      'Email,Mobile,First,Shirt\n206 555 0141,swapped@example.org,Una (guest),medium\nbroken@,,Vic,Med\n',
      {
        columns,
        mends,
      },
    );
    expect(batch.counts).toEqual({ new: 2 });
    expect(await record('swapped@')).toMatchObject({
      firstName: 'Una',
      fields: expect.arrayContaining([expect.objectContaining({ name: 'Shirt', shown: 'M' })]) as unknown,
    });
    expect((await find('mended@')).length).toBe(1);
  });

  test('constants, several addresses in one cell, whole names, and a country of its own for numbers', async () => {
    const columns: ColumnChoice[] = [{ to: 'nameEmail' }, { to: 'mobile' }, { to: 'email' }];
    const constants: IntakePlan['constants'] = [
      { choice: { to: 'newField', name: 'Came by', type: 'text' }, value: 'ferry' },
    ];
    await bringIn(
      house.client,
      'Who,Phone,More\n"Ruth van der Abara <ruth.v@example.org>",020 7946 0018,"one@example.org; two@example.org"\n',
      {
        columns,
        constants,
        phoneCountry: 'GB',
      },
    );
    expect(await record('ruth.v@')).toMatchObject({
      firstName: 'Ruth',
      lastName: 'van der Abara',
      contactPoints: expect.arrayContaining(
        ['ruth.v@example.org', '+44 20 7946 0018', 'one@example.org', 'two@example.org'].map(
          (shown) => expect.objectContaining({ shown }) as unknown,
        ),
      ) as unknown,
      fields: expect.arrayContaining([
        expect.objectContaining({ name: 'Came by', shown: 'ferry' }),
      ]) as unknown,
    });
  });

  test('a half-done batch is kept for the team, found again, and can be thrown away', async () => {
    const id = await takeFile(house.client, `${HEAD}half@example.org,Ha,Lf,\n`);
    await house.client.put(`/api/batches/${id}/draft`, {
      step: 'Permission',
      name: 'Half done',
      plan: { columns: STEP_COLUMNS },
      basedOn: 0,
    });
    const other = await house.as('organizer');
    expect(await other.get<BatchView>(`/api/batches/${id}`)).toMatchObject({
      name: 'Half done',
      state: 'draft',
      draft: { step: 'Permission', plan: { columns: STEP_COLUMNS } },
    });
    expect(
      (await other.get<BatchView[]>('/api/batches?state=open&source=half')).map((batch) => batch.id),
    ).toEqual([id]);
    expect((await other.get<BatchView[]>('/api/batches?state=done&source=half')).length).toBe(0);
    const viewer = await house.as('viewer');
    expect((await viewer.call('DELETE', `/api/batches/${id}`)).status).toBe(403);
    // A file holds more than is shown to everybody: sensitive fields, and whatever was never brought in.
    expect(await viewer.get<BatchView>(`/api/batches/${id}`)).toMatchObject({
      name: 'Half done',
      found: null,
      plan: null,
      draft: null,
    });
    for (const part of ['preview', 'text', 'rows', 'rows/1', 'rows-to-mend.csv', 'brought-in.csv'])
      expect([part, (await viewer.call('GET', `/api/batches/${id}/${part}`)).status]).toEqual([part, 403]);
    expect((await other.call('DELETE', `/api/batches/${id}`)).status).toBe(204);
    expect((await other.call('GET', `/api/batches/${id}`)).status).toBe(404);
  });

  test('rows that came in and rows to mend are downloaded, as CSV and as a workbook that comes in again', async () => {
    const batch = await bringIn(house.client, `${HEAD}down@example.org,Do,Wn,\nwrong,Wr,Ong,\n`);
    const came = await house.client.call('GET', `/api/batches/${batch.id}/brought-in.csv`);
    expect(came.text).toContain(`down@example.org,Do,Wn,,${(await find('down@'))[0]!.id},new`);
    const form = new FormData();
    const sheet = await fetch(`${house.config.PUBLIC_URL}/api/batches/${batch.id}/rows-to-mend.xlsx`, {
      headers: { cookie: house.client.cookies },
    });
    expect(sheet.headers.get('content-type')).toContain('spreadsheetml');
    form.append('file', new Blob([await sheet.arrayBuffer()]), 'mended.xlsx');
    const { id } = await house.client.post<{ id: number }>('/api/batches', form);
    expect((await batchAt(house.client, id, 'draft')).found).toMatchObject({
      kind: 'workbook',
      header: ['Email', 'First', 'Last', 'Mobile', 'Why'],
      rows: 1,
    });
    const blank = await house.client.call('GET', '/api/batches/prepared.csv');
    expect(blank.text).toMatch(/Email,First name,Last name,Mobile,.*Shirt/);
    expect(blank.text).toContain('Delete this line.');
  });

  test('layouts are remembered by their headers, renamed and forgotten; work and batches are listed', async () => {
    await bringIn(house.client, 'E-mail;Vorname;Schuhgröße\nlay@example.org;Lay;42\n', {
      columns: [{ to: 'email' }, { to: 'firstName' }, { to: 'newField', name: 'Shoe', type: 'number' }],
    });
    const layout = async () =>
      (await house.client.get<LayoutView[]>('/api/layouts')).find((one) => one.header.includes('Schuhgröße'));
    expect((await layout())!.columns).toMatchObject([
      { to: 'email' },
      { to: 'firstName' },
      { to: 'field', type: 'number' },
    ]);
    await house.client.put(`/api/layouts/${(await layout())!.id}`, { name: 'Shoes', basedOn: 0 });
    expect((await layout())!.name).toBe('Shoes');
    await house.client.call('DELETE', `/api/layouts/${(await layout())!.id}`);
    expect(await layout()).toBeUndefined();
    const jobs = await house.client.get<JobView[]>('/api/jobs');
    expect(jobs[0]).toMatchObject({
      kind: 'batch-bring-in',
      subject: 'people',
      state: 'done',
      by: 'The owner',
    });
    expect(
      (await house.client.get<{ arrived: { name: string }[] }>('/api/today')).arrived.length,
    ).toBeGreaterThan(0);
  });
});
