import type { DateOrder, FieldType } from '../fields';
import type { FileReading } from './file';
import type { Road, Scope, SendingChannel } from '../permission';

/** What becomes of one column of the file. */
export type ColumnChoice =
  | { to: 'leave' }
  | { to: 'email' }
  | { to: 'mobile' }
  | { to: 'firstName' }
  | { to: 'lastName' }
  | { to: 'field'; fieldId: number; type: FieldType; order?: DateOrder }
  | { to: 'newField'; name: string; type: FieldType; order?: DateOrder }
  | { to: 'consent'; channel: SendingChannel };

/** What the people of the batch agreed to on one channel, and how that is known. */
export type ChannelPermission =
  | { said: 'nothing' }
  | {
      said: 'yes';
      /** For all rows, or only for those whose consent column says yes. A no in that column is always recorded. */
      from: 'everyone' | 'column';
      scopes: Scope[];
      how: Road;
      /** ISO day on which they agreed. */
      on: string;
      words: string;
      voucher: string;
    };

/** Everything that was decided about a file: with the file itself, all that is needed to bring it in. */
export interface IntakePlan {
  /** How the file is read, where a person chose otherwise than what was found. */
  reading?: FileReading;
  columns: ColumnChoice[];
  permission: Record<SendingChannel, ChannelPermission>;
  /** What happens to people who are here already. */
  existing: 'update' | 'leave';
  tagIds: number[];
  newTags: string[];
  listId: number | null;
  newList: string | null;
}

/** Ways that a whole batch can have agreed. */
export const BATCH_ROADS = ['paper', 'form', 'in-person', 'phone'] as const satisfies readonly Road[];

/** What keeps a permission step from being passed, as sentences; empty when it may be. */
export function permissionFaults(plan: Pick<IntakePlan, 'permission' | 'columns'>, today: string): string[] {
  const faults: string[] = [];
  for (const channel of ['email', 'text'] as const) {
    const said = plan.permission[channel];
    const name = channel === 'email' ? 'Email' : 'Text';
    if (said.said === 'nothing') continue;
    if (said.scopes.length === 0) faults.push(`${name}: choose what they agreed to.`);
    if (!/^\d{4}-\d\d-\d\d$/.test(said.on)) faults.push(`${name}: say on which day they agreed.`);
    else if (said.on > today) faults.push(`${name}: the day they agreed lies in the future.`);
    if (said.words.trim().length < 10) faults.push(`${name}: give the words they agreed to, as they stood on the sheet or form.`);
    if (said.voucher.trim() === '') faults.push(`${name}: name who vouches for it.`);
    const hasColumn = plan.columns.some((column) => column.to === 'consent' && column.channel === channel);
    if (said.from === 'column' && !hasColumn) faults.push(`${name}: match a column to "${name} permission" first.`);
  }
  return faults;
}
