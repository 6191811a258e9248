import type { Channel } from '@goodword/core/permission';

/**
 * Asks of a column that holds the kind of a line whether it is a landline, which the core never texts (see
 * `decide`).
 */
export const isLandline = (line: string): string => `(${line} <=> 'landline')`;

/** Whether the channel goes to such a line at all, for sets of addresses of which nothing else is decided. */
export const takes = (channel: Channel, line: string): string =>
  channel === 'text' ? `NOT ${isLandline(line)}` : 'TRUE';
