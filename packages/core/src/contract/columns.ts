import type { PeopleView } from './generated';

/** What a table of people shows and by what it is in order. */
export type PeopleColumns = Pick<PeopleView, 'fields' | 'by' | 'descending'>;
