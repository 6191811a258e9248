import { waitFor } from '@testing-library/react';
import type { BatchView, LayoutView } from '@goodword/core/contract';
import { reply, serve, type RecordedCall } from '../testing';
import { offeredName, planOfDraft, stepsOf, useDraft } from './draft';
import type { Ask } from './intake.worker';

const HOUSE = { fields: [], country: 'US', currency: 'USD', today: 20_900, layouts: [] as LayoutView[] };
const FILE =
  'Email,First name,Cell\nann@example.org,Ann,206 555 0101\nbo@example,Bo,\ncy@example.org,Cy,206 555 0103\n';

type Heard = (event: { data?: unknown }) => void;

/** The worker's own code, in this thread; `gone` has the browser end it at the next question. */
class HereWorker {
  static made: HereWorker[] = [];
  static gone = false;
  private readonly heard: Record<string, Heard[]> = { message: [], error: [] };
  ended = false;

  constructor() {
    HereWorker.made.push(this);
  }
  addEventListener(kind: string, hear: Heard) {
    this.heard[kind]!.push(hear);
  }
  removeEventListener(kind: string, hear: Heard) {
    this.heard[kind] = this.heard[kind]!.filter((one) => one !== hear);
  }
  terminate() {
    this.ended = true;
  }
  postMessage(question: Ask) {
    if (HereWorker.gone) return void setTimeout(() => this.tell('error', {}));
    Object.assign(globalThis, { postMessage: (data: unknown) => this.tell('message', { data }) });
    setTimeout(() => (globalThis as unknown as { onmessage: Heard }).onmessage({ data: question }));
  }
  get listeners(): number {
    return this.heard.message!.length + this.heard.error!.length;
  }
  private tell(kind: string, event: { data?: unknown }) {
    for (const hear of [...this.heard[kind]!]) hear(event);
  }
}

beforeAll(async () => {
  // A form takes files of jsdom alone.
  // prettier-ignore
  Object.assign(globalThis, { Worker: HereWorker, FormData: class extends Map { append = this.set } });
  await import('./intake.worker');
});
let asked: RecordedCall[];
beforeEach(() => {
  useDraft.getState().reset();
  HereWorker.gone = false;
  asked = serve({ 'POST batches': { id: 7 }, 'PUT batches/7/draft': () => ({ version: 1 }) });
});

const now = () => useDraft.getState();
const fileOf = (text: string | Uint8Array, name = 'sign-ups.csv') => new File([text as string], name);
const taken = async (text: string | Uint8Array = FILE, house = HOUSE) => {
  await now().take(fileOf(text), house, null);
  await waitFor(() => expect(now().judging).toBe(false));
};
const saved = () =>
  asked
    .filter(({ path }) => path === 'batches/7/draft')
    .map(({ body }) => body as { step: string; plan: { columns: unknown[] } });

