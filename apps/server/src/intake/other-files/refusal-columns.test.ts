import type { BatchPreview, RecordView } from '@goodword/core/contract';
import type { ColumnChoice } from '@goodword/core/intake';
import { openTestHouse, type TestHouse } from '../../testing/harness';
import { agreed, batchAt, bringIn, draftEmail, lastLook, NOTHING, takeFile } from '../../testing/steps';
import { personBy } from '../../testing/supporter';

let house: TestHouse;
beforeAll(async () => {
  house = await openTestHouse();
  house.startWorker();
});
afterAll(() => house.close());

const WHO: ColumnChoice[] = [{ to: 'email' }, { to: 'firstName' }, { to: 'lastName' }];
const refusal = (channel: 'email' | 'text' | 'call' | 'post' | 'every'): ColumnChoice => ({
  to: 'refusal',
  channel,
});
const everyone = {
  permission: { email: { ...agreed('appeals'), from: 'everyone' }, text: NOTHING } as never,
};

const noes = async (name: string): Promise<string[]> => {
  const { id } = await personBy(house.client, `${name}@example.org`);
  const record = await house.client.get<RecordView>(`/api/supporters/${id}`);
  return record.entries
    .filter(({ state }) => state === 'no')
    .map(({ channel, scope, how }) => `${channel} ${scope} ${how}`);
};

test('whoever a column of refusals names is opted out, whatever else the file says of them', async () => {
  const csv = [
    'Email,First,Last,Newsletter,Do Not Email,Unsubscribed on',
    'ada@example.org,Ada,Lin,yes,,',
    'bea@example.org,Bea,Lin,yes,Yes,',
    'cal@example.org,Cal,Lin,yes,no,2026-03-01',
    'dan@example.org,Dan,Lin,yes,unsubscribed,',
    'eve@example.org,Eve,Lin,yes,perhaps,',
  ].join('\n');
  const columns: ColumnChoice[] = [
    ...WHO,
    { to: 'consent', channel: 'email' },
    refusal('email'),
    refusal('email'),
  ];
  const batch = await bringIn(house.client, csv, { columns, ...everyone });
  expect(batch.will!.entries.email).toEqual({ yes: 1, no: 4, asked: 0 });
  expect(await Promise.all(['ada', 'bea', 'cal', 'dan', 'eve'].map(noes))).toEqual([
    [],
    ...Array.from({ length: 4 }, () => ['email all file']),
  ]);
  const id = await draftEmail(house.client, { from: [{ kind: 'batch', id: batch.id }] });
  const look = await lastLook(house.client, id);
  expect([look.reached, look.suppressed]).toEqual([1, [{ reason: 'said-no', people: 4 }]]);
});

test('a refusal closes all of the channel, a no in a column of consent what the column is about', async () => {
  const csv =
    'Email,First,Last,News ok,Do Not Email\njan@example.org,Jan,Lin,yes,yes\nkai@example.org,Kai,Lin,no,\nleo@example.org,Leo,Lin,yes,no\n';
  const columns: ColumnChoice[] = [...WHO, { to: 'consent', channel: 'email' }, refusal('email')];
  const permission = { email: { ...agreed('news'), from: 'column' }, text: NOTHING } as never;
  const batch = await bringIn(house.client, csv, { columns, permission });
  expect(batch.will!.entries.email).toEqual({ yes: 1, no: 2, asked: 0 });
  expect(await Promise.all(['jan', 'kai', 'leo'].map(noes))).toEqual([
    ['email all file'],
    ['email news file'],
    [],
  ]);
});

test('a refusal of calls, of post and of everything is kept on each channel, of people who are here and otherwise stay too', async () => {
  await bringIn(house.client, 'Email,First,Last,Mobile\nfay@example.org,Fay,Lin,206 555 0163\n');
  const csv = [
    'Email,First,Last,Do Not Call,No post,Do not contact',
    'fay@example.org,Fay,Lin,Yes,,',
    'gil@example.org,Gil,Lin,,x,',
    'hal@example.org,Hal,Lin,,,1',
    'ivy@example.org,Ivy,Lin,No,0,',
  ].join('\n');
  const columns = [...WHO, refusal('call'), refusal('post'), refusal('every')];
  const batch = await bringIn(house.client, csv, { columns, ...everyone, existing: 'leave' });
  expect(batch.counts).toEqual({ here: 1, new: 3 });
  const no = (n: number) => ({ yes: 0, no: n, asked: 0 });
  expect(batch.will!.entries).toEqual({
    email: { yes: 2, no: 1, asked: 0 },
    text: no(1),
    call: no(2),
    post: no(2),
  });
  expect(await Promise.all(['fay', 'gil', 'hal', 'ivy'].map(noes))).toEqual([
    ['call all file'],
    ['post all file'],
    expect.arrayContaining(['email all file', 'text all file', 'call all file', 'post all file']),
    [],
  ]);
});

