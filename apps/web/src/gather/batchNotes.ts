import { plural, t } from '@lingui/core/macro';
import type { BatchView } from '@goodword/core/contract';
import type { Note } from '../ui/margin';
import type { Opened } from './BatchCounts';

interface Acts {
  open(opened: Opened): void;
  look(why: string): void;
}

/** Rows that want something of a person: to be looked at, or mended in the file. */
function rowNotes(batch: BatchView, acts: Acts | null): Note[] {
  const notes: Note[] = [];
  const failed = batch.counts.failed ?? 0;
  const looks = batch.counts.look ?? 0;
  if (looks > 0 && batch.state === 'checked')
    notes.push({
      key: 'looks',
      tone: 'doubt',
      title: t`${looks} ${plural(looks, { one: 'row wants', other: 'rows want' })} a look`,
      body: t`They may be people who are here. Whatever is not settled stays out.`,
      remedy: { words: t`Look at them`, act: () => acts?.look('all') },
    });
  if (failed + batch.withFaults > 0 && batch.fileKept)
    notes.push({
      key: 'mend',
      tone: failed > 0 ? 'fault' : 'doubt',
      title: t`${failed + batch.withFaults} ${plural(failed + batch.withFaults, { one: 'row', other: 'rows' })} with errors`,
      body: `${[
        failed > 0 && t`${failed} ${plural(failed, { one: 'does', other: 'do' })} not come in`,
        batch.withFaults > 0 &&
          t`${batch.withFaults} ${plural(batch.withFaults, { one: 'comes', other: 'come' })} in without a cell`,
      ]
        .filter(Boolean)
        .join(', ')}. ${howToMend(batch)}`,
      remedy: {
        words: t`Download them with the reasons`,
        act: () => void window.open(`/api/batches/${batch.id}/rows-to-mend.csv`),
      },
    });
  if (batch.withHints > 0)
    notes.push({
      key: 'hints',
      tone: 'doubt',
      title: t`${batch.withHints} ${plural(batch.withHints, { one: 'row', other: 'rows' })} to look at`,
      body: t`A likely slip in a domain, a landline, a refusal that can’t be read for sure, and the like: each row says which.`,
      remedy: {
        words: t`See them`,
        act: () => acts?.open({ only: 'hints', words: t`Rows to look at` }),
      },
    });
  return notes;
}

/** What is told of permission: who stays out, whose word is old, which law looks closer. */
function permissionNotes({ stayNo, what, will }: BatchView): Note[] {
  const notes: Note[] = [];
  if (stayNo > 0 && what === 'people')
    notes.push({
      key: 'no',
      tone: 'doubt',
      title: t`${stayNo} said no before, and ${plural(stayNo, { one: 'stays', other: 'stay' })} no`,
      body: t`The file says yes for them, but only they can come back, by their own act.`,
    });
  if (will && will.signedLongAgo > 0)
    notes.push({
      key: 'old',
      tone: 'doubt',
      title: t`${will.signedLongAgo} agreed long ago`,
      body: t`Before the months after which your house rule calls evidence old. It still counts; asking them again is kinder than being forgotten.`,
    });
  const { EU: inUnion = 0, CA: inCanada = 0 } = will?.places ?? {};
  if (inUnion > 0)
    notes.push({
      key: 'eu',
      tone: 'plain',
      title: t`${inUnion} ${plural(inUnion, { one: 'lives', other: 'live' })} in the European Union`,
      body: t`There a yes must be shown on request: the words and the day that you gave are that proof.`,
    });
  if (inCanada > 0)
    notes.push({
      key: 'ca',
      tone: 'plain',
      title: t`${inCanada} ${plural(inCanada, { one: 'lives', other: 'live' })} in Canada`,
      body: t`There the sender must be able to prove consent, and a relationship counts for a set time only.`,
    });
  return notes;
}

/** What the batch is at: nothing written yet, or taken out again but for some. */
function stateNotes({ state, stayed }: BatchView): Note[] {
  const notes: Note[] = [];
  if (state === 'checked')
    notes.push({
      key: 'safe',
      tone: 'good',
      title: t`Nothing is changed yet`,
      body: t`And a batch can be taken back out as a whole. Whoever got a message meanwhile would stay.`,
    });
  if (state === 'taken-out' && stayed > 0)
    notes.push({
      key: 'stayed',
      tone: 'plain',
      title: `${stayed} ${plural(stayed, { one: 'person', other: 'people' })} stayed`,
      body: t`Something happened to them after they came in: a message, a gift or an edit.`,
    });
  return notes;
}

/**
 * What the Margin says of a checked or finished batch; without `acts` it offers nothing to whoever may only
 * read.
 */
export function batchNotes(batch: BatchView | undefined, acts: Acts | null): Note[] {
  if (!batch) return [];
  const stopped: Note[] = batch.problem
    ? [{ key: 'problem', tone: 'fault', title: t`It stopped`, body: batch.problem }]
    : [];
  const notes = [...stopped, ...rowNotes(batch, acts), ...permissionNotes(batch), ...stateNotes(batch)];
  return acts ? notes : notes.map(({ remedy: _none, ...note }) => note);
}

/** What to do about rows with errors: where they come from. */
const howToMend = (batch: BatchView): string =>
  batch.ofFeed
    ? t`They come again when they are mended over there.`
    : t`Mend them in the file and bring it in again: nobody comes in twice.`;
