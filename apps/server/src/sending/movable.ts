import type { MessageState } from '@goodword/core/contract';
import type { MessageRow, MessagesRepository } from '../messages/messages.repository';
import type { Scoped } from '../platform/scoped';
import { Conflict } from '../platform/errors';
import type { AccessScope } from '../platform/scope';
import { sentence } from '../platform/words';

/**
 * The message, locked, where it is in one of some states and the caller may send for its chapter; a conflict
 * says what it is instead.
 */
export async function movable(
  messages: MessagesRepository,
  tx: Scoped,
  scope: AccessScope,
  id: number,
  from: readonly MessageState[],
): Promise<MessageRow> {
  await messages.need(tx, id);
  const message = (await messages.lock(tx, id))!;
  chapterOfMessage(scope, message);
  if (!from.includes(message.state)) throw new Conflict(sentence('send.too-late', { state: message.state }));
  return message;
}

/** The message's own chapter decides who can be in its group; a chapter can't send for all of them. */
export function chapterOfMessage(scope: AccessScope, message: MessageRow): AccessScope {
  if (scope.chapterId !== null && message.chapter_id === null)
    throw new Conflict(
      scope.boundTo === null ? sentence('send.all-chapters') : sentence('send.all-chapters-bound'),
    );
  return { ...scope, chapterId: message.chapter_id };
}
