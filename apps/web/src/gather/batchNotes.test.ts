import type { BatchView } from '@goodword/core/contract';
import { batchNotes } from './batchNotes';

const BATCH = {
  id: 7,
  state: 'checked',
  what: 'people',
  counts: { new: 10 },
  problem: null,
  withFaults: 0,
  withHints: 0,
  stayNo: 0,
  stayed: 0,
  fileKept: true,
  will: null,
};

function margin(batch: Partial<Record<keyof BatchView, unknown>>) {
  const asked: unknown[] = [];
  const acts = {
    open: (opened: unknown) => void asked.push(['open', opened]),
    look: (why: string) => void asked.push(['look', why]),
  };
  const notes = batchNotes({ ...BATCH, ...batch } as unknown as BatchView, acts as never);
  return {
    asked,
    notes,
    keys: notes.map(({ key }) => key),
    note: (key: string) => notes.find((one) => one.key === key),
  };
}

test('nothing of a batch that is not there', () => expect(batchNotes(undefined, {} as never)).toEqual([]));

test('a checked batch says that nothing is changed yet; one that is in does not', () => {
  expect(margin({}).keys).toEqual(['safe']);
  expect(margin({ state: 'done' }).keys).toEqual([]);
});

test('rows that want a look lead to them, as long as they can still be settled', () => {
  const { note, asked } = margin({ counts: { look: 1 } });
  expect(note('looks')!.title).toBe('1 row wants a look');
  note('looks')!.remedy!.act();
  expect(asked).toEqual([['look', 'all']]);
  expect(margin({ counts: { look: 1 }, state: 'done' }).keys).toEqual([]);
});

test('rows with errors are counted together, and are a fault only where some stay out', () => {
  expect(margin({ counts: { failed: 2 }, withFaults: 3 }).note('mend')).toMatchObject({
    tone: 'fault',
    title: '5 rows with errors',
  });
  const one = margin({ counts: {}, withFaults: 1 }).note('mend')!;
  expect([one.title, one.body]).toEqual([
    '1 row with errors',
    expect.stringMatching(/^1 comes in without a cell\. Mend/),
  ]);
  expect(margin({ withFaults: 3 }).note('mend')).toMatchObject({ tone: 'doubt' });
  // The rows as they stood in the file are gone with it.
  expect(margin({ counts: { failed: 2 }, fileKept: false }).note('mend')).toBeUndefined();
});

test('hints open to the rows that have them', () => {
  const { note, asked } = margin({ withHints: 4 });
  note('hints')!.remedy!.act();
  expect(asked).toEqual([['open', { only: 'hints', words: 'Rows to look at' }]]);
});

test('a past no is told of people, and not of a file of refusals', () => {
  expect(margin({ stayNo: 1 }).note('no')!.title).toBe('1 said no before, and stays no');
  expect(margin({ stayNo: 3 }).note('no')!.title).toBe('3 said no before, and stay no');
  expect(margin({ stayNo: 3, what: 'refusals' }).note('no')).toBeUndefined();
});

test('places with rules of their own, and evidence that is old', () => {
  const { keys, note } = margin({ will: { signedLongAgo: 2, places: { EU: 1, CA: 5, NZ: 9 } } });
  expect(keys).toEqual(['old', 'eu', 'ca', 'safe']);
  expect(note('eu')!.title).toBe('1 lives in the European Union');
  expect(note('ca')!.title).toBe('5 live in Canada');
});

test('who stayed when it was taken back out; and what stopped it', () => {
  expect(margin({ state: 'taken-out', stayed: 1 }).note('stayed')!.title).toBe('1 person stayed');
  expect(margin({ state: 'taken-out', stayed: 0 }).keys).toEqual([]);
  expect(
    margin({ state: 'stopped', problem: 'It could not go on: the disk is full' }).notes[0],
  ).toMatchObject({
    tone: 'fault',
    title: 'It stopped',
  });
});
