import type { BatchView } from '@goodword/core/contract';
import { plural } from '../app/format';
import type { Note } from '../ui/margin';
import type { Opened } from './BatchCounts';

/** What the Margin says of a checked or finished batch; without `acts` it offers nothing to whoever may only read. */
export function batchNotes(batch: BatchView | undefined, acts: { open(opened: Opened): void; look(why: string): void } | null): Note[] {
  if (!batch) return [];
  const notes: Note[] = [];
  const add = (key: string, tone: Note['tone'], title: string, body: string, remedy?: Note['remedy']) =>
    notes.push({ key, tone, title, body, ...(remedy && acts ? { remedy } : {}) });
  const failed = batch.counts.failed ?? 0;
  const looks = batch.counts.look ?? 0;
  if (batch.problem) add('problem', 'fault', 'It stopped', batch.problem);
  if (looks > 0 && batch.state === 'checked')
    add(
      'looks',
      'doubt',
      `${looks} ${plural(looks, 'row wants', 'rows want')} a look`,
      'They may be people who are here. Whatever is not settled stays out.',
      {
        words: 'Look at them',
        act: () => acts?.look('all'),
      },
    );
  if (failed + batch.withFaults > 0 && batch.fileKept)
    add(
      'mend',
      failed > 0 ? 'fault' : 'doubt',
      `${failed + batch.withFaults} ${plural(failed + batch.withFaults, 'row', 'rows')} with errors`,
      `${[
        failed > 0 && `${failed} ${plural(failed, 'does', 'do')} not come in`,
        batch.withFaults > 0 && `${batch.withFaults} ${plural(batch.withFaults, 'comes', 'come')} in without a cell`,
      ]
        .filter(Boolean)
        .join(', ')}. Mend them in the file and bring it in again: nobody comes in twice.`,
      { words: 'Download them with the reasons', act: () => void window.open(`/api/batches/${batch.id}/rows-to-mend.csv`) },
    );
  if (batch.withHints > 0)
    add(
      'hints',
      'doubt',
      `${batch.withHints} ${plural(batch.withHints, 'row', 'rows')} to look at`,
      'A likely slip in a domain, a landline, a refusal that can’t be read for sure, and the like: each row says which.',
      {
        words: 'See them',
        act: () => acts?.open({ only: 'hints', words: 'Rows to look at' }),
      },
    );
  if (batch.stayNo > 0 && batch.what === 'people')
    add(
      'no',
      'doubt',
      `${batch.stayNo} said no before, and ${plural(batch.stayNo, 'stays', 'stay')} no`,
      'The file says yes for them, but only they can come back, by their own act.',
    );
  const { will } = batch;
  if (will && will.signedLongAgo > 0)
    add(
      'old',
      'doubt',
      `${will.signedLongAgo} agreed long ago`,
      'Before the months after which your house rule calls evidence old. It still counts; asking them again is kinder than being forgotten.',
    );
  for (const [place, people] of Object.entries(will?.places ?? {})) {
    if (place === 'EU')
      add(
        'eu',
        'plain',
        `${people} ${plural(people, 'lives', 'live')} in the European Union`,
        'There a yes must be shown on request: the words and the day that you gave are that proof.',
      );
    if (place === 'CA')
      add(
        'ca',
        'plain',
        `${people} ${plural(people, 'lives', 'live')} in Canada`,
        'There the sender must be able to prove consent, and a relationship counts for a set time only.',
      );
  }
  if (batch.state === 'checked')
    add('safe', 'good', 'Nothing is changed yet', 'And a batch can be taken back out as a whole. Whoever got a message meanwhile would stay.');
  if (batch.state === 'taken-out' && batch.stayed > 0)
    add(
      'stayed',
      'plain',
      `${batch.stayed} ${plural(batch.stayed, 'person', 'people')} stayed`,
      'Something happened to them after they came in: a message, a gift or an edit.',
    );
  return notes;
}