describe('a file on its way in', () => {
  test('is read and guessed in the page, taken by the server, and judged by its values', async () => {
    await taken();
    expect(now()).toMatchObject({ step: 'Columns', batchId: 7, problem: null, reading: null });
    expect(now().columns).toEqual([{ to: 'email' }, { to: 'firstName' }, { to: 'mobile' }]);
    expect(now().judgement).toMatchObject({ counted: 3, ready: 2, failed: 1, faultsByColumn: [1, 0, 0] });
    expect(now().judgement!.cells['2:0']!.words).toContain('has no ending such as .org');
  });

  test('is kept on the server a moment after the last of several changes, once', async () => {
    await taken();
    await waitFor(() => expect(saved()).toHaveLength(1), { timeout: 3000 });
    now().choose(2, { to: 'leave' });
    now().choose(1, { to: 'lastName' });
    now().rename('Harbor day');
    await waitFor(() => expect(saved()).toHaveLength(2), { timeout: 3000 });
    expect(saved()[1]).toMatchObject({
      name: 'Harbor day',
      plan: { columns: [{ to: 'email' }, { to: 'lastName' }, { to: 'leave' }] },
    });
  });

  test('is judged anew when a cell is mended, and again when that is undone', async () => {
    await taken();
    now().mend({ kind: 'edit', row: 2, column: 1, value: 'bo@example.org' });
    await waitFor(() => expect(now().judgement).toMatchObject({ ready: 3, failed: 0 }));
    now().unmend(0);
    await waitFor(() => expect(now().judgement).toMatchObject({ ready: 2, failed: 1 }));
  });

  test('that is a picture is told and not sent', async () => {
    await now().take(
      fileOf(new Uint8Array([0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a, 0, 0, 0, 13])),
      HOUSE,
      null,
    );
    expect(now().problem).toMatch(/picture/);
    expect([now().file, asked]).toEqual([null, []]);
  });

  test('that holds nothing is told, whatever the server says of it', async () => {
    await now().take(fileOf('Email,Name\n'), HOUSE, null);
    expect(now().problem).toMatch(/only a header/);
    expect(now().analysis).toBeNull();
  });

  test('that the server does not take says why', async () => {
    asked = serve({
      'POST batches': () =>
        reply(413, { title: 'Too large', status: 413, detail: 'The file is larger than 100 MB.' }),
    });
    await now().take(fileOf(FILE), HOUSE, null);
    expect(now()).toMatchObject({ unsent: 'The file is larger than 100 MB.', batchId: null });
  });

  test('that did not reach the server stays on the page with what was settled, and is handed over again', async () => {
    let tries = 0;
    asked = serve({
      'POST batches': () => {
        if (++tries < 3) throw new TypeError('Failed to fetch');
        return { id: 7 };
      },
      'PUT batches/7/draft': () => ({ version: 1 }),
    });
    await taken();
    expect(now()).toMatchObject({ batchId: null, step: 'Columns', problem: null, judgement: { counted: 3 } });
    expect(now().unsent).toMatch(/The server cannot be reached just now/);
    now().choose(1, { to: 'lastName' });
    await now().send();
    expect(now()).toMatchObject({
      batchId: null,
      columns: [{ to: 'email' }, { to: 'lastName' }, { to: 'mobile' }],
    });
    await now().send();
    expect(now()).toMatchObject({ batchId: 7, unsent: null });
    await waitFor(() => expect(saved().at(-1)?.plan.columns[1]).toEqual({ to: 'lastName' }), {
      timeout: 3000,
    });
  });

  test('that is a workbook can be chosen again when it did not reach the server', async () => {
    asked = serve({
      'POST batches': () => {
        throw new TypeError('Failed to fetch');
      },
    });
    await now().take(fileOf(new Uint8Array([0x50, 0x4b, 3, 4, 20, 0]), 'people.xlsx'), HOUSE, null);
    expect(now()).toMatchObject({ reading: null, unsent: null, analysis: null });
    expect(now().problem).toMatch(/cannot be reached/);
  });

  test('in a browser that gives up is told in a sentence, and can be read again', async () => {
    HereWorker.gone = true;
    await now().take(fileOf(FILE), HOUSE, null);
    expect(now().problem).toMatch(/The browser gave up reading the file/);
    expect(HereWorker.made.at(-1)!.ended).toBe(true);
    HereWorker.gone = false;
    await taken();
    expect(now()).toMatchObject({ problem: null, step: 'Columns' });
    // Nothing is left listening.
    expect(HereWorker.made.at(-1)!.listeners).toBe(0);
  });

  test('is read anew as what a person says it is, and what was mended in the old reading goes', async () => {
    await taken('Email;Note\nann@example.org;a,b\nbo@example.org;c,d\n');
    expect(now().analysis!.found.header).toEqual(['Email', 'Note']);
    now().mend({ kind: 'edit', row: 1, column: 2, value: 'x' });
    await now().readAgain({ delimiter: ',' }, null, HOUSE);
    expect(now().analysis!.found.header).toHaveLength(1);
    expect(now().parts.mends).toEqual([]);
    expect(now().readAs).toEqual({ delimiter: ',' });
  });

  test('with the headers of a layout that is remembered gets its columns', async () => {
    const layout = {
      ...{ id: 3, name: 'Pier sheet', what: 'people', header: ['Email', 'First name', 'Cell'] },
      columns: [{ to: 'email' }, { to: 'lastName' }, { to: 'leave' }],
    };
    await taken(FILE, { ...HOUSE, layouts: [layout as unknown as LayoutView] });
    expect(now().columns).toEqual(layout.columns);
    expect(now().layout).toMatchObject({ exact: true });
  });
});

