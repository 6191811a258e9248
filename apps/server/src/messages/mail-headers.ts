import type { OrganizationRow, TeammateRow } from '../team/team.repository';
import type { MessageRow } from './messages.repository';

/**
 * RFC 2919 §2: a phrase and an identifier in a namespace of one's own, the same for every message of the
 * list.
 */
export function listId(
  message: Pick<MessageRow, 'purpose' | 'list_id'>,
  listName: string | null,
  organization: OrganizationRow,
): string {
  const phrase = listName ?? `${organization.name} ${message.purpose ?? 'appeals'}`;
  const label = (
    message.list_id === null ? (message.purpose ?? 'appeals') : `list-${message.list_id}`
  ).toLowerCase();
  return `"${phrase.replace(/[^\x20-\x7e]|["\\]/g, '')}" <${label}.${organization.list_domain}>`;
}

/** What a mail says of itself before its words, as somebody can look at it. */
export function shownHeaders(
  message: Pick<MessageRow, 'purpose' | 'list_id'>,
  around: {
    listName: string | null;
    organization: OrganizationRow;
    sender: TeammateRow | undefined;
    subject: string;
  },
): { name: string; value: string }[] {
  const { listName, organization, sender, subject } = around;
  const from = [sender?.name, organization.name].filter(Boolean).join(', ');
  return [
    { name: 'From', value: `"${from}" <${organization.from_email}>` },
    { name: 'Subject', value: subject },
    { name: 'Reply-To', value: `answer-…@${organization.list_domain}` },
    { name: 'List-Id', value: listId(message, listName, organization) },
    { name: 'List-Unsubscribe', value: `<…/leave/…>, <mailto:leave-…@${organization.list_domain}>` },
    { name: 'List-Unsubscribe-Post', value: 'List-Unsubscribe=One-Click' },
  ];
}
