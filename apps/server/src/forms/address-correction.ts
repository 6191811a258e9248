import type { Cell, PermissionEntry } from '@goodword/core/permission';
import { asNew, type EntryRow, type NewEntry } from '../permission/ledger/entries';

/**
 * What an address that its owner corrected hands on to the new one: their own agreements there with their
 * dates, and what others who share the old address had closed for it. Their own refusals hold at every
 * address of theirs already.
 */
export function carriedOver(
  entries: readonly EntryRow[],
  atOld: readonly Cell[],
  atNew: readonly Cell[],
  change: { supporterId: number; from: number; to: number },
): NewEntry[] {
  const own = entries.filter(
    (row) =>
      row.supporter_id === change.supporterId &&
      row.contact_point_id === change.from &&
      row.taken_back_at === null &&
      AGREEMENTS.includes(row.state),
  );
  const said = own.map((row): NewEntry => {
    // The road by which it was said is that of the entry before, which is named.
    const {
      origin: _origin,
      deliveryId: _delivery,
      form: _form,
      page: _page,
      replyId: _reply,
      ...kept
    } = asNew(row);
    return {
      ...kept,
      contactPointId: change.to,
      source: `Came along from ${row.shown ?? 'the address before'} (entry ${row.id})`,
    };
  });
  return [
    ...said,
    ...atOld.filter((cell) => cell.supporterId === 0).flatMap((cell) => bounds(cell, atNew, change.to)),
  ];
}

const AGREEMENTS: readonly PermissionEntry['state'][] = ['yes', 'implied', 'asked'];

/** What binds everybody at the old address; a START there opens nothing that was stopped at the new one. */
function bounds(cell: Cell, atNew: readonly Cell[], to: number): NewEntry[] {
  const { channel, scope, marks } = cell;
  const stoppedThere = atNew.some(
    (other) => other.supporterId === 0 && other.channel === channel && other.marks.stop,
  );
  const bound = {
    contactPointId: to,
    supporterId: null,
    channel,
    scope,
    byPerson: true,
    source: 'Came along from the address before',
  };
  return [
    ...(marks.no
      ? [{ ...bound, state: 'no' as const, how: 'preferences' as const, saidAt: new Date(marks.no.at) }]
      : []),
    ...(marks.stop
      ? [{ ...bound, state: 'no' as const, how: 'keyword' as const, saidAt: new Date(marks.stop.at) }]
      : []),
    ...(marks.start && !stoppedThere
      ? [{ ...bound, state: 'start' as const, how: 'keyword' as const, saidAt: new Date(marks.start.at) }]
      : []),
  ];
}