describe('a long file', () => {
  const ROWS = 45_000;
  const LONG_FILE =
    'Email,First name,Cell\n' +
    Array.from({ length: ROWS }, (_none, i) => `pier.${i}@example.org,Person ${i} of the pier,`).join('\n');
  const sent = () => asked.filter(({ path }) => path === 'batches').length;
  const begun = (file = fileOf(LONG_FILE)) => ({ file, over: now().take(file, HOUSE, null) });
  const glimpsed = () => waitFor(() => expect(now().analysis?.whole).toBe(false), { interval: 1 });

  test('shows its start at once, goes to the server when all of it has been read, and is judged whole', async () => {
    const { over } = begun();
    await glimpsed();
    expect(now()).toMatchObject({ step: 'Columns', reading: 'Reading the rest of the file…', batchId: null });
    expect(now().analysis!.preview).toHaveLength(200);
    expect(sent()).toBe(0);
    await over;
    expect(now()).toMatchObject({ batchId: 7, reading: null, judging: false });
    expect(now().analysis).toMatchObject({ whole: true, found: { rows: ROWS } });
    expect(now().judgement).toMatchObject({ counted: ROWS, ready: ROWS });
    expect(sent()).toBe(1);
  });

  test('keeps what a person chose of a column while the rest was being read', async () => {
    const { over } = begun();
    await glimpsed();
    now().choose(1, { to: 'lastName' });
    await over;
    expect(now().columns).toEqual([{ to: 'email' }, { to: 'lastName' }, { to: 'mobile' }]);
    expect(now().analysis!.whole).toBe(true);
    expect(now().judgement).toMatchObject({ counted: ROWS });
  });

  test('that is read anew as something else meanwhile is read once as that, and sent once', async () => {
    const { over } = begun();
    await glimpsed();
    const again = now().readAgain({ delimiter: ';' }, null, HOUSE);
    await Promise.all([over, again]);
    expect(now().analysis).toMatchObject({
      whole: true,
      found: { header: ['Email,First name,Cell'], delimiter: ';' },
    });
    expect(sent()).toBe(1);
    expect(HereWorker.made.at(-1)!.listeners).toBe(0);
  });

  test('for which another is chosen is neither read on nor sent', async () => {
    const { over } = begun();
    await glimpsed();
    await now().take(fileOf(FILE), HOUSE, null);
    await over;
    expect(now()).toMatchObject({ batchId: 7, analysis: { found: { rows: 3 } }, judgement: { counted: 3 } });
    expect(sent()).toBe(1);
  });
});

test('a batch that another file has taken the place of does not become the batch on the page', async () => {
  const answers: ((value: unknown) => void)[] = [];
  serve({
    'POST batches': () => new Promise((done) => answers.push(done)),
    'PUT batches/8/draft': () => ({ version: 1 }),
  });
  const first = now().take(fileOf(FILE), HOUSE, null);
  await waitFor(() => expect(answers).toHaveLength(1));
  const second = now().take(fileOf('Email\neva@example.org\n'), HOUSE, null);
  await waitFor(() => expect(answers).toHaveLength(2));
  answers[1]!(reply(201, { id: 8 }));
  await second;
  answers[0]!(reply(201, { id: 7 }));
  await first;
  expect(now()).toMatchObject({ batchId: 8, analysis: { found: { header: ['Email'] } } });
});

