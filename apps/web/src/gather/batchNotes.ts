import { plural, t } from '@lingui/core/macro';
import type { BatchView } from '@goodword/core/contract';
import type { Note } from '../ui/margin';
import type { Opened } from './BatchCounts';

/**
 * What the Margin says of a checked or finished batch; without `acts` it offers nothing to whoever may only
 * read.
 */
export function batchNotes(
  batch: BatchView | undefined,
  acts: { open(opened: Opened): void; look(why: string): void } | null,
): Note[] {
  if (!batch) return [];
  const notes: Note[] = [];
  const add = (key: string, tone: Note['tone'], title: string, body: string, remedy?: Note['remedy']) =>
    notes.push({ key, tone, title, body, ...(remedy && acts ? { remedy } : {}) });
  const failed = batch.counts.failed ?? 0;
  const looks = batch.counts.look ?? 0;
  if (batch.problem) add('problem', 'fault', t`It stopped`, batch.problem);
  if (looks > 0 && batch.state === 'checked')
    add(
      'looks',
      'doubt',
      t`${looks} ${plural(looks, { one: 'row wants', other: 'rows want' })} a look`,
      t`They may be people who are here. Whatever is not settled stays out.`,
      {
        words: t`Look at them`,
        act: () => acts?.look('all'),
      },
    );
  if (failed + batch.withFaults > 0 && batch.fileKept)
    add(
      'mend',
      failed > 0 ? 'fault' : 'doubt',
      t`${failed + batch.withFaults} ${plural(failed + batch.withFaults, { one: 'row', other: 'rows' })} with errors`,
      t`${[
        failed > 0 && t`${failed} ${plural(failed, { one: 'does', other: 'do' })} not come in`,
        batch.withFaults > 0 &&
          t`${batch.withFaults} ${plural(batch.withFaults, { one: 'comes', other: 'come' })} in without a cell`,
      ]
        .filter(Boolean)
        .join(', ')}. Mend them in the file and bring it in again: nobody comes in twice.`,
      {
        words: t`Download them with the reasons`,
        act: () => void window.open(`/api/batches/${batch.id}/rows-to-mend.csv`),
      },
    );
  if (batch.withHints > 0)
    add(
      'hints',
      'doubt',
      t`${batch.withHints} ${plural(batch.withHints, { one: 'row', other: 'rows' })} to look at`,
      t`A likely slip in a domain, a landline, a refusal that can’t be read for sure, and the like: each row says which.`,
      {
        words: t`See them`,
        act: () => acts?.open({ only: 'hints', words: t`Rows to look at` }),
      },
    );
  if (batch.stayNo > 0 && batch.what === 'people')
    add(
      'no',
      'doubt',
      t`${batch.stayNo} said no before, and ${plural(batch.stayNo, { one: 'stays', other: 'stay' })} no`,
      t`The file says yes for them, but only they can come back, by their own act.`,
    );
  const { will } = batch;
  if (will && will.signedLongAgo > 0)
    add(
      'old',
      'doubt',
      t`${will.signedLongAgo} agreed long ago`,
      t`Before the months after which your house rule calls evidence old. It still counts; asking them again is kinder than being forgotten.`,
    );
  for (const [place, people] of Object.entries(will?.places ?? {})) {
    if (place === 'EU')
      add(
        'eu',
        'plain',
        t`${people} ${plural(people, { one: 'lives', other: 'live' })} in the European Union`,
        t`There a yes must be shown on request: the words and the day that you gave are that proof.`,
      );
    if (place === 'CA')
      add(
        'ca',
        'plain',
        t`${people} ${plural(people, { one: 'lives', other: 'live' })} in Canada`,
        t`There the sender must be able to prove consent, and a relationship counts for a set time only.`,
      );
  }
  if (batch.state === 'checked')
    add(
      'safe',
      'good',
      t`Nothing is changed yet`,
      t`And a batch can be taken back out as a whole. Whoever got a message meanwhile would stay.`,
    );
  if (batch.state === 'taken-out' && batch.stayed > 0)
    add(
      'stayed',
      'plain',
      `${batch.stayed} ${plural(batch.stayed, { one: 'person', other: 'people' })} stayed`,
      t`Something happened to them after they came in: a message, a gift or an edit.`,
    );
  return notes;
}