test('a file of such columns is guessed as refusals, and one that can be read in two ways is asked', async () => {
  const id = await takeFile(
    house.client,
    'Email,Newsletter opt-out,Consent withdrawn,No mail\na@example.org,Yes,No,Yes\n',
  );
  const { guesses } = await house.client.get<BatchPreview>(`/api/batches/${id}/preview`);
  expect(guesses.map(({ choice }) => choice)).toEqual([
    { to: 'email' },
    refusal('email'),
    refusal('every'),
    refusal('post'),
  ]);
  expect(guesses.map(({ confidence }) => confidence >= 0.65)).toEqual([true, true, true, false]);
});

describe('in a file of another kind', () => {
  const yes = { permission: { email: { ...agreed('appeals'), from: 'everyone' }, text: NOTHING } as never };

  test('of gifts, whoever gave and says no to mail is opted out by it, and the gift counts', async () => {
    await bringIn(house.client, 'Email,First,Last\ngia@example.org,Gia,Lin\ngus@example.org,Gus,Lin\n', {
      columns: WHO,
      ...yes,
    });
    const columns: ColumnChoice[] = [{ to: 'email' }, { to: 'amount' }, { to: 'givenOn' }, refusal('email')];
    const csv =
      'Email,Amount,Day,Do not email\ngia@example.org,25.00,2026-03-01,yes\ngus@example.org,40.00,2026-03-02,no\nnobody@example.org,5.00,2026-03-02,yes\n';
    const batch = await bringIn(house.client, csv, {
      what: 'gifts',
      columns,
      permission: { email: NOTHING, text: NOTHING },
    });
    expect(batch.will!.entries.email).toEqual({ yes: 0, no: 1, asked: 0 });
    expect([await noes('gia'), await noes('gus')]).toEqual([['email all file'], []]);
    const gia = await personBy(house.client, 'gia@example.org');
    expect(gia.gifts.map(({ amount }) => amount)).toEqual([2500]);
    // Taken back out, the gift goes and the no stays.
    await house.client.post(`/api/batches/${batch.id}/take-out`);
    await batchAt(house.client, batch.id, 'taken-out');
    expect([(await personBy(house.client, 'gia@example.org')).gifts, await noes('gia')]).toEqual([
      [],
      ['email all file'],
    ]);
  });

  test('of people who are here, also of who is on the list already', async () => {
    const { id } = await house.client.post<{ id: number }>('/api/lists', {
      name: 'Quay crew',
      isPublic: false,
      description: '',
    });
    await bringIn(house.client, 'Email,First,Last\nhed@example.org,Hed,Lin\nhob@example.org,Hob,Lin\n', {
      columns: WHO,
      listIds: [id],
      ...yes,
    });
    const columns: ColumnChoice[] = [{ to: 'email' }, refusal('every')];
    const csv = 'Email,Do not contact\nhed@example.org,x\nhob@example.org,\n';
    const batch = await bringIn(house.client, csv, {
      what: 'here',
      columns,
      listIds: [id],
      permission: { email: NOTHING, text: NOTHING },
    });
    expect(batch.will!.entries.email).toEqual({ yes: 0, no: 1, asked: 0 });
    expect((await noes('hed')).sort()).toEqual([
      'call all file',
      'email all file',
      'post all file',
      'text all file',
    ]);
    expect(await noes('hob')).toEqual([]);
    // Another file that says no is another no, which is written down; who says nothing new stays as they are.
    const again = await bringIn(house.client, csv, {
      what: 'here',
      columns,
      listIds: [id],
      permission: { email: NOTHING, text: NOTHING },
    });
    expect([again.counts, (await noes('hed')).length]).toEqual([{ same: 1, update: 1 }, 8]);
  });
});
