import { said } from '../../common';
import { columnOf } from '../plan';
import { whenSaid, windowDays, type Window } from '../windows';
import { whether, type LineKind } from './line-kind';

/** What somebody did with a message that a line can ask for. */
export const MESSAGE_EVENTS = ['got', 'opened', 'clicked', 'replied'] as const;
export type MessageEvent = (typeof MESSAGE_EVENTS)[number];

/** Messages got, opened, clicked or answered in a window: one of them, or so many of any. */
export interface MessageLine {
  kind: 'message';
  event: MessageEvent;
  did: boolean;
  /** One message; null for any. */
  messageId: number | null;
  /** So many different messages at the least. */
  atLeast: number;
  window: Window;
}

/** What such a line reads, asks and says. */
export const messageLine: LineKind<MessageLine> = {
  kind: 'message',
  column: ({ event }) => `messages:${event}`,
  named: ({ messageId }) => (messageId === null ? [] : [{ kind: 'message', id: messageId }]),
  plan: ({ messageId, atLeast, window, did }, column, context) => ({
    kind: 'messages',
    messages: columnOf(column, 'messages'),
    messageId,
    days: windowDays(window, context),
    least: atLeast,
    wanted: did,
  }),
  said: (line, names) => {
    const several =
      line.atLeast === 1 ? said('line.message.any') : said('line.message.several', { n: line.atLeast });
    const what =
      line.messageId === null
        ? several
        : said('line.message.this', { message: names.message(line.messageId) });
    const when = whenSaid(line.window, names.locale);
    return said(`line.message.${line.event}`, { yes: whether(line.did), what, when });
  },
};
