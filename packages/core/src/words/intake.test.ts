import { ROW_VERDICTS } from '../intake';
import { verdictSentence } from '../words';

test('what became of a batch is one sentence, in words', () => {
  expect(verdictSentence({ aside: 1, new: 1206, update: 1, shares: 1, failed: 0 })).toBe(
    '1,206 new, 1 new at a shared address, 1 updated, 1 skipped: a blank line, a total or the header once more',
  );
  expect(verdictSentence({ new: 1206, gift: 1 }, 'de-DE')).toBe('1.206 new, 1 gift');
  expect(verdictSentence({})).toBe('');
});

test('every verdict is told', () => {
  for (const verdict of ROW_VERDICTS) expect(verdictSentence({ [verdict]: 2 })).toMatch(/^2 [a-z]/);
});
