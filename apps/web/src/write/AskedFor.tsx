import { t } from '@lingui/core/macro';
import { PURPOSES, type Purpose } from '@goodword/core/permission';
import type { ListName } from '../app/groups';

/** What words are for: a purpose, or a public list. */
export interface AskedScope {
  purpose: Purpose | null;
  listId: number | null;
}

/** Chooses what permission words ask for. */
export function AskedFor({
  value,
  lists,
  disabled,
  label,
  className = 'input !w-auto',
  onChange,
}: {
  value: AskedScope;
  lists: readonly ListName[];
  disabled?: boolean;
  label: string;
  className?: string;
  onChange: (value: AskedScope) => void;
}) {
  return (
    <select
      className={className}
      aria-label={label}
      disabled={disabled}
      value={value.listId === null ? (value.purpose ?? '') : `list:${value.listId}`}
      onChange={({ target }) =>
        onChange(
          target.value.startsWith('list:')
            ? { purpose: null, listId: Number(target.value.slice(5)) }
            : { purpose: target.value as Purpose, listId: null },
        )
      }
    >
      {PURPOSES.map((purpose) => (
        <option key={purpose} value={purpose}>
          {purpose}
        </option>
      ))}
      {lists
        .filter((list) => list.isPublic || list.id === value.listId)
        .map((list) => (
          <option key={list.id} value={`list:${list.id}`}>
            {t`the list ${list.name}`}
          </option>
        ))}
    </select>
  );
}
