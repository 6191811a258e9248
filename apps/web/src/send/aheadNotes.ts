import { plural, t } from '@lingui/core/macro';
import { useQuery } from '@tanstack/react-query';
import type { AheadView } from '@goodword/core/contract';
import { useFormat } from '../app/format';
import { anew, reading } from '../app/reading';
import { zoneWords } from '../ui/DayField';
import type { Note } from '../ui/margin';
import type { WhenChosen } from './useWhen';

/** Fewer mails than these reach no domain's limit. */
const MANY = 100;
/** A mailing that takes longer than this is told, in milliseconds. */
const LONG_MS = 10 * 60_000;

type Words = ReturnType<typeof useFormat>;

/** Who drops out until it leaves, and who gave lately. */
function peopleNotes({ lapses, enough, gave, gaveSince }: AheadView, format: Words): Note[] {
  const notes: Note[] = [];
  if (gave > 0)
    notes.push({
      ...{ key: 'gave', tone: 'doubt' },
      title: plural(gave, { one: '# of them gave lately', other: '# of them gave lately' }),
      body: t`Since ${format.day(gaveSince)}: a thank-you may be due before they are asked anew.`,
    });
  if (lapses > 0)
    notes.push({
      ...{ key: 'lapses', tone: 'doubt' },
      title: plural(lapses, {
        one: 'Permission of # of them lapses before it leaves',
        other: 'Permission of # of them lapses before it leaves',
      }),
      body: t`They will not get it then.`,
    });
  if (enough > 0)
    notes.push({
      ...{ key: 'enough', tone: 'doubt' },
      title: plural(enough, {
        one: '# of them will have had enough by then',
        other: '# of them will have had enough by then',
      }),
      body: t`With what is planned before it, by the cap in House rules: it is held back for them.`,
    });
  return notes;
}

/** How long it takes, where most of it goes, and who waits for a decent hour. */
function timeNotes({ at, waits, domains, lastLeaves }: AheadView, format: Words): Note[] {
  const notes: Note[] = [];
  const waiting = waits.reduce((sum, { people }) => sum + people, 0);
  if (waiting > 0)
    notes.push({
      ...{ key: 'waits', tone: 'plain' },
      title: plural(waiting, {
        one: '# waits for a decent hour where they are',
        other: '# wait for a decent hour where they are',
      }),
      body: waits
        .slice(0, 4)
        .map(({ people, zone, at: then }) => `${people}: ${format.moment(then)} (${zoneWords(zone)})`)
        .join('; '),
    });
  // Where hours alone hold the last of them, that is told above.
  const isHeld = lastLeaves === waits.at(-1)?.at;
  if (lastLeaves !== null && !isHeld && Date.parse(lastLeaves) - Date.parse(at) > LONG_MS)
    notes.push({
      ...{ key: 'last', tone: 'doubt' },
      title: t`The last one leaves about ${format.moment(lastLeaves)}`,
      body: t`By what you chose and what Setup, Sender lets leave, or as fast as the mailing before did.`,
    });
  if (domains.reduce((sum, { people }) => sum + people, 0) >= MANY)
    notes.push({
      ...{ key: 'domains', tone: 'plain' },
      title: t`Most of it goes to ${domains[0]!.domain}`,
      body: domains
        .map(({ domain, people, seconds }) =>
          [domain, format.number(people), lasting(seconds ?? 0)].filter(Boolean).join(' '),
        )
        .join('; '),
    });
  return notes;
}

/** How long it takes, from a minute on. */
function lasting(seconds: number): string {
  if (seconds < 60) return '';
  const minutes = Math.round(seconds / 60);
  if (minutes < 120) return plural(minutes, { one: '(about # minute)', other: '(about # minutes)' });
  return plural(Math.round(minutes / 60), { one: '(about # hour)', other: '(about # hours)' });
}

/** What is to come for those that were found, were it to leave when it is said to. */
export function useAheadNotes(
  id: number,
  lookedAt: number | null,
  { at, ownTime, spreadHours, past }: WhenChosen,
): Note[] {
  const format = useFormat();
  const when = {
    ...(at && !past ? { at, ownTime } : {}),
    ...(spreadHours === null ? {} : { spreadHours }),
  };
  const { data } = useQuery({
    ...anew(reading('messages/{id}/last-look/ahead', { id, ...when }), lookedAt ?? 0),
    enabled: lookedAt !== null,
  });
  return data ? [...peopleNotes(data, format), ...timeNotes(data, format)] : [];
}
