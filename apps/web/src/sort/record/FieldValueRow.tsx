import { t } from '@lingui/core/macro';
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { useRef } from 'react';
import type { RecordView } from '@goodword/core/contract';
import { api, fileForm } from '../../app/api';
import { refresh } from '../../app/refresh';
import { useMay } from '../../app/session';
import { EditableValue, saveField } from './EditableValue';
import { editorOf, plainValue } from './editors';

type Field = RecordView['fields'][number];

/** A file in a field: downloaded by its name, and put in or replaced where it stands. */
function FileValue({ record, field }: { record: RecordView; field: Field }) {
  const may = useMay('organizer');
  const queryClient = useQueryClient();
  const input = useRef<HTMLInputElement>(null);
  const path = `supporters/${record.id}/fields/${field.id}/file`;
  const put = useMutation({
    mutationFn: (file: File) =>
      api.put('supporters/{id}/fields/{fieldId}/file', {
        id: record.id,
        fieldId: field.id,
        files: fileForm(file),
      }),
    onSuccess: () => refresh(queryClient, 'supporters'),
  });
  return (
    <>
      {field.shown ? (
        <a className="link" href={`/api/${path}`}>
          {field.shown}
        </a>
      ) : (
        !may && <span className="text-ink3">{t`None`}</span>
      )}{' '}
      {may && (
        <>
          <input
            ref={input}
            type="file"
            className="sr-only"
            aria-label={t`File for ${field.name}`}
            onChange={(event) => event.target.files?.[0] && put.mutate(event.target.files[0])}
          />
          <button
            className="link text-ink2 text-[12.5px]"
            disabled={put.isPending}
            onClick={() => input.current?.click()}
          >
            {put.isPending ? t`Putting it in…` : field.shown ? t`Another file` : t`Put a file in`}
          </button>
        </>
      )}
      {put.error && (
        <p role="alert" className="text-madder text-[12.5px]">
          {put.error.message}
        </p>
      )}
    </>
  );
}

/** One field of a record, with the editor of its type and what is told beside it. */
export function FieldValueRow({ record, field }: { record: RecordView; field: Field }) {
  if (field.type === 'file') return <FileValue record={record} field={field} />;
  return (
    <EditableValue
      label={field.name}
      hint={field.help}
      value={plainValue(field)}
      shown={field.shown}
      link={field.type === 'link' ? field.shown : undefined}
      editor={editorOf(field)}
      save={saveField(record.id, field.id)}
    />
  );
}
