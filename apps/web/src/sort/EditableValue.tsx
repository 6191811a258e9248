import { useMutation, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { call } from '../app/api';
import { useMay } from '../app/session';
import { refreshAll } from '../app/refresh';

/** A value that can be edited where it stands: Enter keeps, Escape leaves it as it was. */
export function EditableValue({
  label,
  value,
  shown,
  save,
  placeholder = 'None',
}: {
  label: string;
  value: string;
  shown: string;
  save: (text: string) => Promise<unknown>;
  placeholder?: string;
}) {
  const may = useMay('organizer');
  const queryClient = useQueryClient();
  const [text, setText] = useState<string | null>(null);
  const keep = useMutation({
    mutationFn: save,
    onSuccess: () => {
      setText(null);
      void refreshAll(queryClient);
    },
  });
  if (!may) return <span>{shown || <span className="text-ink3">{placeholder}</span>}</span>;
  if (text === null) {
    return (
      <button
        className="text-left w-full hover:bg-bench rounded-[3px] px-1 -mx-1 min-h-[22px] truncate"
        onClick={() => setText(value)}
        aria-label={`${label}: ${shown || placeholder}. Edit`}
      >
        {shown || <span className="text-ink3">{placeholder}</span>}
      </button>
    );
  }
  return (
    <form onSubmit={(event) => (event.preventDefault(), keep.mutate(text))}>
      <input
        className="input !min-h-[28px] !py-0"
        autoFocus
        aria-label={label}
        aria-invalid={keep.isError}
        value={text}
        disabled={keep.isPending}
        onChange={(event) => setText(event.target.value)}
        onKeyDown={(event) => event.key === 'Escape' && setText(null)}
        onBlur={() => (text === value ? setText(null) : keep.mutate(text))}
      />
      {keep.error && (
        <p role="alert" className="text-madder text-[12.5px]">
          {keep.error.message}
        </p>
      )}
    </form>
  );
}

export const saveField = (supporterId: number, fieldId: number) => (text: string) =>
  call('PUT', `supporters/${supporterId}/fields/${fieldId}`, { text });