describe('a batch taken up again', () => {
  const BATCH = {
    ...{ id: 7, name: 'Harbor day', fileName: 'sign-ups.csv', what: 'people', state: 'draft' },
    found: { kind: 'text', encoding: 'utf-8', delimiter: ',', headerLine: 1 },
    draft: {
      step: 'Permission',
      plan: { columns: [{ to: 'email' }, { to: 'lastName' }, { to: 'leave' }], tagIds: [5], permission: {} },
    },
  } as unknown as BatchView;

  test('stands where it was left, with what was settled', async () => {
    asked = serve({
      'GET batches/7': BATCH,
      'GET batches/7/text': () => ({ ok: true, blob: async () => new Blob([FILE]), text: async () => '' }),
    });
    await now().open(BATCH, HOUSE);
    expect(now()).toMatchObject({
      step: 'Permission',
      batchId: 7,
      name: 'Harbor day',
      parts: { tagIds: [5] },
    });
    expect(now().columns).toEqual([{ to: 'email' }, { to: 'lastName' }, { to: 'leave' }]);
  });

  const BEGUN = { step: 'Where they go' as const, name: 'Begun', plan: { what: 'people' as const } };
  const LATER = { ...BEGUN, name: 'Typed since' };
  const stored = (here: object) => localStorage.setItem('gw-batch:7', JSON.stringify(here));
  const opened = async (batch: object) => {
    await now().open({ ...BATCH, draftVersion: 1, ...batch } as BatchView, HOUSE);
    return { name: now().name, newer: now().newer?.words ?? null, basedOn: now().draftVersion };
  };

  test('goes on with what was typed while a save was on its way that a reload never heard of', async () => {
    stored({ draft: LATER, basedOn: 0, sent: BEGUN });
    expect(await opened({ name: 'Begun', draft: BEGUN })).toEqual({
      name: 'Typed since',
      newer: null,
      basedOn: 1,
    });
  });

  test('goes on likewise where that save arrives after it was opened', async () => {
    const text = {
      'GET batches/7/text': () => ({ ok: true, blob: async () => new Blob([FILE]), text: async () => '' }),
    };
    serve({ ...text, 'GET batches/7': BATCH });
    stored({ draft: LATER, basedOn: 0, sent: BEGUN });
    await opened({ name: 'As it came', draft: null, draftVersion: 0 });
    const refused = () =>
      reply(409, { title: 'Changed meanwhile', status: 409, detail: 'Somebody changed it.', newer: true });
    let saves = 0;
    asked = serve({
      'PUT batches/7/draft': () => (saves++ === 0 ? refused() : { version: 2 }),
      'GET batches/7': { ...BATCH, name: 'Begun', draft: BEGUN, draftVersion: 1 },
    });
    await now().save();
    expect(
      asked.filter(({ method }) => method === 'PUT').map(({ body }) => (body as { basedOn: number }).basedOn),
    ).toEqual([0, 1]);
    expect(now()).toMatchObject({ newer: null, draftVersion: 2, name: 'Typed since' });
  });

  test('shows both where somebody else saved since, and loses neither', async () => {
    stored({ draft: LATER, basedOn: 0, sent: null });
    expect(await opened({ name: 'Theirs', draft: { ...BEGUN, name: 'Theirs' } })).toMatchObject({
      name: 'Typed since',
      newer: expect.stringContaining('Somebody changed this batch'),
      basedOn: 0,
    });
    await now().open(now().newer!.theirs, HOUSE, true);
    expect(now()).toMatchObject({ name: 'Theirs', newer: null });
    expect(localStorage.getItem('gw-batch:7')).toBeNull();
  });

  test('waits while the server is away, says so, and goes on when it is back', async () => {
    let [asks, texts] = [0, 0];
    asked = serve({
      'GET batches/7': () => {
        if (++asks === 1) throw new TypeError('Failed to fetch');
        return BATCH;
      },
      'GET batches/7/text': () =>
        ++texts === 1
          ? reply(503, null)
          : { ok: true, status: 200, blob: async () => new Blob([FILE]), text: async () => '' },
    });
    const over = now().open(BATCH, HOUSE);
    await waitFor(() => expect(now().reading).toMatch(/does not answer just now/));
    await over;
    expect(now()).toMatchObject({
      step: 'Permission',
      reading: null,
      problem: null,
      analysis: { whole: true },
    });
    expect([asks, texts]).toEqual([2, 2]);
  });

  test('that is not for this teammate says why', async () => {
    asked = serve({
      'GET batches/7': () =>
        reply(403, { title: 'Not yours to do', status: 403, detail: 'That is for organizers.' }),
    });
    await now().open(BATCH, HOUSE);
    expect(now()).toMatchObject({ problem: 'That is for organizers.', reading: null });
  });

  test('whose file is no longer kept says so', async () => {
    asked = serve({ 'GET batches/7': BATCH, 'GET batches/7/text': () => reply(404, { detail: 'gone' }) });
    await now().open(BATCH, HOUSE);
    expect(now().problem).toBe('The file of this batch is no longer kept.');
  });

  test('that could not be read says why, and is still the batch that it is', async () => {
    asked = serve({
      'GET batches/7': {
        ...BATCH,
        found: null,
        state: 'unreadable',
        problem: 'The workbook is locked with a password.',
      },
    });
    await now().open(BATCH, HOUSE);
    expect(now()).toMatchObject({
      problem: 'The workbook is locked with a password.',
      batchId: 7,
      reading: null,
      analysis: null,
    });
  });
});

test.each([
  ['harbor_sign-ups.csv', 'harbor sign ups, 27 Nov 2026'],
  ['.csv', 'Batch, 27 Nov 2026'],
  [`${'x'.repeat(200)}.xlsx`, `${'x'.repeat(90)}, 27 Nov 2026`],
])('%s is called %s', (file, name) => expect(offeredName(file, new Date(2026, 10, 27))).toBe(name));

test('each kind of file has the steps that it needs', () => {
  expect(stepsOf('people')).toContain('Permission');
  expect(stepsOf('here')).toEqual(['File', 'Columns', 'Where they go', 'Matches']);
  expect(stepsOf('gifts')).toEqual(['File', 'Columns', 'Matches']);
  expect(stepsOf('refusals')).toEqual(['File', 'Columns', 'Matches']);
});

test('there is a plan when both channels are answered; of other files nothing is asked', () => {
  const at = (email: string, text: string, what = 'people') =>
    planOfDraft({
      columns: [],
      readAs: { sheet: 2, delimiter: ';' },
      parts: { what } as never,
      permission: { email: { said: email }, text: { said: text } } as never,
    });
  expect(at('nothing', 'unanswered')).toBeNull();
  expect(at('bought', 'nothing')).toBeNull();
  // The server chose the sheet when it read the file; what is read since is its text.
  expect(at('nothing', 'nothing')).toMatchObject({
    reading: { delimiter: ';' },
    permission: { email: { said: 'nothing' } },
  });
  expect(at('unanswered', 'unanswered', 'gifts')).toMatchObject({
    permission: { text: { said: 'nothing' } },
  });
});
